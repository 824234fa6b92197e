import type { CauseId, MistakeId, Term } from "../diagnosis";
import { oneDigitApart } from "../diagnosis/figures";
import { edgeOf, type Setup } from "../exercises";
import type { RegisterRuling } from "../grading";
import type { InstrumentName } from "../instruments";
import { formatMm, scales, showLength, toCounts } from "../units";
import { mistakeWords } from "./mistakes";
import { axisNames, instrumentWords, registerWords, targetWords } from "./names";

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

/** What lay between tip and face, as it counts. */
function gapWords({ figure, mm }: Term, sheet: Setup): string {
  const belongs = Math.abs(figure?.belongsMm ?? mm);
  return `Between the tip and the face lay ${say(belongs, sheet)}.`;
}

/** The skin over the datum, as it counts. */
const skinWords = ({ figure, mm }: Term, sheet: Setup): string =>
  `The touched skin stands ${say(Math.abs(figure?.belongsMm ?? mm), sheet)} over the datum.`;

const nameOf = (value: RegisterRuling): string => targetWords(value.target);
const digits = ({ saidMm, belongsMm }: NonNullable<Term["figure"]>, sheet: Setup): string => {
  const [said, belongs] = [saidMm, belongsMm].map((mm) => toCounts(mm, scales[sheet.unit])) as [number, number];
  return oneDigitApart(said, belongs, 1) ? " The two differ in one digit." : "";
};

/** A figure that is none of the known ones: what was stated, and what belonged. */
function figureWords({ figure, register, mm }: Term, value: RegisterRuling, sheet: Setup): string {
  if (register) return `${registerWords(register)} holds ${say(figure?.saidMm ?? mm, sheet)}; nothing belongs there.`;
  if (!figure) return `The figure was ${say(Math.abs(mm), sheet)} off the one that belongs.`;
  const { saidMm, belongsMm } = figure;
  if (value.target.kind === "turn") return `${formatMm(saidMm)}° was called; ${formatMm(belongsMm)}° was read.`;
  if (value.target.kind === "height")
    return `It was moved by ${show(saidMm, sheet)}; ${show(belongsMm, sheet)} was wanted.`;
  return `You told the machine ${show(saidMm, sheet)} where ${show(belongsMm, sheet)} belonged.${digits(figure, sheet)}`;
}

const keysWords = ({ figure }: Term, what: string, sheet: Setup): string =>
  figure
    ? `${show(figure.saidMm, sheet)} went in where ${show(figure.belongsMm, sheet)} belonged: ${what}`
    : `The figure is right but for one thing: ${what}`;

type Explain = (term: Term, value: RegisterRuling, sheet: Setup) => string;

