import { type AxisCounts } from "../../registers/mill";
import { seenOutline, seenTip, type SeenStep } from "./eye";
import { isInside, toolAt } from "./contact";
import { type TurningLane } from "./lane";
import { type HalfSection } from "./partPicture";

/** This near to where metal was taken away, an eye does not tell which side it is on, mm. */
const NEAR_MM = 1;
/** A radius that differs by less from what stood there before was not cut, mm. */
const CUT_MM = 0.05;

const radiusIn = (steps: readonly SeenStep[], z: number): number =>
  steps.find(({ fromMm, toMm }) => z >= fromMm && z <= toMm)?.radiusMm ?? 0;

/**
 * Whether the tip stands within the bar as it was, where metal is gone; going straight out of it, away from the axis
 * (a boring tool: toward it) or from the chuck, leaves it.
 */
export function isInCut(from: AxisCounts, state: TurningLane, { fromMm, stepMm, outer, bore }: HalfSection): boolean {
  const { position } = state;
  const tool = toolAt(state);
  const isBoring = isInside(tool);
  // a blade reaches beyond the edge that is set, to either side for a tool that may stand turned round
  const reachMm = NEAR_MM + (tool.bladeMm ?? 0);
  const outward = (position.x - from.x) * (isBoring ? -1 : 1);
  if ((position.z === from.z && outward >= 0) || (position.x === from.x && position.z >= from.z)) return false;
  const { radiusMm, zMm } = seenTip(state);
  const before = seenOutline(state);
  return outer.some((left, at) => {
    const z = fromMm + (at + 0.5) * stepMm;
    if (Math.abs(z - zMm) > reachMm) return false;
    const [skin, wall] = [radiusIn(before.outer, z), radiusIn(before.bore, z)];
    if (isBoring) return (bore[at] ?? 0) > wall + CUT_MM && radiusMm > wall - NEAR_MM;
    return left < skin - CUT_MM && radiusMm < skin + NEAR_MM;
  });
}
