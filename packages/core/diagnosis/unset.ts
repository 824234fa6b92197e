import { readRegister, type RegisterId } from "../registers";
import type { LaneBase } from "../lane/state";
import type { Counts } from "../units";
import { wholeTerm, type Provenance } from "./cause";
import { AGREE_COUNTS } from "./figures";
import { setOf, type Set } from "./standing";
import type { ChangePlace } from "./lineage";
import type { LoggedEvent } from "./trace";

interface Unset<S extends LaneBase> extends Set<S> {
  readonly changes: readonly ChangePlace<S>[];
  readonly log: readonly LoggedEvent[];
}

/**
 * A value whose registers hold nothing that was found: set in another register, set and taken back, or never set.
 * `values` are what it would have been by the contacts that the log has, counts.
 */
export function unset<S extends LaneBase>(
  trace: Unset<S>,
  registers: readonly RegisterId[],
  closureMm: number,
  values: readonly Counts[] = [],
): Provenance {
  const { set, final, changes, log } = trace;
  const elsewhere = [...set.keys()].find(
    (register) =>
      !registers.includes(register) &&
      setOf(trace, register) !== null &&
      values.some((value) => value !== 0 && Math.abs(readRegister(final.registers, register) - value) <= AGREE_COUNTS),
  );
  if (elsewhere) {
    const seq = changes.findLast(({ event }) => event.register === elsewhere)?.seq ?? 0;
    return wholeTerm("otherRegister", closureMm, seq, elsewhere);
  }
  const taken = changes.findLast(({ event }) => registers.includes(event.register) && event.how === "undone");
  return taken ? wholeTerm("takenBack", closureMm, taken.seq) : wholeTerm("neverSet", closureMm, log.at(-1)?.seq ?? 0);
}
