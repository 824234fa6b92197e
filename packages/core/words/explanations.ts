import type { CauseId } from "../diagnosis";
import { edgeOf, leftoverOf, paperOf, type Setup } from "../exercises";
import type { RegisterRuling } from "../grading";
import type { InstrumentName } from "../instruments";
import { scales, showLength } from "../units";
import { axisNames, instrumentWords, targetWords } from "./names";

const show = (mm: number, sheet: Setup): string => showLength(mm, scales[sheet.unit]);
/** A length with its unit, in the unit of the lane. */
const say = (mm: number, sheet: Setup): string => `${show(mm, sheet)} ${sheet.unit === "mm" ? "mm" : "in"}`;
const contactMm = (value: RegisterRuling, sheet: Setup): number =>
  value.contact ? (value.contact.counts / scales[sheet.unit].countsPerUnit) * (sheet.unit === "mm" ? 1 : 25.4) : 0;

function explainRadius(value: RegisterRuling, sheet: Setup): string {
  if (value.target.kind !== "place" || !value.contact || !value.method) return "";
  const at = contactMm(value, sheet);
  const r = Math.abs(value.method.offMm);
  const by =
    value.method.by === "edgeFinder"
      ? "At the kick"
      : `At the contact of the ${instrumentWords(value.method.by as InstrumentName)}`;
  return (
    `${by} the spindle axis stood at ${show(at, sheet)}. The edge lies one tip radius further toward the part: ` +
    `${show(at, sheet)} ${value.method.offMm > 0 ? "+" : "−"} ${show(r, sheet)} = ${show(at + value.method.offMm, sheet)}.`
  );
}

function explainEdgeWork(value: RegisterRuling, sheet: Setup): string {
  const axis = value.target.axis === "y" ? "y" : "x";
  const edge = sheet.kind === "mill" && value.target.kind === "place" ? edgeOf(sheet, axis) : null;
  if (!edge) return "";
  return `That edge is ${axisNames[axis]} ${show(edge.edgeWorkMm, sheet)}, not zero: the datum lies ${show(Math.abs(edge.edgeWorkMm), sheet)} inside of it.`;
}

function zSum(value: RegisterRuling, sheet: Setup): string {
  if (!value.contact || sheet.kind !== "mill") return "";
  const at = contactMm(value, sheet);
  const { facingAllowanceMm } = sheet;
  const facing = facingAllowanceMm ? `, less the facing allowance ${show(facingAllowanceMm, sheet)}` : "";
  return (
    `The touch was felt at Z ${show(at, sheet)}. Down to the datum: less the paper ${show(paperOf(sheet), sheet)}` +
    `${facing} = ${show(at - paperOf(sheet) - facingAllowanceMm, sheet)}.`
  );
}

type Explain = (term: { mm: number }, value: RegisterRuling, sheet: Setup) => string;

