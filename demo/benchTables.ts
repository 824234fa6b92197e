import type { CauseId } from "@probe-lane/core/diagnosis";
import type { TargetId } from "@probe-lane/core/exercises";
import { rule, type RegisterRuling } from "@probe-lane/core/grading";
import { findDemoExercise, demoExercises } from "./exercises";
import { LaneDriver, workLane, type Habits } from "@probe-lane/students";

/** A mistake woven into what a student does: where it shows, and what it is called. */
interface Woven {
  readonly exercise: string;
  readonly habits: Habits;
  readonly target: TargetId;
  readonly cause: CauseId;
}

const FOCUSER = "focuser-plate-lower-left";
const ROLLER = "roller-bracket-back-right";

const WOVEN: readonly Woven[] = [
  { exercise: FOCUSER, habits: { radius: { x: "forgotten" } }, target: "x", cause: "radiusForgotten" },
  { exercise: ROLLER, habits: { radius: { y: "turned" } }, target: "y", cause: "radiusSignTurned" },
  { exercise: FOCUSER, habits: { radius: { y: "diameter" } }, target: "y", cause: "diameterForRadius" },
  { exercise: ROLLER, habits: { edgeWork: { x: "forgotten" } }, target: "x", cause: "edgeWorkForgotten" },
  { exercise: ROLLER, habits: { edgeWork: { y: "turned" } }, target: "y", cause: "edgeWorkSignTurned" },
  { exercise: FOCUSER, habits: { backsOffFirst: { x: 35 } }, target: "x", cause: "capturedAfterLeaving" },
  { exercise: FOCUSER, habits: { keepsBurr: true }, target: "y", cause: "burr" },
  { exercise: FOCUSER, habits: { overTravels: true }, target: "y", cause: "bentFinder" },
  { exercise: FOCUSER, habits: { paper: "forgotten" }, target: "z1", cause: "paperForgotten" },
  { exercise: ROLLER, habits: { paper: "wrongWay" }, target: "z1", cause: "paperWrongWay" },
  { exercise: ROLLER, habits: { facing: "forgotten" }, target: "z1", cause: "facingForgotten" },
  { exercise: ROLLER, habits: { facing: "wrongWay" }, target: "z1", cause: "facingWrongWay" },
  { exercise: ROLLER, habits: { leavesOldWorkZ: true }, target: "z1", cause: "leftoverWorkZ" },
  { exercise: FOCUSER, habits: { otherRow: "y", skipsLook: true }, target: "y", cause: "otherRegister" },
  { exercise: "inch-bracket", habits: { radius: { x: "turned" } }, target: "x", cause: "radiusSignTurned" },
  { exercise: "clamp-corner-taster", habits: { dialTurnShort: "x" }, target: "x", cause: "dialTurnShort" },
  { exercise: "clamp-middle-finder", habits: { radiusOnOneSide: "y" }, target: "y", cause: "radiusOnOneSide" },
  { exercise: "clamp-middle-finder", habits: { oneFaceOnly: "x" }, target: "x", cause: "oneSideOnly" },
  { exercise: "plate-skewed", habits: { forgetsTurn: true }, target: "rotation", cause: "turnForgotten" },
  { exercise: "five-tools-part-touch", habits: { paper: "forgotten" }, target: "H3", cause: "paperForgotten" },
  { exercise: "five-tools-gauge-line", habits: { neighborRow: true }, target: "H1", cause: "neighborRow" },
  { exercise: "five-tools-block-in-wear", habits: { leavesBlockOut: true }, target: "H2", cause: "blockForgotten" },
  { exercise: "diameters-part-contour", habits: { radiusForDiameter: 1 }, target: "d1", cause: "radiusInDiameter" },
  { exercise: "diameters-part-contour", habits: { nominalForMeasured: 5 }, target: "d5", cause: "nominalForMeasured" },
  { exercise: "change-of-part-moving-jaw", habits: { touchesNothingNew: true }, target: "y", cause: "neverSet" },
  { exercise: "setter-in-doubt", habits: { trustsCard: true }, target: "H1", cause: "setterMoved" },
  { exercise: "bracket-cold-machine", habits: { keepsDirt: true }, target: "z1", cause: "taperDirt" },
  { exercise: "knob-first-tool", habits: { radiusForX: true }, target: "X1", cause: "diameterAsRadius" },
  { exercise: "knob-first-tool", habits: { movesBeforeZ: 7 }, target: "Z1", cause: "capturedAfterLeaving" },
  { exercise: "knob-first-tool", habits: { skimsThin: true }, target: "X1", cause: "notCleanedUp" },
  { exercise: "collar-five-tools-face", habits: { feelerOnce: true }, target: "X4", cause: "feelerOnce" },
  { exercise: "collar-five-tools-face", habits: { gapForgotten: true }, target: "Z2", cause: "gapForgotten" },
  { exercise: "collar-five-tools-face", habits: { touchesRaw: true }, target: "X5", cause: "touchedRunout" },
  { exercise: "collar-five-tools-face", habits: { facesAgain: true }, target: "Z3", cause: "faceCutAgain" },
  { exercise: "collar-parting-edge", habits: { otherBladeEdge: true }, target: "Z4", cause: "otherBladeEdge" },
  { exercise: "collar-five-tools-arm", habits: { offsetNotCalled: true }, target: "Z3", cause: "toolNotActive" },
  { exercise: "knob-master-shift", habits: { shiftMissing: true }, target: "Z2", cause: "shiftMissing" },
  { exercise: "knob-master-shift", habits: { leavesOldRow: true }, target: "Z1", cause: "masterNotCleared" },
  { exercise: "ring-readout-library", habits: { librarySign: true }, target: "X2", cause: "librarySign" },
  { exercise: "ring-readout-library", habits: { feelerOnSome: true }, target: "X3", cause: "feelerOnSome" },
  { exercise: "ring-readout-library", habits: { leansOnPost: true }, target: "X2", cause: "leanedOnPost" },
  {
    exercise: "collar-gang-two-changed",
    habits: { toolToRegister: true, tightensOneSide: true },
    target: "X4",
    cause: "clampShifted",
  },
  {
    exercise: "collar-gang-two-changed",
    habits: { toolToRegister: true, leavesRegister: true },
    target: "X2",
    cause: "registerBuiltIn",
  },
  { exercise: "knob-cone-neutral", habits: { cone: "faceOnly" }, target: "Z2", cause: "plateMetEarly" },
  { exercise: "knob-cone-neutral", habits: { cone: "noseLeftOut" }, target: "Z2", cause: "coneNoseLeftOut" },
  { exercise: "inch-collar", habits: { paper: "forgotten" }, target: "X3", cause: "feelerForgotten" },
];

