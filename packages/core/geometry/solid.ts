import { advance } from "../motion/advance";
import type { BoxMm, PointMm, UprightCylinder } from "./contact";

/**
 * What stands on the table: an outline seen from above between two heights, perhaps with an opening from the top.
 * Machine frame, mm.
 */
export interface Solid {
  readonly plan: PlanOutline;
  readonly lowZ: number;
  readonly highZ: number;
  readonly hole?: Opening | undefined;
}
/** A round or rectangular opening; a rectangular one lies as the outline round it lies. */
export type Opening =
  | { readonly kind: "round"; readonly x: number; readonly y: number; readonly radiusMm: number }
  | { readonly kind: "rect"; readonly x: number; readonly y: number; readonly halfX: number; readonly halfY: number };
export type PlanOutline =
  | {
      readonly kind: "rect";
      readonly x: number;
      readonly y: number;
      readonly halfX: number;
      readonly halfY: number;
      readonly angleDeg: number;
    }
  | { readonly kind: "disc"; readonly x: number; readonly y: number; readonly radiusMm: number };

const RAD = Math.PI / 180;

/** A place turned counter-clockwise by an angle about (0, 0). */
export function turned(x: number, y: number, angleDeg: number): { x: number; y: number } {
  const [c, s] = [Math.cos(angleDeg * RAD), Math.sin(angleDeg * RAD)];
  return { x: c * x - s * y, y: s * x + c * y };
}

/** Distance from (x, y) to the outline, below zero inside; a hole's wall counts from within the hole. */
export function planGap({ plan, hole }: Solid, x: number, y: number): number {
  let outside: number;
  if (plan.kind === "disc") outside = Math.hypot(x - plan.x, y - plan.y) - plan.radiusMm;
  else {
    const at = plan.angleDeg === 0 ? { x: x - plan.x, y: y - plan.y } : turned(x - plan.x, y - plan.y, -plan.angleDeg);
    const dx = Math.abs(at.x) - plan.halfX;
    const dy = Math.abs(at.y) - plan.halfY;
    outside = dx > 0 && dy > 0 ? Math.hypot(dx, dy) : Math.max(dx, dy);
  }
  return hole ? Math.max(outside, wallGap(hole, plan.kind === "rect" ? plan.angleDeg : 0, x, y)) : outside;
}

/** Distance to the wall of an opening from within it; below zero in the material round it. */
function wallGap(hole: Opening, angleDeg: number, x: number, y: number): number {
  if (hole.kind === "round") return hole.radiusMm - Math.hypot(x - hole.x, y - hole.y);
  const at = turned(x - hole.x, y - hole.y, -angleDeg);
  return Math.min(hole.halfX - Math.abs(at.x), hole.halfY - Math.abs(at.y));
}

/**
 * How far an upright cylinder (tip at `tip`) stands from the solid; below zero it stands in it. Changes no faster than
 * the tip moves.
 */
export function solidGap(solid: Solid, tip: PointMm, { radiusMm, fromMm, toMm }: UprightCylinder): number {
  return Math.max(planGap(solid, tip.x, tip.y) - radiusMm, tip.z + fromMm - solid.highZ, solid.lowZ - (tip.z + toMm));
}

/** The smallest axis-parallel box round the solid. */
export function boxOf({ plan, lowZ, highZ }: Solid): BoxMm {
  const reach = (): [number, number] => {
    if (plan.kind === "disc") return [plan.radiusMm, plan.radiusMm];
    const [c, s] = [Math.abs(Math.cos(plan.angleDeg * RAD)), Math.abs(Math.sin(plan.angleDeg * RAD))];
    return [c * plan.halfX + s * plan.halfY, s * plan.halfX + c * plan.halfY];
  };
  const [rx, ry] = reach();
  return { low: { x: plan.x - rx, y: plan.y - ry, z: lowZ }, high: { x: plan.x + rx, y: plan.y + ry, z: highZ } };
}

/**
 * How far along a straight move of the tip (0 start, 1 end) the cylinder first enters the solid; null when it stays
 * out. The gap never changes faster than the tip moves, as `advance` asks.
 */
export function firstContact(from: PointMm, to: PointMm, cylinder: UprightCylinder, solid: Solid): number | null {
  const length = Math.hypot(to.x - from.x, to.y - from.y, to.z - from.z);
  return advance(length, (t) =>
    solidGap(
      solid,
      { x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t, z: from.z + (to.z - from.z) * t },
      cylinder,
    ),
  );
}
