export interface SweepAnswer {
  error: [number, number];
  move: [number, number];
  totalReading: number;
}

/**
 * How far the axis that carries an indicator stands from a bore's or boss's axis, from readings at 0, 90, 180 and 270
 * degrees (pressed in = larger). In a bore e = ((I0 − I180)/2, (I90 − I270)/2), on a boss the opposite; the carrier is
 * moved by −e. Any length unit. Swept about a level axis, top and bottom carry the indicator's sag.
 */
export function sweepError(readings: readonly [number, number, number, number], kind: "bore" | "boss"): SweepAnswer {
  const [i0, i90, i180, i270] = readings;
  const sign = kind === "bore" ? 1 : -1;
  const x = (sign * (i0 - i180)) / 2;
  const y = (sign * (i90 - i270)) / 2;
  const zero = (value: number) => (value === 0 ? 0 : value);
  return { error: [zero(x), zero(y)], move: [zero(-x), zero(-y)], totalReading: 2 * Math.hypot(x, y) };
}
