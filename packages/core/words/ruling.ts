import type { CauseId } from "../diagnosis/cause";
import type { MistakeId } from "../diagnosis/catalog";
import type { Finding, MethodStep } from "../grading/findings";
import type { RegisterRuling, Ruling } from "../grading/ruling";
import { formatCounts, formatMm, formatUm } from "../units";
import { axisNames, incidentWords } from "./names";

export { axisNames, feelWords, incidentWords, registerWords, schoolWords, surfaceWords, termWords, thingWords, wobbleWords } from "./names";

/** Short names, as they stand at a mark on the axis. */
const CAUSES: Record<CauseId, string> = {
  radiusForgotten: "radius left out", radiusSignTurned: "radius turned round", diameterForRadius: "diameter for radius",
  edgeWorkForgotten: "edge’s coordinate left out", edgeWorkSignTurned: "edge’s coordinate turned round", otherEdge: "the other edge",
  paperForgotten: "paper left out", paperWrongWay: "paper counted the wrong way", facingForgotten: "facing left out",
  facingWrongWay: "facing counted the wrong way", leftoverWorkZ: "old work Z left in",
  capturedAfterLeaving: "taken after leaving the contact", burr: "burr not dressed", edgeBreak: "touched on the edge break",
  bentFinder: "tip bent", coarseClick: "last click too coarse", slowSpindle: "spindle too slow", paperPinched: "paper pinched too hard",
  otherRegister: "entered in another register", neverSet: "never set", noContact: "no contact found", liftMissing: "lift missing",
  changedSinceTouch: "tool changed after it was touched",
  dialTurnShort: "dial one turn short", radiusOnOneSide: "radius added on one side only",
  blockForgotten: "block left out", blockWrongWay: "block counted the wrong way", partHeightMiscounted: "part height miscounted",
  leftoverCommonZ: "common Z left in", oldWear: "old wear left in", neighborRow: "neighbor’s row", lengthNotCalled: "length compensation not called",
  spindleGrowth: "spindle growth", radiusInDiameter: "radius in a diameter register", diameterInRadius: "diameter in a radius register",
  nominalForMeasured: "nominal for measured", diameterEmpty: "diameter left empty", wearSignTurned: "wear with its sign turned",
  feelerOnce: "feeler counted once", feelerForgotten: "feeler left out", diameterAsRadius: "diameter entered as radius", workXNotZero: "work X not zero",
  noseCenterX: "nose center set as the tip", gapForgotten: "gap left out", gapWrongWay: "gap counted the wrong way", faceForgotten: "face’s own Z left out",
  otherBladeEdge: "other edge of the blade", toolNotActive: "tool not active", shiftMissing: "shift missing", masterNotCleared: "master’s row not cleared",
  noseCenterZ: "nose center set as the tip", librarySign: "sign of the library", feelerOnSome: "feeler on some tools only",
  axesSwapped: "X and Y swapped", schoolsMixed: "two schools mixed", probeLengthWrong: "wrong probe length", wearTwice: "wear entered twice",
  sensorConstant: "sensor constant left out", plateMetEarly: "plate met by edge or holder",
  wholeSignTurned: "sign of the whole value", inchForMm: "inch and mm mixed", decimalShifted: "decimal point shifted", digitsSwapped: "two digits swapped",
};

export const signatureWords = (id: MistakeId): string => CAUSES[id];

/** One name for the value as it stands in the ruling. */
const valueName = (value: RegisterRuling): string => (value.axis === "z" ? "Z with tool 1" : `G54 ${axisNames[value.axis]}`);

const direction = (value: RegisterRuling): string =>
  value.axis === "z" ? (value.closureMm > 0 ? "high: the tip stands off" : "low: the tip cuts deep") : value.closureMm > 0 ? "high" : "low";

interface Words { readonly name: string; readonly headline: string; readonly body: string; readonly proof: string }

function explainRadius(value: RegisterRuling, sheet: Ruling["sheet"]): string {
  if (value.axis === "z" || !value.contact) return "";
  const { approach } = sheet.edges[value.axis];
  const r = sheet.tipDiameterMm / 2;
  const edgeCounts = value.contact.counts + approach * r * 1000;
  return `At the kick the spindle axis stood at ${formatCounts(value.contact.counts)}. The edge lies one tip radius further toward the part: ` +
    `${formatCounts(value.contact.counts)} ${approach === 1 ? "+" : "−"} ${formatMm(r)} = ${formatCounts(edgeCounts)}.`;
}