/** Two mistakes in one lane, each on a value of its own. */
const PAIRS: readonly {
  readonly exercise: string;
  readonly habits: Habits;
  readonly both: readonly [TargetId, CauseId][];
}[] = [
  {
    exercise: FOCUSER,
    habits: { radius: { x: "forgotten" }, paper: "forgotten" },
    both: [
      ["x", "radiusForgotten"],
      ["z1", "paperForgotten"],
    ],
  },
  {
    exercise: ROLLER,
    habits: { radius: { y: "turned" }, facing: "forgotten" },
    both: [
      ["y", "radiusSignTurned"],
      ["z1", "facingForgotten"],
    ],
  },
  {
    exercise: ROLLER,
    habits: { radius: { x: "forgotten" }, edgeWork: { x: "turned" } },
    both: [
      ["x", "radiusForgotten"],
      ["x", "edgeWorkSignTurned"],
    ],
  },
  {
    exercise: ROLLER,
    habits: { leavesOldWorkZ: true, facing: "forgotten" },
    both: [
      ["z1", "leftoverWorkZ"],
      ["z1", "facingForgotten"],
    ],
  },
  {
    exercise: FOCUSER,
    habits: { backsOffFirst: { x: 35 }, radius: { x: "forgotten" } },
    both: [
      ["x", "capturedAfterLeaving"],
      ["x", "radiusForgotten"],
    ],
  },
  {
    exercise: ROLLER,
    habits: { paper: "wrongWay", facing: "forgotten" },
    both: [
      ["z1", "paperWrongWay"],
      ["z1", "facingForgotten"],
    ],
  },
  {
    exercise: FOCUSER,
    habits: { keepsBurr: true, radius: { y: "diameter" } },
    both: [
      ["x", "burr"],
      ["y", "diameterForRadius"],
    ],
  },
  {
    exercise: "collar-five-tools-face",
    habits: { gapForgotten: true, otherBladeEdge: true },
    both: [
      ["Z2", "gapForgotten"],
      ["Z4", "otherBladeEdge"],
    ],
  },
  {
    exercise: "knob-first-tool",
    habits: { radiusForX: true, movesBeforeZ: 7 },
    both: [
      ["X1", "diameterAsRadius"],
      ["Z1", "capturedAfterLeaving"],
    ],
  },
  {
    exercise: "knob-declared-position",
    habits: { declaresAgain: "elsewhere", gapForgotten: true },
    both: [
      ["Z1", "declaredElsewhere"],
      ["Z2", "gapForgotten"],
    ],
  },
  {
    exercise: "knob-master-shift",
    habits: { gapForgotten: true, paper: "forgotten" },
    both: [
      ["Z2", "gapForgotten"],
      ["X2", "feelerForgotten"],
    ],
  },
];

