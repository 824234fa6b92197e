import type { FloorEntry, StoredFloorEntry } from "./entries";
import { readingsWanted, type FloorExercise } from "./exercise";
import { partReads, type PartRead } from "./part";
import { bindingIds, signatureOf, type FloorSignature } from "./signature";

type Of<T extends FloorEntry["type"]> = Extract<FloorEntry, { type: T }> & {
  readonly id: string;
  readonly atMs: number;
  readonly receivedAtMs?: number;
  readonly by: string;
};

export interface FloorState {
  readonly exercise: FloorExercise;
  readonly hasReadCautions: boolean;
  readonly cautionsReadAtMs: number | null;
  readonly readings: readonly Of<"reading">[];
  readonly terms: readonly Of<"term">[];
  readonly sums: Readonly<Record<string, Of<"sum">>>;
  readonly registers: Readonly<Record<string, Of<"register">>>;
  readonly checks: readonly Of<"check">[];
  readonly judged: readonly Of<"judgedWithin">[];
  readonly signature: FloorSignature;
  /** The entries that a signature would be of now, by id. */
  readonly binding: readonly string[];
  readonly safety: readonly Of<"safetyNoted">[];
  readonly override: Of<"overridden"> | null;
  readonly handedIn: Of<"handedIn"> | null;
  /** What the first part tells, feature by feature. */
  readonly parts: readonly PartRead[];
  readonly notes: readonly Of<"note">[];
  /** A hand is up at the machine, and since when. */
  readonly handUpAtMs: number | null;
}

/** Since when a hand is up; null where it is down, was answered, or the lane is handed in. */
function handUpAtMs(live: readonly StoredFloorEntry[]): number | null {
  const last = live.findLast(({ entry: { type } }) => HANDS.has(type));
  return last?.entry.type === "handRaised" ? last.atMs : null;
}
const HANDS: ReadonlySet<FloorEntry["type"]> = new Set(["handRaised", "handLowered", "handAnswered", "handedIn"]);

/**
 * The lane after its entries: struck ones left out, the newest sum and register of each kept. Pure; any order of
 * arrival folds alike by time.
 */
export function foldFloor(exercise: FloorExercise, entries: readonly StoredFloorEntry[]): FloorState {
  const ordered = [...entries].sort((a, b) => a.atMs - b.atMs || a.id.localeCompare(b.id));
  const struck = new Set(ordered.flatMap(({ entry }) => (entry.type === "struck" ? [entry.entry] : [])));
  const live = ordered.filter(({ id }) => !struck.has(id));
  const all = <T extends FloorEntry["type"]>(type: T): Of<T>[] =>
    live.flatMap(({ entry, ...held }) => (entry.type === type ? [{ ...entry, ...held } as unknown as Of<T>] : []));
  const newest = <T extends { register: string }>(rows: readonly T[]): Record<string, T> =>
    Object.fromEntries(rows.map((one) => [one.register, one]));
  return {
    exercise,
    hasReadCautions: all("cautionsRead").length > 0,
    cautionsReadAtMs: all("cautionsRead")[0]?.atMs ?? null,
    parts: partReads(exercise.registers, live),
    notes: all("note"),
    readings: all("reading"),
    terms: all("term"),
    sums: newest(all("sum")),
    registers: newest(all("register")),
    checks: all("check"),
    judged: all("judgedWithin"),
    signature: signatureOf(exercise, ordered, live),
    binding: bindingIds(live),
    safety: all("safetyNoted"),
    override: all("overridden").at(-1) ?? null,
    handedIn: all("handedIn")[0] ?? null,
    handUpAtMs: handUpAtMs(live),
  };
}

export const floorGateNames = ["ready", "readings", "registers", "check", "signOff", "handIn"] as const;
export type FloorGateName = (typeof floorGateNames)[number];

const PASSED: Record<FloorGateName, (state: FloorState) => boolean> = {
  ready: ({ hasReadCautions }) => hasReadCautions,
  readings: ({ exercise, readings }) =>
    exercise.registers.every(
      (register) => readings.filter((one) => one.register === register.id).length >= readingsWanted(exercise, register),
    ),
  registers: ({ exercise, registers }) => exercise.registers.every(({ id }) => registers[id] !== undefined),
  check: ({ exercise, checks, judged }) =>
    exercise.registers.every(({ id }) => [...checks, ...judged].some((one) => one.register === id)),
  signOff: ({ signature }) => signature.state === "given",
  handIn: ({ handedIn }) => handedIn !== null,
};

/** Gates in the shop's order; open by what was entered, never by whether it is right. */
export const floorGatesOf = (state: FloorState): { name: FloorGateName; isPassed: boolean }[] =>
  floorGateNames.map((name) => ({ name, isPassed: PASSED[name](state) }));
