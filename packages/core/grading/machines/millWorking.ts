import type { MillTrace } from "../../diagnosis";
import { edgeOf, type Target } from "../../exercises";
import type { LedgerLine } from "../../lane";
import { readRegister, type RegisterId } from "../../registers";
import { toCounts } from "../../units";
import type { NoWorking, WorkingRules } from "../kit";
import { AGREE_COUNTS } from "../working";

/** X or Y of the work offset that is marked; null for any other register. */
function placeAxis(register: RegisterId): "x" | "y" | null {
  if (register === "G54.x") return "x";
  return register === "G54.y" ? "y" : null;
}

/** The register in whose line a value is worked out; what a kept setup leaves as it is wants no working. */
function registerOf({ final: { setup, registers } }: MillTrace, { kind, axis, tool }: Target): RegisterId | null {
  if (setup.partBefore) return "G54.z";
  switch (kind) {
    case "place":
      return axis === "y" ? "G54.y" : "G54.x";
    case "workZ": {
      // zero by the school is typed, and not worked out
      const isFixed = setup.lengthSchools.some((school) => school === "part-touch" || school === "block-in-wear");
      return isFixed && readRegister(registers, "G54.z") === 0 ? null : "G54.z";
    }
    case "toolSum":
    case "toolRow": {
      // the master's own row is zero and wants no working; work Z carries it
      const isMaster = setup.lengthSchools.includes("master") && readRegister(registers, `H${tool ?? 0}`) === 0;
      return isMaster ? null : `H${tool ?? 0}`;
    }
    case "diameter":
      return `D${tool ?? 0}`;
    case "turn":
    case "toolOffset":
    case "nose":
    case "tipCode":
    case "height":
    case "fit":
    case "axisHeight":
    case "gaugeError":
      return null;
  }
}

/** Whether a reading stands for something that the log knows: a contact, a touch, a place, an instrument. */
const isTaken = ({ contacts, touches, places }: MillTrace, { from, counts }: LedgerLine): boolean =>
  from !== undefined ||
  contacts.some(({ atCounts }) => Math.abs(atCounts - counts) <= AGREE_COUNTS) ||
  touches.some(({ machineZ }) => Math.abs(machineZ - counts) <= AGREE_COUNTS * 10) ||
  places.some(({ atCounts }) => Math.abs(atCounts - counts) <= AGREE_COUNTS * 10);

/** Readings of the faces on both sides of a middle lie further apart than this, mm. */
const FAR_MM = 2;

/** The last reading, or on a middle the mean of its last two on both sides, and every term. */
function expected(
  { final: { setup, scale } }: MillTrace,
  register: RegisterId,
  lines: readonly LedgerLine[],
  terms: number,
): number {
  const readings = lines.map(({ counts }) => counts);
  const last = readings.at(-1) ?? 0;
  const isMiddle =
    setup.datum.kind === "middle" && placeAxis(register) !== null && lines.every(({ from }) => from === undefined);
  const other = isMiddle ? readings.findLast((counts) => Math.abs(counts - last) > toCounts(FAR_MM, scale)) : undefined;
  const sum = (other === undefined ? last : (last + other) / 2) + terms;
  return register.startsWith("D") && setup.settings.diameterMode === "radius" ? sum / 2 : sum;
}

/** A move of the tip radius made by hand is taken as meant when it lands this near, mm. */
const MEANT_MM = 0.06;

/** The radius was entered by jogging it toward the part and capturing there: the log is the working. */
function without(trace: MillTrace, register: RegisterId): NoWorking | null {
  // what the control wrote by itself it added up by itself
  const last = trace.changes.findLast(({ event }) => event.register === register);
  if (last?.event.how === "byCycle") return "control";
  const axis = placeAxis(register);
  const edge = axis ? edgeOf(trace.final.setup, axis) : null;
  if (!axis || !edge) return null;
  const contact = trace.contacts.findLast((one) => one.axis === axis);
  const capture = trace.changes.findLast(({ event }) => event.register === register && event.how === "captured");
  if (!contact || !capture || contact.radiusMm === 0) return null;
  const { scale } = trace.final;
  const moved = capture.event.machine[axis] - contact.atCounts;
  const radius = toCounts(edge.approach * contact.radiusMm, scale);
  return Math.abs(moved - radius) <= toCounts(MEANT_MM, scale) ? "motion" : null;
}

/** Of a diameter the lines may stand under its wear, too; in one offset per tool under the tool's own work Z. */
function rows(
  { final: { setup, desk } }: MillTrace,
  register: RegisterId,
): ReturnType<WorkingRules<MillTrace>["rows"]> {
  const tool = Number(/\d+$/.exec(register)?.[0] ?? 0);
  if (register.startsWith("D")) {
    const wear: RegisterId = `DW${tool}`;
    return { register, standsIn: [register, wear], endsIn: setup.diameterSchool === "wear-comp" ? wear : register };
  }
  const place = setup.tools.findIndex(({ number }) => number === tool);
  if (!register.startsWith("H") || !setup.lengthSchools.includes("offset-per-tool") || place < 0)
    return { register, standsIn: [register], endsIn: register };
  const own = `G${54 + place}.z` as RegisterId;
  const isThere = desk.ledger.some((line) => line.register === own);
  return isThere
    ? { register: own, standsIn: [register, own], endsIn: own }
    : { register, standsIn: [register], endsIn: register };
}

export const millWorking: WorkingRules<MillTrace> = { registerOf, isTaken, expected, without, rows };
