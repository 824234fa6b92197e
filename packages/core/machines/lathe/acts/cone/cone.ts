import { type LatheSheet } from "../../../../exercises/setup";
import { coneTouch, tipDirection, type TipCode } from "../../../../registers/nose";
import { type LatheState } from "../../lane";
import { type EventOf } from "../../../events";
import { carve } from "../../outline";

export type Cone = NonNullable<LatheSheet["cone"]>;

/** Outward unit normal of a cone that narrows toward the face: X as a radius, Z away from the chuck. */
export function coneNormal({ angleDeg }: Cone): { x: number; z: number } {
  const angle = (angleDeg * Math.PI) / 180;
  return { x: Math.cos(angle), z: Math.sin(angle) };
}

/** Radius of the cone as it is drawn at a place along the axis, mm; `zMm` from the face, minus toward the chuck. */
export const coneRadiusMm = ({ diameterMm, atMm, angleDeg }: Cone, zMm: number): number =>
  diameterMm / 2 - (zMm - atMm) * Math.tan((angleDeg * Math.PI) / 180);

/** What a nose does: its radius, and the tip code that says where the imaginary tip lies from its center. */
export interface Nose {
  readonly noseRadiusMm: number;
  readonly tipCode: TipCode;
}

/** Center of the nose from the imaginary tip: tip − Rn·s, X as a radius. */
export function noseCenter(
  { noseRadiusMm, tipCode }: Nose,
  tip: { radiusMm: number; zMm: number },
): { radiusMm: number; zMm: number } {
  const [sx, sz] = tipDirection(tipCode);
  return { radiusMm: tip.radiusMm - noseRadiusMm * sx, zMm: tip.zMm - noseRadiusMm * sz };
}

/** The imaginary tip of a nose from its center: the inverse of `noseCenter`. */
export function noseTip(
  { noseRadiusMm, tipCode }: Nose,
  center: { radiusMm: number; zMm: number },
): { radiusMm: number; zMm: number } {
  const [sx, sz] = tipDirection(tipCode);
  return { radiusMm: center.radiusMm + noseRadiusMm * sx, zMm: center.zMm + noseRadiusMm * sz };
}

/**
 * Daylight between a nose and a cone, mm along the normal; negative when it is in it; null beside the cone. `faceMm` is
 * where the part's face stands, `offMm` how far the cone stands off where the drawing has it.
 */
export function coneGapMm(
  cone: Cone,
  offMm: number,
  faceMm: number,
  nose: Nose,
  tip: { radiusMm: number; zMm: number },
): number | null {
  const n = coneNormal(cone);
  const center = noseCenter(nose, tip);
  const across = n.x * (center.radiusMm - cone.diameterMm / 2) + n.z * (center.zMm - (faceMm + cone.atMm));
  // where the foot of the perpendicular falls along the axis
  const footMm = center.zMm - across * n.z - faceMm;
  if (footMm > 0 || footMm < cone.atMm - cone.lengthMm) return null;
  return across - offMm - nose.noseRadiusMm;
}

/**
 * What Z a tool must read where its nose lies on the cone while X reads `xDiameterMm`, mm: the cone touch's own
 * equation with Z read as 0.
 */
export function coneTouchZ(cone: Cone, { noseRadiusMm, tipCode }: Nose, xDiameterMm: number): number {
  const n = coneNormal(cone);
  const touch = coneTouch(
    noseRadiusMm,
    tipCode,
    { diameter: cone.diameterMm, z: cone.atMm, normal: [n.x, n.z] },
    [xDiameterMm, 0],
    0,
  );
  if (!touch) throw new Error(`coneTouchZ: a cone of ${cone.angleDeg}° tells no Z`);
  return touch.closureZ;
}

/** Treads of the stairs that a cone is drawn with, mm. */
const TREAD_MM = 0.5;

/** The lathe after a pass along the cone: its surface where the pass left it, and stairs along it to be drawn. */
export function withCone(
  state: LatheState,
  { tool, isHeld, looks, offMm, number, at, faceMm, cone }: EventOf<"coneRan">,
): LatheState {
  const { evidence } = state;
  const after: LatheState = {
    ...state,
    cone: { offMm, looks, isHeld },
    lastBy: { tool, axis: "z", atZ: at.z },
    isResting: false,
    evidence:
      looks === "air"
        ? evidence
        : { ...evidence, conePasses: { ...evidence.conePasses, [tool]: (evidence.conePasses[tool] ?? 0) + 1 } },
  };
  if (looks === "air") return after;
  let { outer } = state;
  for (let low = cone.atMm - cone.lengthMm; low < cone.atMm - 1e-9; low += TREAD_MM) {
    const high = Math.min(low + TREAD_MM, cone.atMm);
    outer = carve(outer, "outer", faceMm + low, faceMm + high, coneRadiusMm(cone, (low + high) / 2), number, true);
  }
  return { ...after, outer, cuts: number };
}
