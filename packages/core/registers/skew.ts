import type { Place } from "./circle";

const DEG = 180 / Math.PI;

/**
 * Angle by which a part is turned, degrees in −90…90, counter-clockwise seen from above, from two contacts on one face;
 * the radius cancels. Face along X: atan2(Δy, Δx); along Y: atan2(−Δx, Δy). The order of the contacts does not matter.
 * Null when both are the same place.
 */
export function skewFromContacts(p1: Place, p2: Place, face: "x" | "y"): number | null {
  const [dx, dy] = [p2[0] - p1[0], p2[1] - p1[1]];
  if (dx === 0 && dy === 0) return null;
  const angle = (face === "x" ? Math.atan2(dy, dx) : Math.atan2(-dx, dy)) * DEG;
  const turned = angle > 90 ? angle - 180 : angle <= -90 ? angle + 180 : angle;
  return turned === 0 ? 0 : turned;
}

export interface CornerAnswer {
  corner: [number, number];
  angle: number;
}

/**
 * Corner of a square part that may be turned: p1, p2 on the face nominally along X, p3 on the face nominally along Y,
 * all contact centers. `part` [sx, sy]: on which side of each face the part lies. Each face is its line moved by r
 * toward the part; face B is square to face A; the corner is where they meet. Null when p1 and p2 are the same place.
 */
export function cornerFromContacts(
  p1: Place,
  p2: Place,
  p3: Place,
  tipRadius: number,
  part: readonly [1 | -1, 1 | -1],
): CornerAnswer | null {
  const angle = skewFromContacts(p1, p2, "x");
  if (angle === null) return null;
  const [c, s] = [Math.cos(angle / DEG), Math.sin(angle / DEG)];
  const [sx, sy] = part;
  // in the part's own axes u = (c, s), v = (−s, c): face A is v = const, face B is u = const
  const v = -s * p1[0] + c * p1[1] + sy * tipRadius;
  const u = c * p3[0] + s * p3[1] + sx * tipRadius;
  return { corner: [u * c - v * s, u * s + v * c], angle };
}
