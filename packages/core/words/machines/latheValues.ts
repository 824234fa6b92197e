import { noseAngleOf } from "../../desk/insert";
import type { TurningSetup } from "../../exercises";
import type { RegisterRuling } from "../../grading";
import { tipCodes, tipDirection } from "../../registers";
import { formatUm, scales, showLength } from "../../units";
import { explain } from "../causes";
import { targetWords } from "../names";
import type { ValueWords } from "../values";

const show = (mm: number, sheet: TurningSetup): string => showLength(mm, scales[sheet.unit]);
const toolOf = ({ target }: RegisterRuling, { lathe }: TurningSetup) =>
  lathe.tools.find(({ number }) => number === target.tool);

/** How far a tip still stands off the axis, and what that does. */
function heightWords(value: RegisterRuling, sheet: TurningSetup): ValueWords {
  const name = targetWords(value.target);
  const off = `${show(Math.abs(value.closureMm), sheet)} ${sheet.unit === "mm" ? "mm" : "in"}`;
  if (Math.abs(value.closureMm) <= value.toleranceMm)
    return {
      name,
      headline: `${name} is right, within ${formatUm(Math.abs(value.closureMm)).replace("+", "")} µm.`,
      body: "",
      proof: "",
    };
  const { cause } = value;
  const steps = cause.kind === "proven" ? cause.terms.map((term) => explain(term, value, sheet)).join(" ") : "";
  return {
    name,
    headline: `${name}: the tip stands ${off} ${value.closureMm > 0 ? "above" : "below"} the axis.`,
    proof: steps === "" ? "Seen in the truth of this lane." : "The log shows each time that it was moved.",
    body: `Facing leaves a pip twice as wide. ${value.closureMm > 0 ? "Above center it is rubbed: the holder goes down" : "Below center it stands: the holder goes up"} by half of the pip. Small diameters come out larger than they are commanded. ${steps}`.trim(),
  };
}

/** What a wrong tip code does to a compensated cut: Rn(s′ − s), on a diameter twice that. */
function codeShift(value: RegisterRuling, sheet: TurningSetup): string {
  const nose = toolOf(value, sheet)?.noseRadiusMm ?? 0;
  const [held, wanted] = [value.held, value.wanted].map((code) => tipCodes.find((one) => one === Math.round(code)));
  if (held === undefined || wanted === undefined || nose === 0)
    return "A wrong one shifts every compensated cut by a nose radius, twice that on a diameter.";
  const [from, to] = [tipDirection(wanted), tipDirection(held)];
  const signed = (mm: number) => `${mm > 0 ? "+" : ""}${show(mm || 0, sheet)}`;
  return `With a nose of ${show(nose, sheet)} every compensated cut is shifted by X ${signed(2 * nose * (to[0] - from[0]))}, a diameter, and Z ${signed(nose * (to[1] - from[1]))}.`;
}

/** Nose radius and tip code are right or not: nothing is measured. */
function noseWords(value: RegisterRuling, sheet: TurningSetup): ValueWords {
  const name = targetWords(value.target);
  const isCode = value.target.kind === "tipCode";
  const show_ = (figure: number) => (isCode ? String(Math.round(figure)) : show(figure, sheet));
  const insert = toolOf(value, sheet)?.insert ?? "";
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

/** Whether a tool fits is right or not. */
function fitWords(value: RegisterRuling, sheet: TurningSetup): ValueWords {
  const tool = toolOf(value, sheet);
  const name = `T${value.target.tool}`;
  const { steepestFallDeg = 0, grooveMm = 0 } = sheet.lathe.profile ?? {};
  const nose = tool ? noseAngleOf(tool.insert) : null;
  const say = (mm: number) => `${showLength(mm, scales[sheet.unit])} ${sheet.unit === "mm" ? "mm" : "in"}`;
  const clears =
    tool?.leadDeg !== undefined && nose !== null
      ? `180 − ${tool.leadDeg} − ${nose} = ${180 - tool.leadDeg - nose}° clears, less two or three in practice; the profile falls by ${steepestFallDeg}°.`
      : "";
  const reaches =
    tool?.deepestMm === undefined
      ? ""
      : `Its blade reaches ${say(tool.deepestMm)}, the groove is ${say(grooveMm)} deep.`;
  const fits = value.wanted === 1 ? "fits the part" : "does not fit the part";
  if (value.held === value.wanted) return { name, headline: `${name} ${fits}, as you said.`, body: "", proof: "" };
  return {
    name,
    headline: `${name} ${fits}; ${value.held === -1 ? "nothing was said of it" : "you said the opposite"}.`,
    body: `${clears}${reaches}`,
    proof: "It follows from the sheet.",
  };
}

/** Values of a lathe that have a way of their own in which they are right or wrong; null for the others. */
export function latheValueWords(value: RegisterRuling, sheet: TurningSetup): ValueWords | null {
  switch (value.target.kind) {
    case "height":
      return heightWords(value, sheet);
    case "fit":
      return fitWords(value, sheet);
    case "nose":
    case "tipCode":
      return noseWords(value, sheet);
    case "place":
    case "turn":
    case "toolSum":
    case "toolRow":
    case "workZ":
    case "diameter":
    case "toolOffset":
    case "axisHeight":
    case "gaugeError":
      return null;
  }
}

/** To which side a value of a lathe is off, and what that does. */
export function latheDirection({ target, closureMm }: RegisterRuling, { kind, lathe }: TurningSetup): string {
  const isUp = closureMm > 0;
  if (target.kind === "axisHeight" || target.kind === "gaugeError") return isUp ? "too high" : "too low";
  if (kind !== "readout") return isUp ? "high: the tip stands off" : "low: the tip cuts deep";
  if (target.tool === lathe.targets.x[0]) return isUp ? "high" : "low";
  return isUp ? "high: recalled, the corner reads too much" : "low: recalled, the corner reads too little";
}