function explainEdgeWork(value: RegisterRuling, sheet: Ruling["sheet"]): string {
  if (value.axis === "z") return "";
  const o = sheet.edges[value.axis].edgeWorkMm;
  return `That edge is ${axisNames[value.axis]} ${formatMm(o)}, not zero: the datum lies ${formatMm(Math.abs(o))} inside of it.`;
}

const zSum = (value: RegisterRuling, sheet: Ruling["sheet"]): string =>
  value.contact
    ? `The paper was felt at Z ${formatCounts(value.contact.counts)}. Down to the datum: less the paper ${formatMm(sheet.paperMm)}` +
      (sheet.facingAllowanceMm ? `, less the facing allowance ${formatMm(sheet.facingAllowanceMm)}` : "") +
      ` = ${formatCounts(value.contact.counts - Math.round((sheet.paperMm + sheet.facingAllowanceMm) * 1000))}.`
    : "";

type Explain = (term: { mm: number }, value: RegisterRuling, sheet: Ruling["sheet"]) => string;

/** What each cause means, in the student's numbers. */
const EXPLAIN: Partial<Record<CauseId, Explain>> = {
  radiusForgotten: (_t, value, sheet) => `${explainRadius(value, sheet)} That radius is missing from your value.`,
  radiusSignTurned: (_t, value, sheet) => `${explainRadius(value, sheet)} Yours went the other way, away from the part.`,
  diameterForRadius: (_t, value, sheet) => `${explainRadius(value, sheet)} Yours took the whole tip diameter ${formatMm(sheet.tipDiameterMm)}.`,
  edgeWorkForgotten: (_t, value, sheet) => `${explainEdgeWork(value, sheet)} That term is missing from your value.`,
  edgeWorkSignTurned: (_t, value, sheet) => `${explainEdgeWork(value, sheet)} Yours counted it to the wrong side.`,
  otherEdge: (_t, value) => `The other ${axisNames[value.axis]} face was touched, a whole part away from the one that the drawing asks for.`,
  paperForgotten: (_t, value, sheet) => `${zSum(value, sheet)} The paper is missing from your sum.`,
  paperWrongWay: (_t, value, sheet) => `${zSum(value, sheet)} Your sum has the paper with the opposite sign.`,
  facingForgotten: (_t, value, sheet) => `${zSum(value, sheet)} The facing allowance is missing from your sum.`,
  facingWrongWay: (_t, value, sheet) => `${zSum(value, sheet)} Your sum has the facing allowance with the opposite sign.`,
  leftoverWorkZ: (_t, _v, sheet) => `G54 Z still held ${formatMm(sheet.leftoverWorkZMm)} from the job before. It adds to the length that you took on the part.`,
  capturedAfterLeaving: ({ mm }) => `The machine had moved ${formatMm(mm)} since the contact when the value was taken, and the move was not counted.`,
  burr: ({ mm }) => `The burr was still on that edge: the tip met it ${formatMm(Math.abs(mm))} before the face.`,
  edgeBreak: ({ mm }) => `The tip reached no further down than the broken edge, and met it ${formatMm(Math.abs(mm))} late.`,
  bentFinder: ({ mm }) => `The tip had been pushed too far before and was bent: it meets every face ${formatMm(Math.abs(mm))} early, and does not say so.`,
  coarseClick: ({ mm }) => `The contact was found with a coarse click, ${formatMm(Math.abs(mm))} late.`,
  slowSpindle: () => "Below 400 rev/min the tip kicks late.",
  paperPinched: ({ mm }) => `The paper was pinched, not dragging: the tip stood ${formatMm(Math.abs(mm))} lower than one paper.`,
  otherRegister: (_t, value) => `The value stands in another work offset; ${valueName(value)} itself was not changed.`,
  neverSet: (_t, value) => `${valueName(value)} was never set: it still holds what it held at the start.`,
  noContact: () => "No contact was found before the value was set.",
  liftMissing: () => "Tool 1 was touched on the plane, but the datum’s height over that plane was never found with it.",
  wholeSignTurned: () => "The number is right but for its sign.",
  decimalShifted: () => "The digits are right, the decimal point is one place off.",
  digitsSwapped: () => "Two neighboring digits changed places when it was typed.",
  changedSinceTouch: ({ mm }) => `Tool 1 was chipped after it was touched and is ${formatMm(mm)} shorter now: after a strike nothing is trusted until it is measured again.`,
};

const SINGLE_HEADLINE: Partial<Record<CauseId, string>> = {
  radiusForgotten: "one tip radius, left out", radiusSignTurned: "the tip radius, turned round", diameterForRadius: "the whole tip diameter, where its radius belongs",
  paperForgotten: "one paper, left out", paperWrongWay: "the paper, counted the wrong way", burr: "the burr was still on",
};
const headlineOf = (id: CauseId): string => SINGLE_HEADLINE[id] ?? CAUSES[id];

