import type { CauseId } from "../diagnosis/cause";
import { edgeOf, leftoverOf, paperOf, type Fault, type FaultKind } from "../exercises";
import type { Finding, MethodStep } from "../grading/findings";
import type { RegisterRuling, Ruling } from "../grading/ruling";
import type { WorkingFault, WorkingFinding } from "../grading/working";
import { formatMm, formatUm, scales, showLength, showSignedCounts, type LengthUnit } from "../units";
import { noseAngleOf } from "../desk/insert";
import { tipCodes, tipDirection } from "../registers";
import { axisNames, incidentWords, instrumentWords, registerWords, targetWords, termWords } from "./names";
import type { InstrumentName } from "../instruments";

/** Short names, as they stand at a mark on the axis. */
const CAUSES: Record<CauseId, string> = {
  radiusForgotten: "radius left out",
  radiusSignTurned: "radius turned round",
  diameterForRadius: "diameter for radius",
  edgeWorkForgotten: "edge’s coordinate left out",
  edgeWorkSignTurned: "edge’s coordinate turned round",
  otherEdge: "the other edge",
  paperForgotten: "paper left out",
  paperWrongWay: "paper counted the wrong way",
  facingForgotten: "facing left out",
  facingWrongWay: "facing counted the wrong way",
  leftoverWorkZ: "old work Z left in",
  capturedAfterLeaving: "taken after leaving the contact",
  burr: "burr not dressed",
  edgeBreak: "touched on the edge break",
  bentFinder: "tip bent",
  coarseClick: "last click too coarse",
  slowSpindle: "spindle too slow",
  paperPinched: "paper pinched too hard",
  otherRegister: "entered in another register",
  neverSet: "never set",
  noContact: "no contact found",
  liftMissing: "lift missing",
  changedSinceTouch: "tool changed after it was touched",
  dialTurnShort: "dial one turn short",
  radiusOnOneSide: "radius added on one side only",
  blockForgotten: "block left out",
  blockWrongWay: "block counted the wrong way",
  partHeightMiscounted: "part height miscounted",
  leftoverCommonZ: "common Z left in",
  oldWear: "old wear left in",
  neighborRow: "neighbor’s row",
  lengthNotCalled: "length compensation not called",
  spindleGrowth: "spindle growth",
  radiusInDiameter: "radius in a diameter register",
  diameterInRadius: "diameter in a radius register",
  nominalForMeasured: "nominal for measured",
  diameterEmpty: "diameter left empty",
  wearSignTurned: "wear with its sign turned",
  feelerOnce: "feeler counted once",
  feelerForgotten: "feeler left out",
  diameterAsRadius: "diameter entered as radius",
  workXNotZero: "work X not zero",
  noseCenterX: "nose center set as the tip",
  gapForgotten: "gap left out",
  gapWrongWay: "gap counted the wrong way",
  faceForgotten: "face’s own Z left out",
  otherBladeEdge: "other edge of the blade",
  toolNotActive: "tool not active",
  shiftMissing: "shift missing",
  masterNotCleared: "master’s row not cleared",
  noseCenterZ: "nose center set as the tip",
  librarySign: "sign of the library",
  feelerOnSome: "feeler on some tools only",
  axesSwapped: "X and Y swapped",
  schoolsMixed: "two schools mixed",
  probeLengthWrong: "wrong probe length",
  wearTwice: "wear entered twice",
  sensorConstant: "sensor constant left out",
  plateMetEarly: "plate met by edge or holder",
  oneSideOnly: "one face only, no middle",
  notOverMiddle: "taken away from the middle",
  partMoved: "part moved after it was touched",
  tasterNotTrued: "taster not trued",
  turnForgotten: "turn not called",
  turnSignTurned: "turn called the wrong way",
  taperDirt: "dirt in the taper",
  notSeated: "part not tapped down",
  setterMoved: "setter moved, card out of date",
  presetterOff: "presetter out of date",
  chipOnTip: "chip on the tip",
  notCleanedUp: "band that had not cleaned up",
  notMeasured: "diameter never measured",
  faceCutAgain: "face cut again after it was touched",
  touchedRunout: "touched where it runs out",
  armOff: "setter arm out of date",
  leanedOnPost: "leaned on the post",
  bandCutAgain: "band cut again after it was touched",
  clampShifted: "clamp tightened unevenly",
  registerBuiltIn: "old register built in",
  coneNoseLeftOut: "nose left out of the cone touch",
  declaredElsewhere: "declared from another place or tool",
  declarationLost: "declared position lost",
  halfPinForgotten: "half the pin left out",
  wholePinAdded: "the whole pin added",
  tailstockTaken: "measured at the tailstock",
  gaugeNotZeroed: "gauge not zeroed on the slide",
  gaugeFromAbove: "gauge brought down onto the crest",
  cornerNotZero: "corner made to read something else than zero",
  wholeSignTurned: "sign of the whole value",
  inchForMm: "inch and mm mixed",
  decimalShifted: "decimal point shifted",
  digitsSwapped: "two digits swapped",
};

