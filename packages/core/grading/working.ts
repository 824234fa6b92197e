import type { LaneTrace } from "../diagnosis";
import type { LedgerLine, TermName } from "../lane";
import { readRegister, type RegisterId } from "../registers";
import { toCounts } from "../units";
import type { NoWorking, WorkingRules } from "./kit";
import type { RegisterRuling } from "./values";

export const workingFaults = [
  "noWorking",
  "noReading",
  "wrongReading",
  "missingTerm",
  "wrongSign",
  "wrongTerm",
  "noSum",
  "wrongSum",
  "sumNotEntered",
] as const;
export type WorkingFault = (typeof workingFaults)[number];

/** One register's working: right, entered by motion, or what is wrong with it first. Counts are the machine's. */
export interface WorkingFinding {
  readonly code: "working";
  readonly register: RegisterId;
  readonly fault: WorkingFault | null;
  /** Right without a ledger line, because the log shows the radius entered by motion. */
  readonly isByMotion: boolean;
  /** How it came there without a working; not said in rulings of before it was. */
  readonly without?: NoWorking | undefined;
  readonly term?: TermName | undefined;
  readonly wantedCounts?: number | undefined;
  readonly heldCounts?: number | undefined;
  readonly marks: number;
  readonly outOf: number;
  readonly line: number | null;
}

/** A sum agrees with its terms when it differs by no more than rounding, counts. */
export const AGREE_COUNTS = 2;
/** What one fault leaves of a register's working: the reading and the steps that are right still count. */
const KEEPS: Record<WorkingFault, number> = {
  noWorking: 0,
  noReading: 0.25,
  wrongReading: 0.25,
  missingTerm: 0.5,
  wrongSign: 0.5,
  wrongTerm: 0.5,
  noSum: 0.5,
  wrongSum: 0.5,
  sumNotEntered: 0.75,
};

/** Terms that a working is asked for where they belong: what lies between a contact and the register. */
const ASKED: ReadonlySet<TermName> = new Set(["tipRadius", "edgeWork", "paper", "facing", "block", "bladeWidth"]);

type Belongs = NonNullable<NonNullable<RegisterRuling["provenance"]>["belongs"]>;

/** What belongs in the working of a register, by the contact that its value came from. */
const askedOf = ({ provenance }: RegisterRuling): Belongs =>
  (provenance?.belongs ?? []).filter(({ term, counts }) => ASKED.has(term) && counts !== 0);

/** The first thing wrong with a register's lines, from the reading on; null when nothing is. */
function faultOf(
  trace: LaneTrace,
  rules: WorkingRules<LaneTrace>,
  register: RegisterId,
  lines: readonly LedgerLine[],
  asked: Belongs,
): Pick<WorkingFinding, "fault" | "term" | "wantedCounts" | "heldCounts" | "line"> {
  const at = (fault: WorkingFault | null, more: Partial<WorkingFinding> = {}) => ({
    fault,
    line: lines.at(-1)?.line ?? null,
    ...more,
  });
  const readings = lines.filter(({ kind }) => kind === "reading");
  const sum = lines.findLast(({ kind }) => kind === "sum");
  if (lines.length === 0) return at("noWorking");
  const reading = readings.at(-1);
  if (!reading && !register.startsWith("HW")) return at("noReading");
  if (reading && !rules.isTaken(trace, reading))
    return at("wrongReading", { heldCounts: reading.counts, line: reading.line });
  for (const { term, counts } of asked) {
    const written = lines.filter((line) => line.kind === "term" && line.term === term);
    const held = written.reduce((total, line) => total + line.counts, 0);
    if (written.length === 0) return at("missingTerm", { term, wantedCounts: counts });
    if (Math.abs(held - counts) <= AGREE_COUNTS) continue;
    return at(Math.abs(held + counts) <= AGREE_COUNTS ? "wrongSign" : "wrongTerm", {
      term,
      wantedCounts: counts,
      heldCounts: held,
      line: written.at(-1)?.line ?? null,
    });
  }
  if (!sum) return at("noSum");
  const terms = lines.reduce((total, { kind, counts }) => (kind === "term" ? total + counts : total), 0);
  const wanted = rules.expected(trace, register, readings, terms);
  if (Math.abs(sum.counts - wanted) > AGREE_COUNTS)
    return at("wrongSum", { wantedCounts: Math.round(wanted), heldCounts: sum.counts, line: sum.line });
  return at(null);
}

/** The sum is what the register came to hold, to what a hand may round it by, mm. */
const ENTERED_WITHIN_MM = 0.06;

/** The working of every marked register, with an equal share of the strand. */
export function workingFindings(
  trace: LaneTrace,
  rules: WorkingRules<LaneTrace>,
  outOf: number,
  values: readonly RegisterRuling[],
): WorkingFinding[] {
  const { desk, registers, scale } = trace.final;
  const worked = new Map<RegisterId, RegisterRuling>();
  for (const value of values) {
    const id = rules.registerOf(trace, value.target);
    if (id !== null && !worked.has(id)) worked.set(id, value);
  }
  const share = worked.size > 0 ? outOf / worked.size : 0;
  return [...worked].map(([id, value]): WorkingFinding => {
    const { register, standsIn, endsIn } = rules.rows(trace, id);
    const lines = desk.ledger.filter((line) => standsIn.includes(line.register));
    const found = faultOf(trace, rules, register, lines, askedOf(value));
    const without = found.fault === null ? null : rules.without(trace, id);
    const isByMotion = without !== null;
    const sum = lines.findLast(({ kind }) => kind === "sum")?.counts ?? 0;
    const isEntered = Math.abs(readRegister(registers, endsIn) - sum) <= toCounts(ENTERED_WITHIN_MM, scale);
    const ofEntry = isEntered ? null : "sumNotEntered";
    const fault = isByMotion ? null : (found.fault ?? ofEntry);
    const marks = fault === null ? share : share * KEEPS[fault];
    return {
      code: "working",
      register,
      ...found,
      fault,
      isByMotion,
      ...(without ? { without } : {}),
      marks,
      outOf: share,
    };
  });
}
