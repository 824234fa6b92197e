export type Place = readonly [number, number];
export interface CircleAnswer {
  center: [number, number];
  diameter: number;
  rms: number;
}

const STEPS = 100;
const SETTLED = 1e-13;
/** Contacts whose spread across their best line is below this share of their length say nothing about a center. */
const LINE_SHARE = 1e-9;

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;

/**
 * Algebraic circle (least squares on x² + y²), the start of the geometric fit; null when the points lie on one line.
 */
function algebraicCenter(points: readonly Place[]): [number, number] | null {
  const [mx, my] = [mean(points.map(([x]) => x)), mean(points.map(([, y]) => y))];
  let [xx, xy, yy, xr, yr] = [0, 0, 0, 0, 0];
  for (const [px, py] of points) {
    const [x, y] = [px - mx, py - my];
    const r = x * x + y * y;
    xx += x * x;
    xy += x * y;
    yy += y * y;
    xr += x * r;
    yr += y * r;
  }
  const det = xx * yy - xy * xy;
  if (det <= LINE_SHARE * (xx + yy) ** 2) return null;
  return [mx + (xr * yy - yr * xy) / (2 * det), my + (yr * xx - xr * xy) / (2 * det)];
}

/**
 * Center and size of a bore or boss from n ≥ 3 contact centers: the circle with the least sum of squared radial
 * residuals (Gauss and Newton's steps from the algebraic circle). Any length unit. Bore: 2R + 2r, boss: 2R − 2r; rms of
 * the residuals. Null for fewer than three contacts, contacts on one line, or a boss smaller than the tip.
 */
export function circleFromContacts(
  points: readonly Place[],
  tipRadius: number,
  kind: "bore" | "boss",
): CircleAnswer | null {
  if (points.length < 3) return null;
  const start = algebraicCenter(points);
  if (!start) return null;
  let [cx, cy] = start;
  let radius = mean(points.map(([x, y]) => Math.hypot(x - cx, y - cy)));
  for (let step = 0; step < STEPS; step++) {
    let [aa, ab, bb, ar, br] = [0, 0, 0, 0, 0];
    const away = points.map(([x, y]) => ({ d: Math.hypot(x - cx, y - cy), x: x - cx, y: y - cy }));
    if (away.some(({ d }) => d === 0)) return null;
    const [mu, mv, md] = [
      mean(away.map(({ x, d }) => x / d)),
      mean(away.map(({ y, d }) => y / d)),
      mean(away.map(({ d }) => d)),
    ];
    for (const { d, x, y } of away) {
      const [u, v, residual] = [x / d - mu, y / d - mv, d - md];
      aa += u * u;
      ab += u * v;
      bb += v * v;
      ar += u * residual;
      br += v * residual;
    }
    const det = aa * bb - ab * ab;
    if (det <= 0) return null;
    const [dx, dy] = [(ar * bb - br * ab) / det, (br * aa - ar * ab) / det];
    cx += dx;
    cy += dy;
    radius = mean(points.map(([x, y]) => Math.hypot(x - cx, y - cy)));
    if (Math.hypot(dx, dy) <= SETTLED * radius) break;
  }
  const diameter = 2 * radius + (kind === "bore" ? 2 : -2) * tipRadius;
  if (diameter <= 0) return null;
  const rms = Math.sqrt(mean(points.map(([x, y]) => (Math.hypot(x - cx, y - cy) - radius) ** 2)));
  return { center: [cx, cy], diameter, rms };
}
