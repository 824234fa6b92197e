import type { CauseId } from "@probe-lane/core/diagnosis";
import type { Habits } from "@probe-lane/students";

/** A mistake woven into what a student does, and what it may be called: one thing has other names in other schools. */
export interface Woven {
  readonly name: string;
  readonly machine: "mill" | "lathe";
  readonly habits: Habits;
  readonly causes: readonly CauseId[];
  /** What it is about: two about one thing cannot both be done. */
  readonly about?: "feeler" | undefined;
}

const PAPER: readonly CauseId[] = ["paperForgotten", "blockForgotten"];
const PAPER_WRONG: readonly CauseId[] = ["paperWrongWay", "blockWrongWay"];

const mill = (name: string, habits: Habits, ...causes: CauseId[]): Woven => ({ name, machine: "mill", habits, causes });
const lathe = (name: string, habits: Habits, ...causes: CauseId[]): Woven => ({
  name,
  machine: "lathe",
  habits,
  causes,
});
/** About what lies between tool and diameter, or about a tool that is set without it. */
const feeler = (name: string, habits: Habits, ...causes: CauseId[]): Woven => ({
  ...lathe(name, habits, ...causes),
  about: "feeler",
});

/** Every mistake that a simulated student knows how to make; each is tried on every exercise of its machine. */
export const WOVEN: readonly Woven[] = [
  mill("radius left out", { radius: { x: "forgotten" } }, "radiusForgotten"),
  mill("radius turned round", { radius: { y: "turned" } }, "radiusSignTurned"),
  mill("diameter for radius", { radius: { y: "diameter" } }, "diameterForRadius"),
  mill("radius added with its sign turned", { way: "add", radius: { x: "turned" } }, "radiusSignTurned"),
  mill("edge’s coordinate left out", { edgeWork: { x: "forgotten" } }, "edgeWorkForgotten"),
  mill("edge’s coordinate turned", { edgeWork: { y: "turned" } }, "edgeWorkSignTurned"),
  mill("backed off before the capture", { backsOffFirst: { x: 35 } }, "capturedAfterLeaving"),
  mill(
    "backed off, radius by motion",
    { way: "motion", backsOffFirst: { x: 290 } },
    "capturedAfterLeaving",
    "notOverMiddle",
  ),
  mill("burr kept", { keepsBurr: true }, "burr"),
  mill("tip bent", { overTravels: true }, "bentFinder"),
  mill("paper left out", { paper: "forgotten" }, ...PAPER),
  mill("paper the wrong way", { paper: "wrongWay" }, ...PAPER_WRONG),
  mill("facing left out", { facing: "forgotten" }, "facingForgotten"),
  mill("facing the wrong way", { facing: "wrongWay" }, "facingWrongWay"),
  mill("old work Z left in", { leavesOldWorkZ: true }, "leftoverWorkZ"),
  mill("entered in another row", { otherRow: "y", skipsLook: true }, "otherRegister"),
  mill("dial one turn short", { dialTurnShort: "x" }, "dialTurnShort"),
  mill("radius on one side only", { radiusOnOneSide: "y" }, "radiusOnOneSide"),
  mill("one face only", { oneFaceOnly: "x" }, "oneSideOnly"),
  mill("swept the wrong way", { sweepWrongWay: true }, "notOverMiddle"),
  mill("taster not trued", { skipsTrue: true }, "tasterNotTrued"),
  mill("another tip told to the probe", { wrongSizeMm: 1.5 }, "otherTipRadius"),
  mill("turn not called", { forgetsTurn: true }, "turnForgotten"),
  mill("neighbor’s row", { neighborRow: true }, "neighborRow"),
  mill("block left out", { leavesBlockOut: true }, "blockForgotten"),
  mill("block in wear, block left out", { school: "block-in-wear", leavesBlockOut: true }, ...PAPER),
  mill("part touched, paper left out", { school: "part-touch", paper: "forgotten" }, ...PAPER),
  mill("on one plane, paper left out", { school: "plane-lift", paper: "forgotten" }, ...PAPER),
  mill("by a master, paper left out", { school: "master", paper: "forgotten" }, ...PAPER),
  mill("radius in a diameter register", { radiusForDiameter: 1 }, "radiusInDiameter"),
  mill("nominal for measured", { nominalForMeasured: 5 }, "nominalForMeasured"),
  mill("nothing touched anew", { touchesNothingNew: true }, "neverSet", "leftoverWorkZ"),
  mill("card trusted", { trustsCard: true }, "setterMoved", "presetterOff", "probeLengthWrong"),
  mill("dirt kept", { keepsDirt: true }, "taperDirt"),
  mill("chips kept", { keepsChips: true }, "chipOnTip"),
  mill("measured standing still", { measuresStill: true }, "spindleGrowth"),
  mill("first length off", { firstLengthOffMm: 0.4 }, "otherFigure", "wrongSum", "carriedOver"),
  lathe("radius for X", { radiusForX: true }, "diameterAsRadius", "plateMetEarly"),
  lathe("moved on before X", { movesBeforeX: 9 }, "capturedAfterLeaving"),
  lathe("moved on before Z", { movesBeforeZ: 7 }, "capturedAfterLeaving"),
  lathe("skimmed too thin", { skimsThin: true }, "notCleanedUp", "touchedRunout"),
  feeler("paper left out", { paper: "forgotten" }, "feelerForgotten", "gapForgotten"),
  feeler("paper the wrong way", { paper: "wrongWay" }, "paperWrongWay", "gapWrongWay"),
  feeler("feeler once", { feelerOnce: true }, "feelerOnce"),
  lathe("gap left out", { gapForgotten: true }, "gapForgotten"),
  lathe("raw stock touched", { touchesRaw: true }, "touchedRunout"),
  lathe("faced again", { facesAgain: true }, "faceCutAgain"),
  lathe("other edge of the blade", { otherBladeEdge: true }, "otherBladeEdge"),
  lathe("tool not active", { offsetNotCalled: true }, "toolNotActive"),
  lathe("shift missing", { shiftMissing: true }, "shiftMissing"),
  lathe("master’s row kept", { leavesOldRow: true }, "masterNotCleared"),
  lathe("old work Z left in", { leavesOldWorkZ: true }, "leftoverWorkZ", "masterNotCleared"),
  lathe("sign of the library", { librarySign: true }, "librarySign"),
  feeler("feeler with some tools", { feelerOnSome: true }, "feelerOnSome"),
  lathe("leaned on the post", { leansOnPost: true }, "leanedOnPost"),
  lathe("corner made to read 40", { cornerReads: "40" }, "cornerNotZero"),
  feeler("clamp tightened on one side", { toolToRegister: true, tightensOneSide: true }, "clampShifted"),
  feeler("register built in", { toolToRegister: true, leavesRegister: true }, "registerBuiltIn"),
  lathe("face believed", { cone: "faceOnly" }, "plateMetEarly"),
  lathe("nose left out of the cone", { cone: "noseLeftOut" }, "coneNoseLeftOut"),
  lathe("shims the wrong way", { shims: "wrongWay" }, "heightWrongWay", "faceCutAgain"),
  lathe("shims by the whole pip", { shims: "whole" }, "wholePip"),
  lathe("swept and not moved", { sweepsOnly: true }, "notOverMiddle"),
  lathe("pin left out", { axisPin: "none" }, "halfPinForgotten"),
  lathe("pin whole", { axisPin: "whole" }, "wholePinAdded"),
  lathe("tailstock taken", { atTailstock: true }, "tailstockTaken"),
  lathe("gauge not zeroed", { gauge: "notZeroed" }, "gaugeNotZeroed"),
  lathe("gauge from above", { gauge: "fromAbove" }, "gaugeFromAbove"),
  lathe("declared elsewhere", { declaresAgain: "elsewhere" }, "declaredElsewhere"),
  lathe("declared with another tool", { declaresAgain: "withOther" }, "declaredElsewhere"),
  lathe("not declared again", { declaresAgain: "never" }, "declarationLost"),
  feeler("bore by paper, paper left out", { boreByPaper: true, paper: "forgotten" }, "feelerForgotten", "gapForgotten"),
  feeler("bore by paper, counted once", { boreByPaper: true, feelerOnce: true }, "feelerOnce"),
];

/** Names for what follows from another value that was wrong: never wrong beside the thing itself. */
export const FOLLOWS: ReadonlySet<CauseId> = new Set(["carriedOver"]);
