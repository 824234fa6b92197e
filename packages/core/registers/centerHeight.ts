export interface CenterHeightAnswer {
  diameter: number;
  error: number;
  pip: number;
}

/**
 * What a turning tool off center by `height` cuts when it was set at one diameter and is sent to another:
 * `2·√((d2/2 − a)² + h²)` with `a = d1/2 − √(d1²/4 − h²)`; the pip that facing leaves is `2|h|`. Null when it would
 * pass over the bar. Height > 0 above center; diameters; one length unit.
 */
export function centerHeight(
  height: number,
  touchDiameter: number,
  commandedDiameter: number,
): CenterHeightAnswer | null {
  if (Math.abs(height) > touchDiameter / 2) return null;
  if (height === 0) return { diameter: commandedDiameter, error: 0, pip: 0 };
  const a = touchDiameter / 2 - Math.sqrt(touchDiameter ** 2 / 4 - height ** 2);
  const diameter = 2 * Math.hypot(commandedDiameter / 2 - a, height);
  return { diameter, error: diameter - commandedDiameter, pip: 2 * Math.abs(height) };
}
