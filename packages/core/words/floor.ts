import type { FloorRegister, FloorSchool } from "../floor/exercise";
import type { PartFeature, PartRead } from "../floor/part";
import type { FloorGateName } from "../floor/state";
import type { FloorValue } from "../floor/ruling";
import type { FloorSignature, SigningProblem } from "../floor/signature";
import { formatMm } from "../units";
import { causeName, mistakeWords } from "./causes";
import { schoolWords } from "./firstNames";
import { termWords } from "./names";
import { oddsWords } from "./ruling";

export const floorGateWords: Record<FloorGateName, string> = {
  ready: "Ready",
  readings: "Readings",
  registers: "Registers",
  check: "Check",
  signOff: "Sign-off",
  handIn: "Hand in",
};

/** Cautions in the shop's order; the machine's own manual and the person in charge come first. */
export const floorCautions: readonly string[] = [
  "The maker’s manual, the shop’s rules, local law and the person in charge come first. This page does not license anyone to run a machine.",
  "Eye protection on; no gloves, rings or loose clothes near a spindle.",
  "Spindle stopped and all motion ended before you reach in or measure. Spindle stopped for paper, feeler, pin, indicator and probe.",
  "State the speed before you start a spindle with an edge finder in it; never above its rating.",
  "Jog the retract axis first. Nothing hard in the gap while it closes. Key out of the chuck, guard shut.",
  "After a crash: stop, tell your instructor; nothing is trusted until it is measured again.",
  "No cycle start before your instructor has signed.",
];

/** The ruling of one floor register: a headline, and what is behind it. */
export function floorValueWords(value: FloorValue, show: (mm: number) => string): { headline: string; body: string } {
  const { register, verdict, closureMm, check, explained } = value;
  if (verdict === "within")
    return {
      headline: `${register.label} is within its tolerance.`,
      body: `By the instructor’s own touch, tolerance ±${show(register.toleranceMm)}; no figure was taken.`,
    };
  if (verdict === "missing" || closureMm === null || check === null)
    return {
      headline: `${register.label}: not complete.`,
      body: value.heldMm === null ? "No value was entered." : "There is no check of it yet.",
    };
  if (verdict === "checksDisagree")
    return {
      headline: `${register.label}: its checks contradict each other.`,
      body: "Until the wrong one is found and struck nobody knows what it should hold, and nothing is marked.",
    };
  if (verdict === "checkTooCoarse")
    return {
      headline: `${register.label}: its check is too coarse.`,
      body: `It is sure to ±${show(check.expandedMm)} only, the tolerance is ±${show(register.toleranceMm)}: a better check is wanted before it is ruled.`,
    };
  const off = `${show(Math.abs(closureMm))} ${closureMm > 0 ? "high" : "low"}`;
  if (verdict === "right")
    return {
      headline: `${register.label} is right.`,
      body: `${off} of the check, tolerance ±${show(register.toleranceMm)}.`,
    };
  if (verdict === "tooClose") {
    return {
      headline: `${register.label}: too close to call.`,
      body: `${off}; the limit is ±${show(register.toleranceMm)} and the check is sure to ±${show(check.expandedMm)} only. It is not failed: a better check would decide.`,
    };
  }
  const first = explained?.ranked[0];
  if (!first || first.classes.length === 0)
    return {
      headline: `${register.label} is ${off}. No known mistake explains it.`,
      body: "Unexplained, so nothing is claimed.",
    };
  const names = first.classes.map((members) => members.map(causeName).join(" or ")).join(" and ");
  const checks = [...new Set(first.classes.flat().map((id) => mistakeWords[id].check))].join(" ");
  return {
    headline: `${register.label} is ${off}. Most likely: ${names}.`,
    body: `That makes ${formatMm(first.predicted)} mm of it; inferred from the number, ${oddsWords(first.probability)}. ${checks}`,
  };
}

/** A school of the floor, as an instructor picks it. */
export const floorSchoolWords: Record<FloorSchool, string> = {
  ...schoolWords,
  readout: "tool library of a readout, tool 1 the reference",
};

/** What stands in the way of signing a register's value. */
export const signingWords: Record<SigningProblem, string> = {
  notChecked: "has no value, or no check",
  checksDisagree: "has checks that contradict each other: strike the wrong one",
  checkTooCoarse: "has a check that is less sure than its tolerance: make a better one",
  reasonWanted: "is outside its tolerance",
};

/** How the signature of a floor lane stands, one sentence. */
export function floorSignatureWords(signature: FloorSignature): string {
  switch (signature.state) {
    case "none":
      return "Not signed.";
    case "given":
      return `Signed by ${signature.by}, as it stands: ${signature.entries} entries.`;
    case "withdrawn":
      return signature.changed.length === 0
        ? `Withdrawn by ${signature.by}.`
        : `Withdrawn by itself: since ${signature.by} signed, ${signature.changed.join(", ")}.`;
    case "sentBack":
      return `Sent back by ${signature.by}: “${signature.word}”`;
  }
}

/** What is to be said of a register's working, one sentence. */
export const floorWorkingWords = ({ working, leftOut }: Pick<FloorValue, "working" | "leftOut">): string =>
  leftOut.length === 0
    ? `Working: ${working}.`
    : `Working: it adds up, and leaves out what lies between: ${leftOut.map((term) => termWords[term]).join(", ")}.`;

/** What is measured of a part for a register, and how its sign goes. */
export const partFeatureWords: Record<PartFeature, string> = {
  middle: "the middle between two walls of a slot or boss: where it stands from the datum, with its sign",
  floor: "a floor that this tool cut: where it stands from the datum’s face, with its sign (6 deep is −6)",
  diameter: "a diameter that this tool cut",
  shoulder: "a shoulder that this tool cut: where it stands from a face that is right, with its sign",
};

/** What a measured feature tells of its register, and what to type for that. */
export function partReadWords(
  { label, id, method }: Pick<FloorRegister, "label" | "id" | "method">,
  { measuredMm, celsius, coldMm, targetMm, offMm }: PartRead,
  show: (mm: number) => string,
): string {
  const warm = celsius === null ? "" : ` at ${celsius} °C, which is ${show(coldMm)} at 20 °C`;
  const read = `Measured ${show(measuredMm)}${warm}; wanted ${show(targetMm)}.`;
  if (offMm === 0) return `${read} ${label} is as it should be.`;
  const change = `${offMm > 0 ? "−" : "+"}${show(Math.abs(offMm))}`;
  // a work offset and the library of a readout have no wear: they are changed themselves
  const how =
    id.startsWith("G5") || method === "lathe-readout" ? `change it by ${change}` : `type ${change} as its wear`;
  return `${read} ${label} is ${show(Math.abs(offMm))} ${offMm > 0 ? "high" : "low"}: ${how}.`;
}
