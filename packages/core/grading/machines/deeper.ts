import type { LaneTrace } from "../../diagnosis";
import type { Deeper, RegisterRuling } from "../values";

/**
 * Of a mill: what the registers of a tool come to along Z, too low by so much, sends it so much deeper. Where each row
 * is a value of its own, the work Z that all of them share comes to it.
 */
export function deeperOnMill(values: readonly RegisterRuling[]): Deeper[] {
  const sharedMm = values.find(({ target }) => target.kind === "workZ")?.closureMm ?? 0;
  return values.flatMap(({ target: { kind, tool }, closureMm }) => {
    if (tool === null || (kind !== "toolSum" && kind !== "toolRow")) return [];
    return [{ tool, mm: -(closureMm + (kind === "toolRow" ? sharedMm : 0)) }];
  });
}

/**
 * Of a lathe: an offset that is too low sends the tool so much nearer to the chuck, or to the axis by half of it; a bar
 * in a bore goes into its wall by what is too high. The deeper of both.
 */
export function deeperOnLathe(
  { final }: Exclude<LaneTrace, { kind: "mill" }>,
  values: readonly RegisterRuling[],
): Deeper[] {
  return final.setup.lathe.tools.flatMap(({ number, kind }) => {
    const off = values.flatMap(({ target, closureMm }) => {
      if (target.kind !== "toolOffset" || target.tool !== number) return [];
      if (target.axis === "z") return [-closureMm];
      return [(kind === "boring" ? closureMm : -closureMm) / 2];
    });
    return off.length === 0 ? [] : [{ tool: number, mm: Math.max(...off) }];
  });
}
