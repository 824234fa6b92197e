/** Direction from the nose center to the imaginary tip, in nose radii; X as a radius. domain: tip codes 0 to 9. */
const TIPS: readonly (readonly [number, number])[] = [
  [0, 0],
  [1, 1],
  [1, -1],
  [-1, -1],
  [-1, 1],
  [0, 1],
  [1, 0],
  [0, -1],
  [-1, 0],
  [0, 0],
];
export const tipCodes = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9] as const;
export type TipCode = (typeof tipCodes)[number];

/** Where the imaginary tip stands from the nose center, in nose radii: (x as a radius, z). */
export const tipDirection = (code: TipCode): readonly [number, number] => TIPS[code] ?? [0, 0];

type Direction = readonly [number, number];

function unit([x, z]: Direction): Direction | null {
  const length = Math.hypot(x, z);
  return length > 0 ? [x / length, z / length] : null;
}

export interface NoseResidueAnswer {
  normal: number;
  alongX: number | null;
  alongZ: number | null;
}

/**
 * Material that an uncompensated nose leaves on a surface of outward normal n: `Rn(−s·n − 1)`, > 0 left, < 0 overcut;
 * along X (a radius) and Z signed, null where the surface has no such component. Null without a direction. One length
 * unit.
 */
export function noseResidue(noseRadius: number, code: TipCode, normal: Direction): NoseResidueAnswer | null {
  const n = unit(normal);
  if (!n) return null;
  const [sx, sz] = tipDirection(code);
  const left = noseRadius * (-(sx * n[0] + sz * n[1]) - 1);
  // a negative zero would print as one
  const tidy = (value: number) => (Math.abs(value) < 1e-15 ? 0 : value);
  return {
    normal: tidy(left),
    alongX: n[0] === 0 ? null : tidy(left / n[0]),
    alongZ: n[1] === 0 ? null : tidy(left / n[1]),
  };
}

/**
 * How far the imaginary tip of a hand-calculated path must go further into the material on a taper of this angle to the
 * Z axis: `Δz = Rn(1 − tan(θ/2))`, `Δx = 2Rn(1 − tan((90 − θ)/2))` as a diameter. Degrees, 0 < θ < 90.
 */
export function taperShift(noseRadius: number, angleDeg: number): { dz: number; dxDiameter: number } {
  const half = (deg: number) => Math.tan((deg * Math.PI) / 360);
  return { dz: noseRadius * (1 - half(angleDeg)), dxDiameter: 2 * noseRadius * (1 - half(90 - angleDeg)) };
}

export interface Cone {
  readonly diameter: number;
  readonly z: number;
  readonly normal: Direction;
}

/**
 * Closure in Z of a tool whose X is right, from the display where its nose touches a known cone:
 * `[Rn(1 + n·s) − nx(xd − x0)/2]/nz − (zd − z0)`; the new geometry is the old less that. Null for a cylinder, which
 * tells no Z. Diameters for X, one length unit.
 */
export function coneTouch(
  noseRadius: number,
  code: TipCode,
  cone: Cone,
  display: readonly [number, number],
  geometryZ: number,
): { closureZ: number; newGeometryZ: number } | null {
  const n = unit(cone.normal);
  if (!n || Math.abs(n[1]) < 1e-9) return null;
  const [sx, sz] = tipDirection(code);
  const closureZ =
    (noseRadius * (1 + n[0] * sx + n[1] * sz) - (n[0] * (display[0] - cone.diameter)) / 2) / n[1] -
    (display[1] - cone.z);
  return { closureZ, newGeometryZ: geometryZ - closureZ };
}

/**
 * Steepest falling slope that the trailing edge clears, degrees: `180 − κ − ε`; zero or less, none. A few degrees less
 * in practice.
 */
export const steepestFallDeg = (leadDeg: number, noseDeg: number): number => 180 - leadDeg - noseDeg;
