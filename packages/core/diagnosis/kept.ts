import type { RegisterId } from "../registers";
import type { Provenance } from "./cause";
import type { LaneTrace } from "./trace";

/** Whether registers stand as a kept setup had them: taken back, and none of them set after that. */
export function standsAsKept({ changes }: Pick<LaneTrace, "changes">, registers: readonly RegisterId[]): boolean {
  const last = registers.flatMap((register) => changes.findLast(({ event }) => event.register === register) ?? []);
  return last.length > 0 && last.every(({ event }) => event.how === "takenBack");
}

/** Where registers that stand as they were kept came from: what has changed since puts them off, and nothing else. */
export function keptProvenance(
  trace: Pick<LaneTrace, "changes" | "final">,
  registers: readonly RegisterId[],
  closureMm: number,
): Provenance | null {
  if (!standsAsKept(trace, registers)) return null;
  const seq = trace.changes.findLast(({ event }) => event.how === "takenBack")?.seq ?? 1;
  const offs = (trace.final.truth.keptChanges ?? []).flatMap(({ offs: each }) => each);
  const terms = offs.flatMap(({ register, mm }) =>
    registers.includes(register) ? [{ id: "keptChanged" as const, mm, seq }] : [],
  );
  return { contact: null, terms, open: null, ownMm: closureMm - terms.reduce((sum, { mm }) => sum + mm, 0) };
}