export const signatureWords = (id: CauseId): string => CAUSES[id];

const isPlace = (value: RegisterRuling): value is RegisterRuling & { target: "x" | "y" } =>
  value.target === "x" || value.target === "y";
const show = (mm: number, sheet: Ruling["sheet"]): string => showLength(mm, scales[sheet.unit]);
const contactMm = (value: RegisterRuling, sheet: Ruling["sheet"]): number =>
  value.contact ? (value.contact.counts / scales[sheet.unit].countsPerUnit) * (sheet.unit === "mm" ? 1 : 25.4) : 0;

function direction(value: RegisterRuling, { lathe }: Ruling["sheet"]): string {
  const isUp = value.closureMm > 0;
  if (value.target === "axisHeight" || value.target === "gaugeError") return isUp ? "too high" : "too low";
  if (lathe?.control === "readout") {
    if (value.target.slice(1) === String(lathe.targets.x[0])) return isUp ? "high" : "low";
    return isUp ? "high: recalled, the corner reads too much" : "low: recalled, the corner reads too little";
  }
  if (value.target.startsWith("C")) return isUp ? "high" : "low";
  if (value.target === "rotation") return isUp ? "too far counter-clockwise" : "too far clockwise";
  if (value.target.startsWith("d")) return isUp ? "too large" : "too small";
  if (isPlace(value)) return isUp ? "high" : "low";
  return isUp ? "high: the tip stands off" : "low: the tip cuts deep";
}

interface Words {
  readonly name: string;
  readonly headline: string;
  readonly body: string;
  readonly proof: string;
}