/** What each cause means, in the student's numbers. */
export const EXPLAIN: Partial<Record<CauseId, Explain>> = {
  radiusForgotten: (_t, value, sheet) => `${explainRadius(value, sheet)} That radius is missing from your value.`,
  radiusSignTurned: (_t, value, sheet) =>
    `${explainRadius(value, sheet)} Yours went the other way, away from the part.`,
  diameterForRadius: (_t, value, sheet) => `${explainRadius(value, sheet)} Yours took the whole tip diameter.`,
  edgeWorkForgotten: (_t, value, sheet) => `${explainEdgeWork(value, sheet)} That term is missing from your value.`,
  edgeWorkSignTurned: (_t, value, sheet) => `${explainEdgeWork(value, sheet)} Yours counted it to the wrong side.`,
  otherEdge: (_t, value) =>
    `The other ${axisNames[value.target.axis ?? "x"]} face was touched, a whole part away from the one that the drawing asks for.`,
  paperForgotten: (_t, value, sheet) => `${zSum(value, sheet)} The paper is missing from your sum.`,
  paperWrongWay: (_t, value, sheet) => `${zSum(value, sheet)} Your sum has the paper with the opposite sign.`,
  facingForgotten: (_t, value, sheet) => `${zSum(value, sheet)} The facing allowance is missing from your sum.`,
  facingWrongWay: (_t, value, sheet) =>
    `${zSum(value, sheet)} Your sum has the facing allowance with the opposite sign.`,
  leftoverWorkZ: (_t, _v, sheet) =>
    `G54 Z still held ${show(leftoverOf(sheet, "G54.z"), sheet)} from the job before. It adds to the length that you took on the part.`,
  capturedAfterLeaving: ({ mm }, _v, sheet) =>
    `The machine had moved ${say(mm, sheet)} since the contact when the value was taken, and the move was not counted.`,
  burr: ({ mm }, _v, sheet) =>
    `The burr was still on that edge: the tip met it ${say(Math.abs(mm), sheet)} before the face.`,
  edgeBreak: ({ mm }, _v, sheet) =>
    `The tip reached no further down than the broken edge, and met it ${say(Math.abs(mm), sheet)} late.`,
  bentFinder: ({ mm }, _v, sheet) =>
    `The tip had been pushed too far before and was bent: it meets every face ${say(Math.abs(mm), sheet)} early, and does not say so.`,
  coarseClick: ({ mm }, _v, sheet) => `The contact was found with a coarse click, ${say(Math.abs(mm), sheet)} late.`,
  slowSpindle: () => "Below 400 rev/min the tip kicks late.",
  paperPinched: ({ mm }, _v, sheet) =>
    `The paper was pinched, not dragging: the tip stood ${say(Math.abs(mm), sheet)} lower than one paper.`,
  otherRegister: (_t, value) =>
    `The value stands in another work offset; ${targetWords(value.target)} itself was not changed.`,
  neverSet: (_t, value) => `${targetWords(value.target)} was never set: it still holds what it held at the start.`,
  noContact: () => "No contact was found before the value was set.",
  liftMissing: () =>
    "The tool was touched on the plane, but the datum’s height over that plane was never found with it.",
  blockForgotten: () => "The gauge that stood in the gap is missing from your sum.",
  blockWrongWay: () => "The gauge that stood in the gap was counted with the opposite sign.",
  oneSideOnly: () => "One face was touched; a middle wants both, touched in the same way.",
  notOverMiddle: ({ mm }, _v, sheet) =>
    `The value was taken ${say(Math.abs(mm), sheet)} away from the middle that your contacts give, and that distance was not counted.`,
  partMoved: () => "The part was moved after it was touched: what was found before no longer holds.",
  tasterNotTrued: ({ mm }, _v, sheet) =>
    `The ball of the taster ran out of true by ${say(Math.abs(mm), sheet)} toward that face; it was never set true.`,
  turnForgotten: () => "The part lies turned and nothing was called for it.",
  turnSignTurned: () => "The turn was called to the other side.",
  taperDirt: ({ mm }, _v, sheet) =>
    `The taper was not wiped: the tool hung ${say(Math.abs(mm), sheet)} low while it was measured.`,
  notSeated: () => "The part was touched before it was tapped down; it came down afterwards.",
  setterMoved: ({ mm }, _v, sheet) =>
    `The setter does not stand where its card says: every length from it is off by ${say(Math.abs(mm), sheet)}. Touching it with the bare nose would have shown it.`,
  presetterOff: ({ mm }, _v, sheet) =>
    `The presetter reads ${say(Math.abs(mm), sheet)} ${mm > 0 ? "long" : "short"}: a known tool measured again would have shown it.`,
  probeLengthWrong: ({ mm }, _v, sheet) =>
    `The probe is not as long as its card says: by ${say(Math.abs(mm), sheet)}. It comes out whole where setter and work Z do not hang on the same probe.`,
  chipOnTip: ({ mm }, _v, sheet) =>
    `Something hung on the tip in the beam and was measured with it: ${say(Math.abs(mm), sheet)}.`,
  spindleGrowth: ({ mm }, _v, sheet) =>
    `Measured still, used at speed: the spindle draws the tool up by ${say(Math.abs(mm), sheet)}.`,
  lengthNotCalled: () => "Length compensation was not on.",
  neighborRow: () => "That is another tool’s length.",
  schoolsMixed: () => "A length from the gauge line stands beside a work Z from a touched tool, or the reverse.",
  radiusOnOneSide: () => "The radius stands in one of the two contacts. Between two contacts it cancels.",
  dialTurnShort: () => "The small hand of the dial stood one turn away from zero.",
  nominalForMeasured: () => "That is what is written on the cutter; measured it is another size.",
  radiusInDiameter: () => "This control keeps diameters; that is a radius.",
  diameterInRadius: () => "This control keeps radii; that is a diameter.",
  wholeSignTurned: () => "The number is right but for its sign.",
  decimalShifted: () => "The digits are right, the decimal point is one place off.",
  digitsSwapped: () => "Two neighboring digits changed places when it was typed.",
  toolNotActive: ({ mm }, _v, sheet) =>
    `Work Z was taken while no tool’s offset was called, so it holds that tool’s Z of ${say(mm, sheet)} as well.`,
  shiftMissing: () => "The shift was never put into work Z: the rows hold only differences from the master.",
  masterNotCleared: ({ mm }, _v, sheet) =>
    `The master’s row still held ${say(mm, sheet)} from the job before; it has to be zero before anything is taken.`,
  feelerOnce: ({ mm }, _v, sheet) =>
    `Between tip and diameter the feeler lies on BOTH sides of what X counts: twice its thickness, not once. The other ${say(Math.abs(mm), sheet)} is missing, and every diameter comes out by that much ${mm > 0 ? "larger" : "smaller"}.`,
  feelerForgotten: ({ mm }, _v, sheet) =>
    `The feeler is missing altogether: X counts diameters, so it belongs in twice, ${say(Math.abs(mm), sheet)}.`,
  diameterAsRadius: () => "Half of the diameter was entered: X of this machine counts diameters.",
  workXNotZero: ({ mm }, _v, sheet) =>
    `Work X holds ${say(mm, sheet)}; the axis of rotation is the zero, so it must be 0.`,
  gapForgotten: ({ mm }, _v, sheet) =>
    `The tip stood one gap, ${say(Math.abs(mm), sheet)}, off the face, and that was not counted.`,
  gapWrongWay: () =>
    "The gap was counted the wrong way round: the tip stands off the face by it, so the display must read it.",
  otherBladeEdge: ({ mm }, _v, sheet) =>
    `That is the other edge of the blade, ${say(Math.abs(mm), sheet)} away from the one that finishes the part.`,
  notCleanedUp: ({ mm }, _v, sheet) =>
    `The band that was measured still showed the saw somewhere, so the gauge read another diameter than the tool had cut: ${say(Math.abs(mm), sheet)}.`,
  notMeasured: () => "No diameter was measured that this X could come from.",
  faceCutAgain: ({ mm }, _v, sheet) =>
    `The face was cut again after this tool had been touched on it; it has moved by ${say(Math.abs(mm), sheet)}.`,
  touchedRunout: ({ mm }, _v, sheet) =>
    `The tip was touched on a surface that is not as it was measured, by ${say(Math.abs(mm), sheet)} on the diameter: sawn stock runs out, and only the skimmed band counts.`,
  armOff: ({ mm }, _v, sheet) =>
    `The setter arm does not stand where its card says: every tool from it is off by ${say(Math.abs(mm), sheet)}. The sum check at the face would have shown it.`,
  leanedOnPost: ({ mm }, _v, sheet) =>
    `A hand leaned on the post while the feeler was felt: the tip gave way toward the part, and it was read ${say(Math.abs(mm), sheet)} early.`,
  bandCutAgain: ({ mm }, _v, sheet) =>
    `The band was cut again after it had been touched; it is another diameter now, by ${say(Math.abs(mm), sheet)}.`,
  clampShifted: ({ mm }, _v, sheet) =>
    `One screw of the clamp was turned right down before the other: the tool shifted by ${say(Math.abs(mm), sheet)} after it had been put against the bar.`,
  registerBuiltIn: ({ mm }, _v, sheet) =>
    `The tool was put against the bar while its register still held ${say(mm, sheet)} that was not called: that is built into the tool's place now.`,
  coneNoseLeftOut: ({ mm }, _v, sheet) =>
    `The nose touches the cone with its round, not with the imaginary tip: ${say(Math.abs(mm), sheet)} of Z for its radius were left out.`,
  declaredElsewhere: ({ mm }, _v, sheet) =>
    `The position was declared again ${say(Math.abs(mm), sheet)} away from where it had been, or with another tool: it holds only from the start point and with the tool of the sheet.`,
  declarationLost: () => "What was declared was lost when the machine was switched off, and was not declared again.",
  halfPinForgotten: ({ mm }, _v, sheet) =>
    `The stack ends under the pin; the axis lies half a pin higher, ${say(Math.abs(mm), sheet)}.`,
  wholePinAdded: ({ mm }, _v, sheet) =>
    `The whole pin was added to the stack; the axis lies in its middle, ${say(Math.abs(mm), sheet)} lower.`,
  tailstockTaken: ({ mm }, _v, sheet) =>
    `The stack went under a pin in the tailstock, which stands ${say(Math.abs(mm), sheet)} low by its wear. The headstock is the reference.`,
  gaugeNotZeroed: () => "The setting gauge was not zeroed on the slide before it was brought to the pin.",
  gaugeFromAbove: () =>
    "The setting gauge was brought down onto the crest, so its backlash is in the reading: lower it past the crest, then raise it to the mark.",
  cornerNotZero: ({ mm }, _v, sheet) =>
    `The corner was made to read ${say(-mm, sheet)} and not zero, as the sheet has it. The library does not mind, because it holds differences; whoever counts from the corner does.`,
  plateMetEarly: ({ mm }, _v, sheet) =>
    `Z was taken where an edge that leans under a square met the face before the nose did: ${say(Math.abs(mm), sheet)} early, so the nose stands off.`,
  librarySign: ({ mm }, _v, sheet) =>
    `The library is ADDED to what the readout shows, so it takes the reading with its sign turned. With the sign as it was read the corner reads ${say(mm, sheet)} when the row is recalled: twice the difference.`,
  feelerOnSome: ({ mm }, _v, sheet) =>
    `The feeler was between this tool and the part and not between the reference and the part, or the other way round: ${say(Math.abs(mm), sheet)}. With every tool, or with none.`,
  changedSinceTouch: ({ mm }, _v, sheet) =>
    `The tool was chipped after it was touched and is ${say(mm, sheet)} shorter now: after a strike nothing is trusted until it is measured again.`,
};
