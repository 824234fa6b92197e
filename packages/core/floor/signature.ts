import { combineChecks, type CheckReading } from "./checks";
import type { FloorExercise } from "./exercise";
import { lateMinutes, type FloorEntry, type StoredFloorEntry } from "./entries";

/** What a signature is of: everything that a student has entered of the setup, and the checks of it. */
const BINDING: ReadonlySet<FloorEntry["type"]> = new Set([
  "reading",
  "term",
  "sum",
  "register",
  "check",
  "judgedWithin",
]);
/** What the signer enters: more of it takes no signature back. */
const CHECKS: ReadonlySet<FloorEntry["type"]> = new Set(["check", "judgedWithin"]);

/** How the signature of a floor lane stands. It is of exactly the entries that the signer saw. */
export type FloorSignature =
  | { readonly state: "none" }
  | {
      readonly state: "given";
      readonly by: string;
      readonly atMs: number;
      /** How many entries were signed. */
      readonly entries: number;
      /** Why it was signed though a value is outside its tolerance. */
      readonly reason: string | null;
    }
  /** By itself: something was entered or struck after it. By hand: by whoever signs. */
  | { readonly state: "withdrawn"; readonly by: string; readonly atMs: number; readonly changed: readonly string[] }
  | { readonly state: "sentBack"; readonly by: string; readonly atMs: number; readonly word: string };

type Live = readonly StoredFloorEntry[];

/** The entries that a signature of this lane would be of now, by their ids. */
export const bindingIds = (live: Live): string[] =>
  live.flatMap(({ id, entry }) => (BINDING.has(entry.type) ? [id] : []));

const KINDS: Partial<Record<FloorEntry["type"], string>> = {
  reading: "a reading",
  term: "a term",
  sum: "the sum",
  register: "the value in the control",
  check: "a check",
  judgedWithin: "a check",
};

/** What an entry is about, by the name of its register. */
function named({ registers }: FloorExercise, { entry }: StoredFloorEntry): string {
  const register = "register" in entry ? registers.find(({ id }) => id === entry.register) : undefined;
  return `${KINDS[entry.type] ?? "an entry"} of ${register?.label ?? "the setup"}`;
}

/** What waited on a device without a link was made before it is seen. */
function lateWords(one: StoredFloorEntry): string {
  const minutes = lateMinutes(one);
  return minutes === null ? "" : ` (on the device ${minutes} minutes before it came)`;
}

/**
 * How the signature stands by all entries of a lane, `all`, and by those that are not struck, `live`, both in their
 * order. What the student enters or strikes takes it back, and a check that is struck; once a lane is handed in,
 * nothing that becomes of its checks does.
 */
export function signatureOf(exercise: FloorExercise, all: Live, live: Live): FloorSignature {
  const last = live.findLast(
    ({ entry: { type } }) => type === "signedOff" || type === "signatureWithdrawn" || type === "sentBack",
  );
  if (!last) return { state: "none" };
  const { entry, by, atMs } = last;
  if (entry.type === "sentBack") return { state: "sentBack", by, atMs, word: entry.word };
  if (entry.type !== "signedOff") return { state: "withdrawn", by, atMs, changed: [] };
  const isHandedIn = live.some((one) => one.entry.type === "handedIn");
  const counts = (one: StoredFloorEntry) => BINDING.has(one.entry.type) && !(isHandedIn && CHECKS.has(one.entry.type));
  // signatures of before their entries were named are of what was there when they were given
  const saw = new Set(entry.saw ?? bindingIds(live.filter((one) => one.atMs <= atMs)));
  // a check more, of the first part for one, is the signer's own
  const added = live.filter((one) => counts(one) && !CHECKS.has(one.entry.type) && !saw.has(one.id));
  const gone = all.filter((one) => counts(one) && saw.has(one.id) && !live.includes(one));
  const changed = [
    ...added.map((one) => `${named(exercise, one)} was entered${lateWords(one)}`),
    ...gone.map((one) => `${named(exercise, one)} was struck`),
  ];
  if (changed.length > 0) return { state: "withdrawn", by, atMs, changed: [...new Set(changed)] };
  return { state: "given", by, atMs, entries: saw.size, reason: entry.reason ?? null };
}

/** What stands in the way of signing a setup, or has to be said with it; nothing where it may be signed as it is. */
export type SigningProblem = "notChecked" | "checksDisagree" | "checkTooCoarse" | "reasonWanted";

/** What of a lane is looked at before it is signed. */
interface Signable {
  readonly exercise: FloorExercise;
  readonly checks: readonly (CheckReading & { readonly register: string })[];
  readonly judged: readonly { readonly register: string; readonly mm: number }[];
  readonly registers: Readonly<Record<string, { readonly mm: number }>>;
}

/** Values nearer to one another than this are one figure in the control, mm. */
const SAME_MM = 0.0005;

/** Whether the value that stands in the control now was judged to be within its tolerance. */
export function isJudgedWithin({ judged, registers }: Pick<Signable, "judged" | "registers">, id: string): boolean {
  const held = registers[id];
  return held !== undefined && judged.some(({ register, mm }) => register === id && Math.abs(mm - held.mm) < SAME_MM);
}

/** Registers with what stands in the way of signing them, worst first; a reason is wanted beside the last kind. */
export function signingProblems(state: Signable): { readonly label: string; readonly problem: SigningProblem }[] {
  const found = state.exercise.registers.flatMap(({ id, label, toleranceMm }) => {
    const check = combineChecks(state.checks.filter((one) => one.register === id));
    const held = state.registers[id];
    const problem = (): SigningProblem | null => {
      if (!check) return isJudgedWithin(state, id) ? null : "notChecked";
      if (!held) return "notChecked";
      if (check.outliers.length > 0) return "checksDisagree";
      if (check.expandedMm > toleranceMm) return "checkTooCoarse";
      return Math.abs(held.mm - check.mm) > toleranceMm ? "reasonWanted" : null;
    };
    const own = problem();
    return own === null ? [] : [{ label, problem: own }];
  });
  const order: readonly SigningProblem[] = ["notChecked", "checksDisagree", "checkTooCoarse", "reasonWanted"];
  return found.sort((a, b) => order.indexOf(a.problem) - order.indexOf(b.problem));
}

/** The first letters of a name: "Corin Marrow" is CM. */
export const initialsOf = (name: string): string =>
  name
    .split(/[\s-]+/)
    .map((word) => word.charAt(0).toUpperCase())
    .join("")
    .slice(0, 4);
