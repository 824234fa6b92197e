import { GROWS_PER_DEGREE, partInstruments, type PartInstrument } from "../lane/partNames";
import type { FloorEntry, StoredFloorEntry } from "./entries";
import type { FloorRegister } from "./exercise";

/** Instruments that show a figure of a part beside a machine. */
export const floorPartInstruments = [
  "caliper",
  "micrometer",
  "boreGauge",
  "depthMicrometer",
  "heightGauge",
] as const satisfies readonly PartInstrument[];

/** A part is as large as its drawing has it at this temperature, °C. */
const ROOM_C = 20;
const roundTo = (mm: number): number => Math.round(mm * 1e4) / 1e4 || 0;

/** What a feature of a first part tells of its register; lengths in mm. */
export interface PartRead {
  readonly id: string;
  readonly atMs: number;
  readonly register: string;
  readonly by: (typeof floorPartInstruments)[number];
  readonly targetMm: number;
  readonly measuredMm: number;
  readonly celsius: number | null;
  /** What it would measure at 20 °C. */
  readonly coldMm: number;
  /** How far the register was off when the part was cut: what is measured moves with it one to one. */
  readonly offMm: number;
  /** What the register held then, and should have held; null where nothing was entered. */
  readonly heldMm: number | null;
  readonly wantedMm: number | null;
  readonly uMm: number;
}

type Measured = Extract<FloorEntry, { type: "partMeasured" }>;

/** A readout adds what its library holds to what it shows: larger by that, it cuts smaller. */
const signOf = (registers: readonly FloorRegister[], register: string): 1 | -1 =>
  registers.find(({ id }) => id === register)?.method === "lathe-readout" ? -1 : 1;

/** Every feature that was measured, with the value that its register held when that was entered. */
export function partReads(registers: readonly FloorRegister[], live: readonly StoredFloorEntry[]): PartRead[] {
  return live.flatMap(({ id, atMs, entry }, place): PartRead[] => {
    if (entry.type !== "partMeasured") return [];
    const before = live.slice(0, place).findLast(({ entry: one }) => isValueOf(one, entry.register));
    const heldMm = before?.entry.type === "register" ? before.entry.mm : null;
    const { register, by, targetMm, measuredMm, celsius } = entry;
    const coldMm = roundTo(coldOf(entry));
    const offMm = roundTo(signOf(registers, register) * (coldMm - targetMm));
    return [
      {
        ...{ id, atMs, register, by, targetMm, measuredMm, coldMm, offMm, heldMm },
        celsius: celsius ?? null,
        wantedMm: heldMm === null ? null : roundTo(heldMm - offMm),
        uMm: partInstruments[by].errorMm,
      },
    ];
  });
}

const isValueOf = (entry: FloorEntry, register: string): boolean =>
  entry.type === "register" && entry.register === register;

/** Steel shrinks to what it is at room temperature. */
const coldOf = ({ measuredMm, celsius = ROOM_C }: Measured): number =>
  measuredMm / (1 + GROWS_PER_DEGREE * (celsius - ROOM_C));

/** What is measured of a part for a register, with its sign. */
export type PartFeature = "middle" | "floor" | "diameter" | "shoulder";

/**
 * What of a part tells a register by itself; null where nothing does: a work Z is in every floor, beside each tool's
 * own length. A middle tells no cutter's size, a floor or shoulder is measured from a face that is right.
 */
export function partFeatureOf({ id, method }: Pick<FloorRegister, "id" | "method">): PartFeature | null {
  if (id.startsWith("G5") && id.endsWith(".z")) return null;
  if (method === "mill-edge") return "middle";
  if (method === "mill-length") return "floor";
  if (method === "lathe-x") return "diameter";
  if (method === "lathe-z") return "shoulder";
  if (method !== "lathe-readout") return null;
  return id.endsWith(".x") ? "diameter" : "shoulder";
}