const percent = (probability: number): string =>
  probability > 0.995 ? "more than 99 in 100" : `about ${Math.max(1, Math.round(probability * 100))} in 100`;

/** The ruling of one value in words: headline, the working in the student's numbers, and how it is known. */
export function causeWords(value: RegisterRuling, sheet: Ruling["sheet"]): Words {
  const name = valueName(value);
  const off = formatMm(Math.abs(value.closureMm));
  const { cause } = value;
  const holds = ` You hold ${formatCounts(value.heldCounts)}; it should be ${formatCounts(value.wantedCounts)}.`;
  if (cause.kind === "none" && Math.abs(value.closureMm) <= value.toleranceMm) {
    return {
      name, headline: `${name} is right, within ${formatUm(Math.abs(value.closureMm)).replace("+", "")} µm.`, proof: "",
      body: `The method itself leads one to expect ${formatUm(value.biasMm)} µm, give or take ${formatUm(2 * value.uMm).replace("+", "")}.`,
    };
  }
  const lead = `${name} is ${off} mm ${direction(value)}`;
  if (cause.kind === "proven") {
    return {
      name, headline: `${lead}. Cause: ${cause.terms.map(({ id }) => headlineOf(id)).join(" and ")}.`,
      body: cause.terms.map((term) => EXPLAIN[term.id]?.(term, value, sheet) ?? "").join(" ") + holds,
      proof: "The log shows this step, so it is the cause and not a guess.",
    };
  }
  if (cause.kind === "inferred") {
    const [first] = cause.ranked;
    const ids = (first?.ids ?? []) as CauseId[];
    const others = cause.ranked.slice(1).filter(({ ids: rest }) => rest.length > 0)
      .map(({ ids: rest, probability }) => `${rest.map((id) => CAUSES[id as CauseId] ?? id).join(" with ")} (${percent(probability)})`);
    return {
      name, headline: `${lead}. Most likely: ${ids.map(headlineOf).join(" and ")}.`,
      body: ids.map((id) => EXPLAIN[id]?.({ mm: 0 }, value, sheet) ?? "").join(" ") + holds,
      proof: `Inferred from the number, the log leaves it open: ${percent(first?.probability ?? 0)}.${others.length ? ` Also possible: ${others.join(", ")}.` : ""}`,
    };
  }
  return {
    name, headline: `${lead}. No known mistake explains it.`,
    body: `Neither the log nor any single or double mistake leads to this number.${holds}`, proof: "Unexplained, so nothing is claimed.",
  };
}

const STEPS: Record<MethodStep, { done: string; missed: string }> = {
  homedFirst: { done: "Reference return before anything moved.", missed: "The machine was moved before its reference return." },
  burrBeforeTouch: { done: "Burr dressed before the first touch.", missed: "The edges were touched before the burr was dressed." },
  speedStated: { done: "Every spindle start stated its speed.", missed: "A spindle start left the speed to memory, or the spindle was never started." },
  twoKicksX: { done: "X: two kicks agreed.", missed: "X: there were no two kicks that agree; one reading can deceive." },
  twoKicksY: { done: "Y: two kicks agreed.", missed: "Y: there were no two kicks that agree; one reading can deceive." },
  finestX: { done: "X: the last kick was found at the finest click.", missed: "X: the last kick was not found at the finest click." },
  finestY: { done: "Y: the last kick was found at the finest click.", missed: "Y: the last kick was not found at the finest click." },
  finestPaper: { done: "Paper felt at the finest click.", missed: "The paper was not felt at the finest click." },
  lookedTwoSides: { done: "Stood over zero and looked from two sides.", missed: "The zero was not looked at from two sides with the pointed tool." },
};

/** One finding as a line: what was done or missed, or what happened. */
export function findingWords(finding: Finding): string {
  switch (finding.code) {
    case "stepDone": return STEPS[finding.step].done;
    case "stepMissed": return STEPS[finding.step].missed;
    case "noIncident": return "Nothing was struck, bent or torn.";
    case "incident": {
      const words = incidentWords[finding.incident];
      const at = finding.rpm === undefined ? "" : ` The spindle came up at ${finding.rpm} rev/min; it is rated 1200.`;
      return `${words[0]?.toUpperCase()}${words.slice(1)}.${at}${finding.failsOutright ? " This alone fails the safety strand." : ""}`;
    }
  }
}
