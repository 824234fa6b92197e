import type { IncidentCode } from "../bench";
import type { Fault, FaultKind } from "../exercises";
import type { Finding, WorkingFault, WorkingFinding, MethodStep } from "../grading";
import { EDGE_FINDER_HIGHEST_RPM } from "../instruments";
import { scales, showLength, showSignedCounts, type LengthUnit } from "../units";
import { axisNames, incidentWords, registerWords, targetWords, termWords } from "./names";
import { contactName } from "./program";
import { STEPS } from "./steps";
import type { RegisterId } from "../registers";
import type { StrikeFinding } from "../grading/proving";
import type { ContactKind } from "../proving";

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

const WITHOUT = {
  motion: "the radius was entered by motion",
  control: "the control added it up and wrote it itself",
  slid: "the tool was put where its register says",
} as const;

/** One register's working, in the student's own figures. */
function workingWords(finding: WorkingFinding, unit: LengthUnit): string {
  const name = registerWords(finding.register);
  if (finding.fault !== null)
    return `${name}: ${WORKING[finding.fault](finding, (counts) => showSignedCounts(counts ?? 0, scales[unit]))}`;
  return finding.isByMotion
    ? `${name}: ${WITHOUT[finding.without ?? "motion"]}; the log is the working.`
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
  noReading: "It was not put right, and no reading in the log could have told it.",
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

/** What a speed is held against, where something has a rated one; what must never turn has none. */
const RATED: Partial<Record<IncidentCode, string>> = {
  finderThrown: `; it is rated ${EDGE_FINDER_HIGHEST_RPM}`,
};

function failsWords({ failsOutright, failsLane }: Extract<Finding, { code: "incident" }>): string {
  if (failsLane === true) return " This alone fails the lane: it endangers people or the machine.";
  return failsOutright ? " This alone fails the safety strand." : "";
}

type StepFinding = Extract<Finding, { code: "stepDone" | "stepMissed" }>;

const listed = (registers: readonly RegisterId[]): string => registers.map((one) => registerWords(one)).join(", ");

/** What is said beside a check: how it was answered, or what has withdrawn it. */
function noteWords(note: NonNullable<StepFinding["note"]>, unit: LengthUnit): string {
  if (note.code === "withdrawn")
    return `${registerWords(note.register)} was changed after it was checked, which withdrew the check.`;
  if (note.code === "staleWere")
    return note.registers.length === 0 ? "Nothing had changed." : `To be touched again: ${listed(note.registers)}.`;
  if (note.code === "staleOther")
    return [
      ...(note.missing.length > 0 ? [`Not named: ${listed(note.missing)}.`] : []),
      ...(note.needless.length > 0 ? [`Named, and still as it was: ${listed(note.needless)}.`] : []),
    ].join(" ");
  const size = note.isByEye ? showLength(Math.abs(note.mm), scales[unit], unit === "mm" ? 1 : 2) : null;
  const figure = size === null ? showLength(Math.abs(note.mm), scales[unit]) : `about ${size}`;
  const by = `${figure} ${unit === "mm" ? "mm" : "in"}`;
  const NOTES = {
    calledAsExpected: `It was called as expected, and what was seen stood ${by} off.`,
    calledOff: `It was called not as expected, and what was seen came within ${by} of what was said.`,
    sawNotRight: `You saw that it was ${by} off and stopped, and did not put it right.`,
  };
  return NOTES[note.code];
}

/** What is said of a step that was not done as it should be, of nobody in particular. */
export const missedStepWords = (step: MethodStep): string => STEPS[step].missed;

/** A step that was done or missed: absent is not too late. */
function stepWords({ code, step, isAbsent, note }: StepFinding, unit: LengthUnit): string {
  const { done, missed, absent } = STEPS[step];
  const own = { stepDone: done, stepMissed: isAbsent === true ? (absent ?? missed) : missed }[code];
  return note ? `${own} ${noteWords(note, unit)}` : own;
}

/** What a program as it was handed in would strike, and why. */
function strikesWords(
  { line, met, with: what, lines, targets, isByLift, isUnchecked }: StrikeFinding,
  unit: LengthUnit,
): string {
  const contact = contactName({ kind: met as ContactKind, with: what });
  const off = targets.map(
    ({ target, closureMm }) =>
      `${targetWords(target)}, ${showLength(Math.abs(closureMm), scales[unit])} ${unit === "mm" ? "mm" : "in"} ${closureMm > 0 ? "too high" : "too low"}`,
  );
  const causes = [
    ...lines.map((one) => `line ${one} of the program`),
    ...(isByLift ? ["the common Z, which is not zero"] : []),
    ...off,
  ];
  const why =
    causes.length === 0
      ? "No single line or value, put right alone, lets it pass."
      : `Put right alone, each of these lets it pass: ${causes.join("; ")}.`;
  const seen = isUnchecked ? " Nothing that was looked at said so: it was luck that nobody ran it as it stands." : "";
  return `Line ${line}: ${contact}. ${why}${seen}`;
}

/** One finding as a line: what was done or missed, or what happened. */
export function findingWords(finding: Finding, unit: LengthUnit = "mm"): string {
  switch (finding.code) {
    case "stepDone":
    case "stepMissed":
      return stepWords(finding, unit);
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
    case "programStrikes":
      return strikesWords(finding, unit);
    case "noIncident":
      return "Nothing was struck, bent or torn.";
    case "incident": {
      const words = incidentWords[finding.incident];
      const at =
        finding.rpm === undefined
          ? ""
          : ` The spindle came up at ${finding.rpm} rev/min${RATED[finding.incident] ?? ""}.`;
      return `${words[0]?.toUpperCase()}${words.slice(1)}.${at}${failsWords(finding)}`;
    }
  }
}
