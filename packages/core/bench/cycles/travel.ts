import { surfaces, type Surface } from "../../exercises";
import { firstContact, type PointMm, type UprightCylinder } from "../../geometry";
import type { AxisCounts } from "../../registers";
import { toCounts } from "../../units";
import { quickContact, strike } from "../contact";
import type { Draft } from "../draft";
import { trueScene } from "../solids";
import type { LaneState } from "../state";

/** Machine counts of a place of the gauge point, mm. */
export const countsOf = ({ scale }: LaneState, at: PointMm): AxisCounts => ({
  x: toCounts(at.x, scale),
  y: toCounts(at.y, scale),
  z: toCounts(at.z, scale),
});

/**
 * A positioning move inside a cycle. True when it arrived; what stands in the way is driven into, because a cycle
 * believes the figures it was given.
 */
export function positionTo(draft: Draft, to: AxisCounts): boolean {
  const hit = quickContact(draft.state, draft.state.position, to);
  draft.emit({ type: "moved", to: hit?.at ?? to, isRapid: true });
  if (!hit) return true;
  strike(draft, hit.on);
  return false;
}

/** How far along a slow move a part of what is held first meets anything, 0…1, and what; null when it meets nothing. */
export function meets(
  state: LaneState,
  from: PointMm,
  to: PointMm,
  part: UprightCylinder,
): { t: number; on: Surface } | null {
  const scene = trueScene(state);
  let first: { t: number; on: Surface } | null = null;
  for (const on of surfaces) {
    const solid = scene[on];
    if (!solid) continue;
    const t = firstContact(from, to, part, solid);
    if (t !== null && (first === null || t < first.t)) first = { t, on };
  }
  return first;
}