function explainRadius(value: RegisterRuling, sheet: Ruling["sheet"]): string {
  if (!isPlace(value) || !value.contact || !value.method) return "";
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

function explainEdgeWork(value: RegisterRuling, sheet: Ruling["sheet"]): string {
  const edge = isPlace(value) ? edgeOf(sheet, value.target) : null;
  if (!edge || !isPlace(value)) return "";
  return `That edge is ${axisNames[value.target]} ${show(edge.edgeWorkMm, sheet)}, not zero: the datum lies ${show(Math.abs(edge.edgeWorkMm), sheet)} inside of it.`;
}

const zSum = (value: RegisterRuling, sheet: Ruling["sheet"]): string =>
  value.contact
    ? `The touch was felt at Z ${show(contactMm(value, sheet), sheet)}. Down to the datum: less the paper ${show(paperOf(sheet), sheet)}` +
      (sheet.facingAllowanceMm ? `, less the facing allowance ${show(sheet.facingAllowanceMm, sheet)}` : "") +
      ` = ${show(contactMm(value, sheet) - paperOf(sheet) - sheet.facingAllowanceMm, sheet)}.`
    : "";

type Explain = (term: { mm: number }, value: RegisterRuling, sheet: Ruling["sheet"]) => string;

/** What each cause means, in the student's numbers. */
const EXPLAIN: Partial<Record<CauseId, Explain>> = {
  radiusForgotten: (_t, value, sheet) => `${explainRadius(value, sheet)} That radius is missing from your value.`,
  radiusSignTurned: (_t, value, sheet) =>
    `${explainRadius(value, sheet)} Yours went the other way, away from the part.`,
  diameterForRadius: (_t, value, sheet) => `${explainRadius(value, sheet)} Yours took the whole tip diameter.`,
  edgeWorkForgotten: (_t, value, sheet) => `${explainEdgeWork(value, sheet)} That term is missing from your value.`,
  edgeWorkSignTurned: (_t, value, sheet) => `${explainEdgeWork(value, sheet)} Yours counted it to the wrong side.`,
  otherEdge: (_t, value) =>
    `The other ${isPlace(value) ? axisNames[value.target] : ""} face was touched, a whole part away from the one that the drawing asks for.`,
  paperForgotten: (_t, value, sheet) => `${zSum(value, sheet)} The paper is missing from your sum.`,
  paperWrongWay: (_t, value, sheet) => `${zSum(value, sheet)} Your sum has the paper with the opposite sign.`,
  facingForgotten: (_t, value, sheet) => `${zSum(value, sheet)} The facing allowance is missing from your sum.`,
  facingWrongWay: (_t, value, sheet) =>
    `${zSum(value, sheet)} Your sum has the facing allowance with the opposite sign.`,
  leftoverWorkZ: (_t, _v, sheet) =>
    `G54 Z still held ${show(leftoverOf(sheet, "G54.z"), sheet)} from the job before. It adds to the length that you took on the part.`,
  capturedAfterLeaving: ({ mm }) =>
    `The machine had moved ${formatMm(mm)} since the contact when the value was taken, and the move was not counted.`,
  burr: ({ mm }) => `The burr was still on that edge: the tip met it ${formatMm(Math.abs(mm))} before the face.`,
  edgeBreak: ({ mm }) =>
    `The tip reached no further down than the broken edge, and met it ${formatMm(Math.abs(mm))} late.`,
  bentFinder: ({ mm }) =>
    `The tip had been pushed too far before and was bent: it meets every face ${formatMm(Math.abs(mm))} early, and does not say so.`,
  coarseClick: ({ mm }) => `The contact was found with a coarse click, ${formatMm(Math.abs(mm))} late.`,
  slowSpindle: () => "Below 400 rev/min the tip kicks late.",
  paperPinched: ({ mm }) =>
    `The paper was pinched, not dragging: the tip stood ${formatMm(Math.abs(mm))} lower than one paper.`,
  otherRegister: (_t, value) =>
    `The value stands in another work offset; ${targetWords(value.target)} itself was not changed.`,
  neverSet: (_t, value) => `${targetWords(value.target)} was never set: it still holds what it held at the start.`,
  noContact: () => "No contact was found before the value was set.",
  liftMissing: () =>
    "The tool was touched on the plane, but the datum’s height over that plane was never found with it.",
  blockForgotten: () => "The gauge that stood in the gap is missing from your sum.",
  blockWrongWay: () => "The gauge that stood in the gap was counted with the opposite sign.",
  oneSideOnly: () => "One face was touched; a middle wants both, touched in the same way.",
  notOverMiddle: ({ mm }) =>
    `The value was taken ${formatMm(Math.abs(mm))} mm away from the middle that your contacts give, and that distance was not counted.`,
  partMoved: () => "The part was moved after it was touched: what was found before no longer holds.",
  tasterNotTrued: ({ mm }) =>
    `The ball of the taster ran out of true by ${formatMm(Math.abs(mm))} toward that face; it was never set true.`,
  turnForgotten: () => "The part lies turned and nothing was called for it.",
  turnSignTurned: () => "The turn was called to the other side.",
  taperDirt: ({ mm }) =>
    `The taper was not wiped: the tool hung ${formatMm(Math.abs(mm))} mm low while it was measured.`,
  notSeated: () => "The part was touched before it was tapped down; it came down afterwards.",
  setterMoved: ({ mm }) =>
    `The setter does not stand where its card says: every length from it is off by ${formatMm(Math.abs(mm))} mm. Touching it with the bare nose would have shown it.`,
  presetterOff: ({ mm }) =>
    `The presetter reads ${formatMm(Math.abs(mm))} mm ${mm > 0 ? "long" : "short"}: a known tool measured again would have shown it.`,
  probeLengthWrong: ({ mm }) =>
    `The probe is not as long as its card says: by ${formatMm(Math.abs(mm))} mm. It comes out whole where setter and work Z do not hang on the same probe.`,
  chipOnTip: ({ mm }) =>
    `Something hung on the tip in the beam and was measured with it: ${formatMm(Math.abs(mm))} mm.`,
  spindleGrowth: ({ mm }) =>
    `Measured still, used at speed: the spindle draws the tool up by ${formatMm(Math.abs(mm))} mm.`,
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
  toolNotActive: ({ mm }) =>
    `Work Z was taken while no tool’s offset was called, so it holds that tool’s Z of ${formatMm(mm)} as well.`,
  shiftMissing: () => "The shift was never put into work Z: the rows hold only differences from the master.",
  masterNotCleared: ({ mm }) =>
    `The master’s row still held ${formatMm(mm)} from the job before; it has to be zero before anything is taken.`,
  feelerOnce: ({ mm }) =>
    `Between tip and diameter the feeler lies on BOTH sides of what X counts: twice its thickness, not once. The other ${formatMm(Math.abs(mm))} mm is missing, and every diameter comes out by that much ${mm > 0 ? "larger" : "smaller"}.`,
  feelerForgotten: ({ mm }) =>
    `The feeler is missing altogether: X counts diameters, so it belongs in twice, ${formatMm(Math.abs(mm))} mm.`,
  diameterAsRadius: () => "Half of the diameter was entered: X of this machine counts diameters.",
  workXNotZero: ({ mm }) => `Work X holds ${formatMm(mm)}; the axis of rotation is the zero, so it must be 0.`,
  gapForgotten: ({ mm }) =>
    `The tip stood one gap, ${formatMm(Math.abs(mm))} mm, off the face, and that was not counted.`,
  gapWrongWay: () =>
    "The gap was counted the wrong way round: the tip stands off the face by it, so the display must read it.",
  otherBladeEdge: ({ mm }) =>
    `That is the other edge of the blade, ${formatMm(Math.abs(mm))} mm away from the one that finishes the part.`,
  notCleanedUp: ({ mm }) =>
    `The band that was measured still showed the saw somewhere, so the gauge read another diameter than the tool had cut: ${formatMm(Math.abs(mm))} mm.`,
  notMeasured: () => "No diameter was measured that this X could come from.",
  faceCutAgain: ({ mm }) =>
    `The face was cut again after this tool had been touched on it; it has moved by ${formatMm(Math.abs(mm))} mm.`,
  touchedRunout: ({ mm }) =>
    `The tip was touched on a surface that is not as it was measured, by ${formatMm(Math.abs(mm))} mm on the diameter: sawn stock runs out, and only the skimmed band counts.`,
  armOff: ({ mm }) =>
    `The setter arm does not stand where its card says: every tool from it is off by ${formatMm(Math.abs(mm))} mm. The sum check at the face would have shown it.`,
  leanedOnPost: ({ mm }) =>
    `A hand leaned on the post while the feeler was felt: the tip gave way toward the part, and it was read ${formatMm(Math.abs(mm))} mm early.`,
  bandCutAgain: ({ mm }) =>
    `The band was cut again after it had been touched; it is another diameter now, by ${formatMm(Math.abs(mm))} mm.`,
  clampShifted: ({ mm }) =>
    `One screw of the clamp was turned right down before the other: the tool shifted by ${formatMm(Math.abs(mm))} mm after it had been put against the bar.`,
  registerBuiltIn: ({ mm }) =>
    `The tool was put against the bar while its register still held ${formatMm(mm)} that was not called: that is built into the tool's place now.`,
  coneNoseLeftOut: ({ mm }) =>
    `The nose touches the cone with its round, not with the imaginary tip: ${formatMm(Math.abs(mm))} mm of Z for its radius were left out.`,
  declaredElsewhere: ({ mm }) =>
    `The position was declared again ${formatMm(Math.abs(mm))} mm away from where it had been, or with another tool: it holds only from the start point and with the tool of the sheet.`,
  declarationLost: () => "What was declared was lost when the machine was switched off, and was not declared again.",
  halfPinForgotten: ({ mm }) =>
    `The stack ends under the pin; the axis lies half a pin higher, ${formatMm(Math.abs(mm))} mm.`,
  wholePinAdded: ({ mm }) =>
    `The whole pin was added to the stack; the axis lies in its middle, ${formatMm(Math.abs(mm))} mm lower.`,
  tailstockTaken: ({ mm }) =>
    `The stack went under a pin in the tailstock, which stands ${formatMm(Math.abs(mm))} mm low by its wear. The headstock is the reference.`,
  gaugeNotZeroed: () => "The setting gauge was not zeroed on the slide before it was brought to the pin.",
  gaugeFromAbove: () =>
    "The setting gauge was brought down onto the crest, so its backlash is in the reading: lower it past the crest, then raise it to the mark.",
  cornerNotZero: ({ mm }) =>
    `The corner was made to read ${formatMm(-mm)} and not zero, as the sheet has it. The library does not mind, because it holds differences; whoever counts from the corner does.`,
  plateMetEarly: ({ mm }) =>
    `Z was taken where an edge that leans under a square met the face before the nose did: ${formatMm(Math.abs(mm))} mm early, so the nose stands off.`,
  librarySign: ({ mm }) =>
    `The library is ADDED to what the readout shows, so it takes the reading with its sign turned. With the sign as it was read the corner reads ${formatMm(mm)} mm when the row is recalled: twice the difference.`,
  feelerOnSome: ({ mm }) =>
    `The feeler was between this tool and the part and not between the reference and the part, or the other way round: ${formatMm(Math.abs(mm))} mm. With every tool, or with none.`,
  changedSinceTouch: ({ mm }) =>
    `The tool was chipped after it was touched and is ${formatMm(mm)} shorter now: after a strike nothing is trusted until it is measured again.`,
};

const SINGLE_HEADLINE: Partial<Record<CauseId, string>> = {
  radiusForgotten: "one tip radius, left out",
  radiusSignTurned: "the tip radius, turned round",
  diameterForRadius: "the whole tip diameter, where its radius belongs",
  paperForgotten: "one paper, left out",
  paperWrongWay: "the paper, counted the wrong way",
  burr: "the burr was still on",
};
const headlineOf = (id: CauseId): string => SINGLE_HEADLINE[id] ?? CAUSES[id];

const percent = (probability: number): string =>
  probability > 0.995 ? "more than 99 in 100" : `about ${Math.max(1, Math.round(probability * 100))} in 100`;

const valueOf = (value: RegisterRuling, figure: number, sheet: Ruling["sheet"]): string =>
  value.target === "rotation" ? `${formatMm(figure)}°` : show(figure, sheet);

/** How far a tip still stands off the axis, and what that does. */
function heightWords(value: RegisterRuling, sheet: Ruling["sheet"]): Words {
  const name = targetWords(value.target);
  const off = `${show(Math.abs(value.closureMm), sheet)} ${sheet.unit === "mm" ? "mm" : "in"}`;
  if (Math.abs(value.closureMm) <= value.toleranceMm)
    return {
      name,
      headline: `${name} is right, within ${formatUm(Math.abs(value.closureMm)).replace("+", "")} µm.`,
      body: "",
      proof: "",
    };
  return {
    name,
    headline: `${name}: the tip stands ${off} ${value.closureMm > 0 ? "above" : "below"} the axis.`,
    proof: "Seen in the truth of this lane.",
    body: `Facing leaves a pip twice as wide. ${value.closureMm > 0 ? "Above center it is rubbed: the holder goes down" : "Below center it stands: the holder goes up"} by half of the pip. Small diameters come out larger than they are commanded.`,
  };
}

/** What a wrong tip code does to a compensated cut: Rn(s′ − s), on a diameter twice that. */
function codeShift(value: RegisterRuling, sheet: Ruling["sheet"]): string {
  const nose = sheet.lathe?.tools.find(({ number }) => number === Number(value.target.slice(1)))?.noseRadiusMm ?? 0;
  const [held, wanted] = [value.held, value.wanted].map((code) => tipCodes.find((one) => one === Math.round(code)));
  if (held === undefined || wanted === undefined || nose === 0)
    return "A wrong one shifts every compensated cut by a nose radius, twice that on a diameter.";
  const [from, to] = [tipDirection(wanted), tipDirection(held)];
  const signed = (mm: number) => `${mm > 0 ? "+" : ""}${show(mm || 0, sheet)}`;
  return `With a nose of ${show(nose, sheet)} every compensated cut is shifted by X ${signed(2 * nose * (to[0] - from[0]))}, a diameter, and Z ${signed(nose * (to[1] - from[1]))}.`;
}

/** Nose radius and tip code are right or not: nothing is measured. */
function noseWords(value: RegisterRuling, sheet: Ruling["sheet"]): Words {
  const name = targetWords(value.target);
  const isCode = value.target.startsWith("Q");
  const show_ = (figure: number) => (isCode ? String(Math.round(figure)) : show(figure, sheet));
  const insert = sheet.lathe?.tools.find(({ number }) => number === Number(value.target.slice(1)))?.insert ?? "";
  if (Math.abs(value.closureMm) <= value.toleranceMm)
    return { name, headline: `${name} is right: ${show_(value.held)}.`, body: "", proof: "" };
  return {
    name,
    headline: `${name} is ${show_(value.held)}; it should be ${show_(value.wanted)}.`,
    proof: "It acts only while the nose is compensated, and shifts every slope then.",
    body: isCode
      ? `The code says to which side of its nose center the tip is set. ${codeShift(value, sheet)}`
      : `The designation ${insert} says the radius.`,
  };
}

/**
 * What was said or chosen of a value that is right or not: a nose radius off a designation, a digit, whether a tool
 * fits; null for values that are measured.
 */
export function choiceWords(
  { target }: Pick<RegisterRuling, "target">,
  figure: number,
  unit: LengthUnit = "mm",
): string | null {
  if (/^R\d/.test(target)) return showLength(figure, scales[unit]);
  if (/^Q\d/.test(target)) return String(Math.round(figure));
  if (/^F\d/.test(target)) {
    if (figure === 1) return "fits";
    return figure === 0 ? "does not fit" : "nothing said";
  }
  return null;
}

/** Whether a tool fits is right or not. */
function fitWords(value: RegisterRuling, { lathe }: Ruling["sheet"]): Words {
  const tool = lathe?.tools.find(({ number }) => number === Number(value.target.slice(1)));
  const name = `T${value.target.slice(1)}`;
  const { steepestFallDeg = 0, grooveMm = 0 } = lathe?.profile ?? {};
  const nose = tool ? noseAngleOf(tool.insert) : null;
  const clears =
    tool?.leadDeg !== undefined && nose !== null
      ? `180 − ${tool.leadDeg} − ${nose} = ${180 - tool.leadDeg - nose}° clears, less two or three in practice; the profile falls by ${steepestFallDeg}°.`
      : "";
  const reaches =
    tool?.deepestMm === undefined ? "" : `Its blade reaches ${tool.deepestMm} mm, the groove is ${grooveMm} mm deep.`;
  const fits = value.wanted === 1 ? "fits the part" : "does not fit the part";
  if (value.held === value.wanted) return { name, headline: `${name} ${fits}, as you said.`, body: "", proof: "" };
  return {
    name,
    headline: `${name} ${fits}; ${value.held === -1 ? "nothing was said of it" : "you said the opposite"}.`,
    body: `${clears}${reaches}`,
    proof: "It follows from the sheet.",
  };
}

/** The ruling of one value in words: headline, the working in the student's numbers, and how it is known. */
export function causeWords(value: RegisterRuling, sheet: Ruling["sheet"]): Words {
  const name = targetWords(value.target);
  const off = `${show(Math.abs(value.closureMm), sheet)} ${sheet.unit === "mm" ? "mm" : "in"}`;
  const { cause } = value;
  const holds = ` You hold ${valueOf(value, value.held, sheet)}; it should be ${valueOf(value, value.wanted, sheet)}.`;
  if (value.target.startsWith("C")) return heightWords(value, sheet);
  if (/^F\d/.test(value.target)) return fitWords(value, sheet);
  if (/^[RQ]\d/.test(value.target)) return noseWords(value, sheet);
  if (cause.kind === "none" && Math.abs(value.closureMm) <= value.toleranceMm) {
    return {
      name,
      headline: `${name} is right, within ${formatUm(Math.abs(value.closureMm)).replace("+", "")} µm.`,
      proof: "",
      body: `The method itself leads one to expect ${formatUm(value.biasMm)} µm, give or take ${formatUm(2 * value.uMm).replace("+", "")}.`,
    };
  }
  const lead =
    value.target === "rotation"
      ? `${name} is ${direction(value, sheet)}: the far end misses by ${off}`
      : `${name} is ${off} ${direction(value, sheet)}`;
  if (cause.kind === "proven") {
    return {
      name,
      headline: `${lead}. Cause: ${cause.terms.map(({ id }) => headlineOf(id)).join(" and ")}.`,
      body: cause.terms.map((term) => EXPLAIN[term.id]?.(term, value, sheet) ?? "").join(" ") + holds,
      proof: "The log shows this step, so it is the cause and not a guess.",
    };
  }
  if (cause.kind === "inferred") {
    const [first] = cause.ranked;
    const ids = (first?.ids ?? []) as CauseId[];
    const predicted = (id: CauseId) => value.signatures.find((one) => one.id === id)?.predictedMm ?? 0;
    const others = cause.ranked
      .slice(1)
      .filter(({ ids: rest }) => rest.length > 0)
      .map(
        ({ ids: rest, probability }) =>
          `${rest.map((id) => CAUSES[id as CauseId] ?? id).join(" with ")} (${percent(probability)})`,
      );
    return {
      name,
      headline: `${lead}. Most likely: ${ids.map(headlineOf).join(" and ")}.`,
      body: ids.map((id) => EXPLAIN[id]?.({ mm: predicted(id) }, value, sheet) ?? "").join(" ") + holds,
      proof: `Inferred from the number, the log leaves it open: ${percent(first?.probability ?? 0)}.${others.length ? ` Also possible: ${others.join(", ")}.` : ""}`,
    };
  }
  return {
    name,
    headline: `${lead}. No known mistake explains it.`,
    body: `Neither the log nor any single or double mistake leads to this number.${holds}`,
    proof: "Unexplained, so nothing is claimed.",
  };
}

const STEPS: Record<MethodStep, { done: string; missed: string }> = {
  homedFirst: {
    done: "Reference return before anything moved.",
    missed: "The machine was moved before its reference return.",
  },
  burrBeforeTouch: {
    done: "Burr dressed before the first touch.",
    missed: "The edges were touched before the burr was dressed.",
  },
  speedStated: {
    done: "Every spindle start stated its speed.",
    missed: "A spindle start left the speed to memory, or the spindle was never started.",
  },
  seatedFirst: {
    done: "Blank seated and the vise looked after before the first touch.",
    missed: "Something was touched before the blank was seated as the sheet asks.",
  },
  twoKicksX: {
    done: "X: two contacts agreed.",
    missed: "X: there were no two contacts that agree; one reading can deceive.",
  },
  twoKicksY: {
    done: "Y: two contacts agreed.",
    missed: "Y: there were no two contacts that agree; one reading can deceive.",
  },
  finestX: {
    done: "X: the last contact was found at the finest click.",
    missed: "X: the last contact was not found at the finest click.",
  },
  finestY: {
    done: "Y: the last contact was found at the finest click.",
    missed: "Y: the last contact was not found at the finest click.",
  },
  finestPaper: {
    done: "Every tool was touched at the finest click, or measured by a cycle.",
    missed: "Not every tool was touched at the finest click.",
  },
  tasterTrued: {
    done: "Taster trued before its first contact.",
    missed: "The taster was not trued before its first contact.",
  },
  toolWiped: {
    done: "Taper wiped before the first tool.",
    missed: "The taper was not wiped before the first tool went in.",
  },
  tipClean: {
    done: "Tip blown clean before the beam.",
    missed: "No tip was blown clean before it was measured in the beam.",
  },
  checkedBefore: {
    done: "One check made with its expectation said first, and judged as it looked.",
    missed: "No check was made with its expectation said first and judged as it looked.",
  },
  spindleLooked: {
    done: "Looked at what hung in the spindle, and put the pockets right.",
    missed: "The control believed one tool and the spindle held another; the pockets were not put right in time.",
  },
  facedClean: {
    done: "Face cut to the middle before anything was touched on it.",
    missed: "Something was touched on the sawn end, or the face was never cut to the middle.",
  },
  measuredTwice: {
    done: "Skimmed diameter measured twice, the chuck turned in between.",
    missed: "The skimmed diameter was not measured twice, a quarter turn apart; two points repeat after half a turn.",
  },
  bandClean: {
    done: "The band had cleaned up all round before it was measured.",
    missed: "The band that was measured still showed the saw.",
  },
  finestTurret: {
    done: "Every touch found at the finest click.",
    missed: "Not every touch was found at the finest click.",
  },
  armFolded: { done: "Setter arm folded away again.", missed: "The setter arm was left down." },
  recallChecked: {
    done: "Recalled a row at the corner and compared it with what was said first.",
    missed: "No row of the library was recalled at the corner and compared with what was said first.",
  },
  sumChecked: {
    done: "Work Z and the tool’s row added up by hand and compared with where the tool stood at the face.",
    missed: "The sum of work Z and a tool’s row was never compared with where that tool stands at the face.",
  },
  barMeasured: {
    done: "The bar was measured before a tool was set by it.",
    missed: "A tool was set by the bar before the bar had been measured.",
  },
  feedDown: {
    done: "The feed was turned down before each new tool came in the first time.",
    missed: "A new tool came in the first time with the feed not turned down.",
  },
  headstockTaken: {
    done: "Axis height taken at the headstock.",
    missed: "The axis height was taken somewhere else than at the headstock, which is the reference.",
  },
  gaugeZeroedFirst: {
    done: "Setting gauge zeroed on the slide, and raised to the mark from below.",
    missed: "The setting gauge was not zeroed on the slide first, or was brought down onto the crest.",
  },
  declaredAtStart: {
    done: "Declared at the start point and with its tool, every time.",
    missed: "The position was declared somewhere else than at the start point, or with another tool in position.",
  },
  overhangClear: {
    done: "New tools stand out as far as their neighbors, within the clearance of an approach.",
    missed:
      "A new tool stands out so much more or less than its neighbors that one of them strikes the bar when the slide moves across at an approach.",
  },
  coneProven: {
    done: "The cone’s pass was run again after Z was set, and just skimmed.",
    missed: "After Z was set, no pass along the cone was seen to just skim.",
  },
  slowUntilProven: {
    done: "Nothing moved at rapid low over the part.",
    missed: "The machine was sent at rapid low over the part on registers that someone else had set.",
  },
  lookedTwoSides: {
    done: "Stood over zero and looked from two sides.",
    missed: "The zero was not looked at from two sides with the pointed tool.",
  },
};

const WORKING: Record<WorkingFault, (finding: WorkingFinding, show: (counts: number | undefined) => string) => string> =
  {
    noWorking: () => "no working was written.",
    noReading: () => "there is no reading to begin from.",
    wrongReading: ({ heldCounts }, show) => `the reading ${show(heldCounts)} is not where anything was met.`,
    missingTerm: ({ term, wantedCounts }, show) =>
      `the ${termWords[term ?? "other"]} is missing: ${show(wantedCounts)} belongs in the sum.`,
    wrongSign: ({ term, heldCounts, wantedCounts }, show) =>
      `the ${termWords[term ?? "other"]} has its sign turned: ${show(heldCounts)} instead of ${show(wantedCounts)}.`,
    wrongTerm: ({ term, heldCounts, wantedCounts }, show) =>
      `the ${termWords[term ?? "other"]} is ${show(heldCounts)}; it should be ${show(wantedCounts)}.`,
    noSum: () => "the sum is missing.",
    wrongSum: ({ heldCounts, wantedCounts }, show) =>
      `the lines add up to ${show(wantedCounts)}, your sum says ${show(heldCounts)}.`,
    sumNotEntered: () => "the sum was worked out, and something else was entered.",
  };

/** One register's working, in the student's own figures. */
function workingWords(finding: WorkingFinding, unit: LengthUnit): string {
  const name = registerWords(finding.register);
  if (finding.fault !== null)
    return `${name}: ${WORKING[finding.fault](finding, (counts) => showSignedCounts(counts ?? 0, scales[unit]))}`;
  return finding.isByMotion
    ? `${name}: the radius was entered by motion; the log is the working.`
    : `${name}: reading, terms and sum are right.`;
}

/** One fault of a setup that was handed over, with its own figures. */
function faultWords({ kind, tool, axis, registers, effects }: Fault, unit: LengthUnit): string {
  const by = `${showLength(Math.abs(effects[0]?.mm ?? 0), scales[unit])} ${unit === "mm" ? "mm" : "in"}`;
  const FAULTS: Record<FaultKind, string> = {
    feelerOnce: `T${tool ?? ""} had its feeler counted once instead of twice, ${by} off on the diameter`,
    bladeEdge: `T${tool ?? ""} was set on the other edge of its blade, ${by} off`,
    oldWorkZ: `work Z still held ${by} from the job before`,
    facedAgain: `the face had been cut again after the tools were set, by ${by}`,
    neighborRow: registers[0]?.startsWith("X")
      ? `X and Z of two tools stood in each other’s rows, T${tool ?? ""} ${by} off in X`
      : `the lengths in ${registers.map(registerWords).join(" and ")} stood in each other’s rows, ${by} off`,
    staleWear: `${registerWords(registers[0] ?? "HW1")} still held ${by} from the job before`,
    schoolMixed: `${registerWords(registers[0] ?? "H1")} was touched on the part while the other lengths count from the gauge line: tool ${tool ?? ""} off by the whole of work Z`,
    radiusSign: `${axisNames[axis ?? "x"]} had the tip radius with its sign turned, ${by} off`,
    setterMoved: `the setter no longer stands where its card says, so every length was off by ${by}`,
    wrongOffset: "the zero stood in G55, and G54 still held the job before",
    offStop: `the blank stood ${by} off its stop`,
  };
  return FAULTS[kind];
}

const WHY_MISSED = {
  noReading: "No reading in the log could have told it.",
  notPutRight: "Something was read that shows it, but it was not put right.",
  tooLate: "It was put right only after the machine had moved at rapid low over the part.",
} as const;

function verdictWords({ said, isTrue }: Extract<Finding, { code: "verdict" }>): string {
  if (said === null) return "Nothing was said of the setup as a whole.";
  if (isTrue)
    return said === "sound" ? "The setup was called sound, and it was." : "The setup was called faulty, and it was.";
  return said === "sound"
    ? "The setup was called sound, and it was not."
    : "The setup was called faulty, and nothing was wrong with it: a false alarm costs a shop as much as a miss.";
}

/** One finding as a line: what was done or missed, or what happened. */
export function findingWords(finding: Finding, unit: LengthUnit = "mm"): string {
  switch (finding.code) {
    case "stepDone":
      return STEPS[finding.step].done;
    case "stepMissed":
      return STEPS[finding.step].missed;
    case "working":
      return workingWords(finding, unit);
    case "faultFound":
      return `Found in time: ${faultWords(finding.fault, unit)}.`;
    case "faultMissed":
      return `Missed: ${faultWords(finding.fault, unit)}. ${WHY_MISSED[finding.why]}`;
    case "soundRead":
      return `${targetWords(finding.target)} was sound, and a reading showed it.`;
    case "soundUnread":
      return `${targetWords(finding.target)} was sound, but no reading says so: it was believed.`;
    case "soundSpoiled":
      return `${targetWords(finding.target)} was sound as it was handed over, and was set wrong.`;
    case "verdict":
      return verdictWords(finding);
    case "noIncident":
      return "Nothing was struck, bent or torn.";
    case "incident": {
      const words = incidentWords[finding.incident];
      const at = finding.rpm === undefined ? "" : ` The spindle came up at ${finding.rpm} rev/min; it is rated 1200.`;
      return `${words[0]?.toUpperCase()}${words.slice(1)}.${at}${finding.failsOutright ? " This alone fails the safety strand." : ""}`;
    }
  }
}
