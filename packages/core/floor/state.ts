import { z } from "zod";
import { termNames } from "../lane";
import type { FloorExercise } from "./exercise";

const mm = z.number().min(-10_000).max(10_000);
const register = z.string().min(1).max(12);

/**
 * Facts of a floor lane. Each has an id of its own, so that one sent twice is there once, and order of arrival does not
 * matter.
 */
export const entrySchema = z.discriminatedUnion("type", [
  z.strictObject({ type: z.literal("cautionsRead") }),
  z.strictObject({ type: z.literal("reading"), register, mm }),
  z.strictObject({ type: z.literal("term"), register, term: z.enum(termNames), mm }),
  z.strictObject({ type: z.literal("sum"), register, mm }),
  z.strictObject({ type: z.literal("register"), register, mm }),
  z.strictObject({ type: z.literal("struck"), entry: z.uuid() }),
  z.strictObject({ type: z.literal("handedIn") }),
  z.strictObject({ type: z.literal("note"), text: z.string().trim().min(3).max(400) }),
  z.strictObject({
    type: z.literal("check"),
    register,
    method: z.string().trim().min(2).max(40),
    mm,
    uMm: z.number().positive().max(1),
  }),
  z.strictObject({ type: z.literal("signedOff"), initials: z.string().trim().min(1).max(6) }),
  z.strictObject({
    type: z.literal("safetyNoted"),
    text: z.string().trim().min(3).max(200),
    cost: z.number().min(0).max(15),
  }),
  z.strictObject({
    type: z.literal("overridden"),
    marks: z.number().min(0).max(100),
    reason: z.string().trim().min(5).max(300),
  }),
]);
export type FloorEntry = z.infer<typeof entrySchema>;
export const instructorEntryTypes: ReadonlySet<FloorEntry["type"]> = new Set([
  "check",
  "signedOff",
  "safetyNoted",
  "overridden",
]);

export interface StoredFloorEntry {
  readonly id: string;
  readonly atMs: number;
  readonly by: string;
  readonly entry: FloorEntry;
}
type Of<T extends FloorEntry["type"]> = Extract<FloorEntry, { type: T }> & {
  readonly id: string;
  readonly atMs: number;
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
  readonly signOff: Of<"signedOff"> | null;
  readonly safety: readonly Of<"safetyNoted">[];
  readonly override: Of<"overridden"> | null;
  readonly handedIn: Of<"handedIn"> | null;
  readonly notes: readonly Of<"note">[];
}

/**
 * The lane after its entries: struck ones left out, the newest sum and register of each kept. Pure; any order of
 * arrival folds alike by time.
 */
export function foldFloor(exercise: FloorExercise, entries: readonly StoredFloorEntry[]): FloorState {
  const ordered = [...entries].sort((a, b) => a.atMs - b.atMs || a.id.localeCompare(b.id));
  const struck = new Set(ordered.flatMap(({ entry }) => (entry.type === "struck" ? [entry.entry] : [])));
  const live = ordered.filter(({ id }) => !struck.has(id));
  const all = <T extends FloorEntry["type"]>(type: T): Of<T>[] =>
    live.flatMap(({ entry, id, atMs, by }) =>
      entry.type === type ? [{ ...entry, id, atMs, by } as unknown as Of<T>] : [],
    );
  const newest = <T extends { register: string }>(rows: readonly T[]): Record<string, T> =>
    Object.fromEntries(rows.map((one) => [one.register, one]));
  return {
    exercise,
    hasReadCautions: all("cautionsRead").length > 0,
    cautionsReadAtMs: all("cautionsRead")[0]?.atMs ?? null,
    notes: all("note"),
    readings: all("reading"),
    terms: all("term"),
    sums: newest(all("sum")),
    registers: newest(all("register")),
    checks: all("check"),
    signOff: all("signedOff").at(-1) ?? null,
    safety: all("safetyNoted"),
    override: all("overridden").at(-1) ?? null,
    handedIn: all("handedIn")[0] ?? null,
  };
}

export const floorGateNames = ["ready", "readings", "registers", "check", "signOff", "handIn"] as const;
export type FloorGateName = (typeof floorGateNames)[number];

const PASSED: Record<FloorGateName, (state: FloorState) => boolean> = {
  ready: ({ hasReadCautions }) => hasReadCautions,
  readings: ({ exercise, readings }) =>
    exercise.registers.every(
      ({ id, method }) =>
        method === "lathe-nose" ||
        method === "lathe-tip" ||
        readings.filter((one) => one.register === id).length >= exercise.readingsNeeded,
    ),
  registers: ({ exercise, registers }) => exercise.registers.every(({ id }) => registers[id] !== undefined),
  check: ({ exercise, checks }) => exercise.registers.every(({ id }) => checks.some((one) => one.register === id)),
  signOff: ({ signOff }) => signOff !== null,
  handIn: ({ handedIn }) => handedIn !== null,
};

/** Gates in the shop's order; open by what was entered, never by whether it is right. */
export const floorGatesOf = (state: FloorState): { name: FloorGateName; isPassed: boolean }[] =>
  floorGateNames.map((name) => ({ name, isPassed: PASSED[name](state) }));
