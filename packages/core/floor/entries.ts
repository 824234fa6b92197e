import { z } from "zod";
import { termNames } from "../lane";

const mm = z.number().min(-10_000).max(10_000);
const register = z.string().min(1).max(12);

/** More entries than any setup has. */
const MOST_SIGNED = 2000;

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
  /** A hand up at the machine, taken down again, or answered by whoever came. */
  z.strictObject({ type: z.literal("handRaised") }),
  z.strictObject({ type: z.literal("handLowered") }),
  z.strictObject({ type: z.literal("handAnswered") }),
  /** A feature of the first part: where it stands or how large it is, with its sign, against what is wanted. */
  z.strictObject({
    type: z.literal("partMeasured"),
    register,
    by: z.enum(["caliper", "micrometer", "boreGauge", "depthMicrometer", "heightGauge"]),
    targetMm: mm,
    measuredMm: mm,
    celsius: z.number().min(-20).max(150).optional(),
  }),
  z.strictObject({ type: z.literal("note"), text: z.string().trim().min(3).max(400) }),
  z.strictObject({
    type: z.literal("check"),
    register,
    method: z.string().trim().min(2).max(40),
    mm,
    uMm: z.number().positive().max(1),
  }),
  /** By a touch of one's own: the value that stands in the control is within its tolerance; no figure is known. */
  z.strictObject({ type: z.literal("judgedWithin"), register, mm }),
  /** Of exactly the entries that the signer saw; why, where a value is outside its tolerance. Initials of old ones. */
  z.strictObject({
    type: z.literal("signedOff"),
    saw: z.array(z.uuid()).max(MOST_SIGNED).optional(),
    reason: z.string().trim().min(5).max(300).optional(),
    initials: z.string().trim().min(1).max(6).optional(),
  }),
  z.strictObject({ type: z.literal("signatureWithdrawn") }),
  z.strictObject({ type: z.literal("sentBack"), word: z.string().trim().min(3).max(300) }),
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
  "judgedWithin",
  "signedOff",
  "signatureWithdrawn",
  "sentBack",
  "safetyNoted",
  "overridden",
  "handAnswered",
]);

/** What stands on a worksheet, and may be typed in from it for the student. */
export const paperEntryTypes: ReadonlySet<FloorEntry["type"]> = new Set([
  "cautionsRead",
  "reading",
  "term",
  "sum",
  "register",
  "struck",
  "handedIn",
]);

/** Those of them that somebody enters who only helps. */
export const assistantEntryTypes: ReadonlySet<FloorEntry["type"]> = new Set(["check", "judgedWithin", "handAnswered"]);

export interface StoredFloorEntry {
  readonly id: string;
  readonly atMs: number;
  /** When the server had it; left out by a device that has not sent it yet. */
  readonly receivedAtMs?: number;
  readonly by: string;
  /** Typed in from the student's worksheet by whoever teaches. */
  readonly isFromPaper?: true;
  readonly entry: FloorEntry;
}

/** What comes this long after it was made waited on a device, ms. */
const LATE_MS = 2 * 60_000;
const MINUTE_MS = 60_000;

/** How many minutes after it was made an entry came, where that is worth saying; null where it came at once. */
export function lateMinutes({ atMs, receivedAtMs }: Pick<StoredFloorEntry, "atMs" | "receivedAtMs">): number | null {
  const lateMs = (receivedAtMs ?? atMs) - atMs;
  return lateMs < LATE_MS ? null : Math.round(lateMs / MINUTE_MS);
}