interface Tally {
  lanes: number;
  named: number;
}
interface BenchMiss {
  readonly exercise: string;
  readonly target: TargetId;
  readonly cause: string;
  readonly said: string;
  readonly closureUm: number;
}
export interface BenchTables {
  single: Tally;
  pair: Tally;
  clean: Tally;
  full: Tally;
  /** Of the lanes of one mistake: proven from the log, and inferred from the number. */
  proven: number;
  inferred: number;
  rows: { exercise: string; cause: CauseId; lanes: number; named: number; tooSmall: number }[];
  misses: BenchMiss[];
}

const said = ({ cause }: RegisterRuling): string[] => {
  if (cause.kind === "proven") return cause.terms.map(({ id }) => id);
  return cause.kind === "inferred" ? [...(cause.ranked[0]?.ids ?? [])] : [];
};

function ruled(exerciseId: string, habits: Habits, seed: string) {
  const { exercise, marking } = findDemoExercise(exerciseId);
  const lane = new LaneDriver(exercise, seed);
  workLane(lane, habits);
  return { ruling: rule(lane.log, marking), lane };
}

/**
 * So many lanes each of simulated students with one mistake, with two, and with none. A mistake that in this lane stays
 * inside the tolerance leaves nothing to name and is counted apart, not as named.
 */
export function benchTables(lanes: number): BenchTables {
  const tables: BenchTables = {
    single: { lanes: 0, named: 0 },
    pair: { lanes: 0, named: 0 },
    clean: { lanes: 0, named: 0 },
    full: { lanes: 0, named: 0 },
    proven: 0,
    inferred: 0,
    rows: [],
    misses: [],
  };
  const rows = new Map<Woven, { exercise: string; cause: CauseId; lanes: number; named: number; tooSmall: number }>();
  for (let turn = 0; tables.single.lanes < lanes && turn < lanes * 2; turn++) {
    const woven = WOVEN[turn % WOVEN.length];
    if (!woven) break;
    const value = ruled(woven.exercise, woven.habits, `one ${turn}`).ruling.values.find(
      ({ target }) => target.id === woven.target,
    );
    const row = rows.get(woven) ?? { exercise: woven.exercise, cause: woven.cause, lanes: 0, named: 0, tooSmall: 0 };
    rows.set(woven, row);
    if (!value || Math.abs(value.closureMm) <= value.toleranceMm) {
      row.tooSmall += 1;
      continue;
    }
    const ids = said(value);
    const isNamed = ids[0] === woven.cause;
    tables.single.lanes += 1;
    tables.single.named += Number(isNamed);
    tables.proven += Number(isNamed && value.cause.kind === "proven");
    tables.inferred += Number(isNamed && value.cause.kind === "inferred");
    row.lanes += 1;
    row.named += Number(isNamed);
    if (!isNamed)
      tables.misses.push({
        exercise: woven.exercise,
        target: woven.target,
        cause: woven.cause,
        said: ids.join(" + ") || "unexplained",
        closureUm: Math.round(value.closureMm * 1000),
      });
  }
  for (let turn = 0; turn < lanes; turn++) {
    const pair = PAIRS[turn % PAIRS.length];
    if (!pair) break;
    const { values } = ruled(pair.exercise, pair.habits, `two ${turn}`).ruling;
    const isBoth = pair.both.every(([target, cause]) =>
      values.some((value) => value.target.id === target && said(value).includes(cause)),
    );
    tables.pair.lanes += 1;
    tables.pair.named += Number(isBoth);
    if (!isBoth)
      tables.misses.push({
        exercise: pair.exercise,
        target: pair.both[0]?.[0] ?? "x",
        cause: pair.both.map(([, cause]) => cause).join(" + "),
        said: values.flatMap(said).join(" + ") || "unexplained",
        closureUm: 0,
      });
  }
  for (let turn = 0; turn < lanes; turn++) {
    const file = demoExercises[turn % demoExercises.length];
    if (!file) break;
    const { ruling } = ruled(file.exercise.id, {}, `none ${turn}`);
    const claimed = ruling.values.filter((value) => said(value).length > 0);
    tables.clean.lanes += 1;
    tables.clean.named += Number(claimed.length === 0);
    tables.full.lanes += 1;
    tables.full.named += Number(ruling.total > 100 - 1e-6);
    for (const value of claimed)
      tables.misses.push({
        exercise: file.exercise.id,
        target: value.target.id,
        cause: "none",
        said: said(value).join(" + "),
        closureUm: Math.round(value.closureMm * 1000),
      });
  }
  tables.rows = [...rows.values()];
  return tables;
}