/** What each cause means, in the student's numbers. */
const EXPLAIN: Partial<Record<CauseId, Explain>> = {
  radiusForgotten: (_t, value, sheet) => `${explainRadius(value, sheet)} That radius is missing from your value.`,
  radiusSignTurned: (_t, value, sheet) =>
    `${explainRadius(value, sheet)} Yours went the other way, away from the part.`,
  diameterForRadius: (_t, value, sheet) => `${explainRadius(value, sheet)} Yours took the whole tip diameter.`,
  edgeWorkForgotten: (_t, value, sheet) => `${explainEdgeWork(value, sheet)} That term is missing from your value.`,
  edgeWorkSignTurned: (_t, value, sheet) => `${explainEdgeWork(value, sheet)} Yours counted it to the wrong side.`,
  otherEdge: (_t, value) =>
    `The other ${axisNames[value.target.axis ?? "x"]} face was touched, a whole part away from the one that the drawing asks for.`,
  paperForgotten: (term, _v, sheet) => `${gapWords(term, sheet)} The paper is missing from your sum.`,
  paperWrongWay: (term, _v, sheet) => `${gapWords(term, sheet)} Your sum has the paper with the opposite sign.`,
  facingForgotten: (term, _v, sheet) => `${skinWords(term, sheet)} That is missing from your sum.`,
  facingWrongWay: (term, _v, sheet) => `${skinWords(term, sheet)} Your sum has it with the opposite sign.`,
  leftoverWorkZ: ({ mm, register, isAfter }, _v, sheet) => {
    const name = registerWords(register ?? "G54.z");
    const held = say(isAfter ? -mm : mm, sheet);
    return isAfter
      ? `${name} still held ${held} from the job before while the value was taken, so that is counted into it; it was cleared only afterwards.`
      : `${name} still held ${held} from the job before. It adds to what you set.`;
  },
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
  otherRegister: ({ register }, value) =>
    register
      ? `The value was put into ${registerWords(register)}; ${nameOf(value)} itself was not set.`
      : `The value stands in another register; ${nameOf(value)} itself was not set.`,
  neverSet: (_t, value) => `Nothing that was found was ever put into ${nameOf(value)}.`,
  noContact: (_t, value) => `No contact and no reading in the log stands behind ${nameOf(value)}.`,
  liftMissing: () =>
    "The tool was touched on the plane, but the datum’s height over that plane was never found with it.",
  blockForgotten: (term, _v, sheet) => `${gapWords(term, sheet)} The gauge that stood there is missing from your sum.`,
  blockWrongWay: (term, _v, sheet) => `${gapWords(term, sheet)} The gauge was counted with the opposite sign.`,
  oneSideOnly: () => "One face was touched; a middle wants both, touched in the same way.",
  notOverMiddle: ({ mm }, _v, sheet) =>
    `The value was taken ${say(Math.abs(mm), sheet)} away from the middle that your contacts give, and that distance was not counted.`,
  partMoved: () => "The part was moved after it was touched: what was found before no longer holds.",
  tasterNotTrued: ({ mm }, _v, sheet) =>
    `The ball of the taster ran out of true by ${say(Math.abs(mm), sheet)} toward that face; it was never set true.`,
  faceAskew: ({ mm }, _v, sheet) =>
    `The face that was touched ran askew, so that the corner stands ${say(Math.abs(mm), sheet)} elsewhere than the place of the touch tells. First the part is made to lie true, then it is touched.`,
  jawAskew: ({ mm }, _v, sheet) =>
    `The fixed jaw stands askew, and the part with it: at its far end that is ${say(Math.abs(mm), sheet)}. Sweep it, tap the vise, and sweep again until both ends read alike.`,
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
  neighborRow: ({ tool }) => (tool === undefined ? "That is another tool’s value." : `That is the value of T${tool}.`),
  schoolsMixed: () =>
    "A figure of another school stands in the sum: touches on the part, on a plane and lengths from the gauge line do not mix.",
  radiusOnOneSide: () => "The radius stands in one of the two contacts. Between two contacts it cancels.",
  dialTurnShort: () => "The small hand of the dial stood one turn away from zero.",
  nominalForMeasured: () => "That is what is written on the cutter; measured it is another size.",
  radiusInDiameter: () => "This control keeps diameters; that is a radius.",
  diameterInRadius: () => "This control keeps radii; that is a diameter.",
  wholeSignTurned: (term, _v, sheet) => keysWords(term, "its sign is turned.", sheet),
  decimalShifted: (term, _v, sheet) => keysWords(term, "the decimal point is one place off.", sheet),
  digitsSwapped: (term, _v, sheet) => keysWords(term, "two neighboring digits changed places.", sheet),
  toolNotActive: ({ mm }, _v, sheet) =>
    `Work Z was taken while the tool’s offset was not called, so it holds that tool’s Z of ${say(mm, sheet)} as well.`,
  shiftMissing: () => "The shift was never put into work Z: the rows hold only differences from the master.",
  masterNotCleared: ({ mm }, _v, sheet) =>
    `The row that belongs at zero still held ${say(Math.abs(mm), sheet)} from the job before; it has to be zero before anything is taken.`,
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
  edgePressed: ({ mm }, _v, sheet) =>
    `Z was taken with the tool pushing the straight edge off the face, ${say(Math.abs(mm), sheet)} past where its light went out.`,
  flankMet: ({ mm }, _v, sheet) =>
    `The point stood too far out for its side to stand over the face: its flank met the rim, ${say(Math.abs(mm), sheet)} late. Deeper in X, and touch again.`,
  pointForSide: ({ mm }, _v, sheet) =>
    `Z of a threading tool is where its side meets the face; the ${say(Math.abs(mm), sheet)} by which the point trails were counted into it.`,
  armOff: ({ mm }, _v, sheet) =>
    `The setter arm does not stand where its card says: every tool from it is off by ${say(Math.abs(mm), sheet)}. The sum check at the face would have shown it.`,
  leanedOnPost: ({ mm }, _v, sheet) =>
    `A hand leaned on the post while the feeler was felt: the tip gave way toward the part, and it was read ${say(Math.abs(mm), sheet)} early.`,
  bandCutAgain: ({ mm }, _v, sheet) =>
    `The band was cut again after it had been touched; it is another diameter now, by ${say(Math.abs(mm), sheet)}.`,
  insertChanged: ({ mm }, _v, sheet) =>
    `The insert was changed after this tool was touched, and another edge sits elsewhere in its pocket: it came out ${say(Math.abs(mm), sheet)} off by that. Touch it again.`,
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
  gaugeSank: ({ mm }, _v, sheet) =>
    `The tool was let down onto the setting gauge: the slack of the screw sank by ${say(Math.abs(mm), sheet)} when it was locked. Lower past, and raise to touch.`,
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
  leftoverCommonZ: ({ mm, register, isAfter }, _v, sheet) => {
    const name = registerWords(register ?? "common.z");
    const held = say(isAfter ? -mm : mm, sheet);
    return isAfter
      ? `${name} still held ${held} while the value was taken, and was cleared only afterwards.`
      : `${name} still holds ${held}. It adds to what you set.`;
  },
  takenBack: (_t, value) => `${nameOf(value)} was set and then taken back: it holds what it held before.`,
  digitMistyped: (term, _v, sheet) => keysWords(term, "one digit is another one, or one too few.", sheet),
  inchForMm: (term, _v, sheet) => keysWords(term, "it is right in the other unit.", sheet),
  gapTwice: (term, _v, sheet) => `${gapWords(term, sheet)} It was counted twice; it lies in between once.`,
  otherGap: ({ figure }, _v, sheet) =>
    `What stood in the gap counts ${say(Math.abs(figure?.belongsMm ?? 0), sheet)}; ${say(Math.abs(figure?.saidMm ?? 0), sheet)} was counted, which is another thing of the drawer.`,
  otherFigure: figureWords,
  otherReading: ({ figure, mm }, _v, sheet) =>
    figure
      ? `The reading in the working is ${show(figure.saidMm, sheet)}; at the contact the machine stood at ${show(figure.belongsMm, sheet)}.`
      : `The reading was taken ${say(Math.abs(mm), sheet)} away from the contact.`,
  otherColumn: () => "That is what the work display showed; the machine’s own position belongs in the sum.",
  wrongSum: ({ figure }, _v, sheet) =>
    figure
      ? `The lines of the working come to ${show(figure.belongsMm, sheet)}; its sum says ${show(figure.saidMm, sheet)}.`
      : "The sum of the working is not what its lines come to.",
  otherTipRadius: ({ figure }, _v, sheet) =>
    `${say(Math.abs(figure?.saidMm ?? 0), sheet)} is the radius of another tip; of this one ${say(Math.abs(figure?.belongsMm ?? 0), sheet)} belongs in.`,
  otherEdgeWork: ({ figure }, _v, sheet) =>
    `${show(-(figure?.saidMm ?? 0), sheet)} is the coordinate of another edge; the touched one lies at ${show(-(figure?.belongsMm ?? 0), sheet)}.`,
  changedAfter: ({ mm, register }, _v, sheet) =>
    `${register ? registerWords(register) : "Another register of the sum"} was changed by ${say(mm, sheet)} after the value had been taken.`,
  carriedOver: ({ mm, tool }, value, sheet) =>
    tool === value.target.tool
      ? `X of this tool is off, and the cone carries ${say(Math.abs(mm), sheet)} of that into its Z.`
      : `It hangs on ${tool === undefined ? "another tool" : `T${tool}`}, which is itself off: ${say(Math.abs(mm), sheet)} of that is carried over.`,
  gaugeDirt: ({ mm }, _v, sheet) =>
    `The block was not wiped: ${say(Math.abs(mm), sheet)} of dirt stood in the gap with it.`,
  gaugeHit: ({ mm }, _v, sheet) =>
    `The gauge had been hit and stood ${say(Math.abs(mm), sheet)} off its place; it does not tell.`,
  measuredOnCenter: ({ mm }, _v, sheet) =>
    `The face mill was measured on center: its recessed middle met the plunger, and it came out ${say(Math.abs(mm), sheet)} short. It wants an offset of nearly its radius.`,
  measuredStill: ({ mm }, _v, sheet) =>
    `It was measured standing still, beside its highest tooth: ${say(Math.abs(mm), sheet)} short.`,
  measuredBesideTip: ({ mm }, _v, sheet) =>
    `The setter met the tool beside its tip: ${say(Math.abs(mm), sheet)} ${mm < 0 ? "short" : "long"}.`,
  oneSideMeasured: ({ mm }, _v, sheet) =>
    `Measured from one side the setter’s own center is in the diameter, ${say(Math.abs(mm), sheet)}; from both sides it cancels.`,
  coarseInstrument: ({ mm }, _v, sheet) =>
    `The caliper read ${say(Math.abs(mm), sheet)} off: it is not fit for this tolerance.`,
  otherPlane: () => "The plane of the other axis on the arm’s card was taken off.",
  sensorConstant: ({ figure }) =>
    figure?.saidMm === 0
      ? "The plane on the arm’s card was left out: the reading is not the register yet."
      : "The plane on the arm’s card was counted the wrong way.",
  stylusOff: ({ mm }, _v, sheet) =>
    `The ball answered ${say(Math.abs(mm), sheet)} off the face: bent, or met at another height than its middle.`,
  kickScattered: ({ mm }, _v, sheet) =>
    `Above its rated speed the finder’s kick scatters: it came ${say(Math.abs(mm), sheet)} off.`,
  contactOff: ({ mm }, _v, sheet) =>
    `The contact itself lies ${say(Math.abs(mm), sheet)} off; the log does not say why.`,
  dialNotAtZero: ({ mm }, _v, sheet) =>
    `The dial stood ${say(Math.abs(mm), sheet)} away from zero when the value was taken.`,
  heightWrongWay: () =>
    "A pip that stands wants the tool raised by half of it, one that was rubbed wants it lowered: it was moved the other way.",
  wholePip: () => "It was moved by the whole pip; the tip is off center by half of it.",
  rounding: () => "",
  oldWear: ({ mm, register }, _v, sheet) =>
    `${register ? registerWords(register) : "The wear"} still holds ${say(mm, sheet)} from the job before.`,
  axesSwapped: () => "That is the value of the other axis.",
  wearSignTurned: () => "The difference from the nominal size went in with its sign turned.",
};

/** What a cause means, in the student's numbers; a mistake that has no sentence of its own says what to look at. */
export function explain(term: Term, value: RegisterRuling, sheet: Setup): string {
  const own = EXPLAIN[term.id];
  if (own) return own(term, value, sheet);
  return Object.hasOwn(mistakeWords, term.id) ? mistakeWords[term.id as MistakeId].check : "";
}
