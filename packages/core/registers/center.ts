export interface CenterAnswer {
  center: number;
  work: number;
  size: number;
}

/**
 * Middle of two faces from a contact on each, in either order; the tip radius cancels. Any length unit, machine frame.
 * size = distance of the faces: contacts' distance less 2r outside, plus 2r inside; null when that is not above zero.
 */
export function centerFromContacts(
  contacts: readonly [number, number],
  tipRadius: number,
  kind: "outside" | "inside",
  common = 0,
): CenterAnswer | null {
  const [a, b] = contacts;
  const center = (a + b) / 2;
  const size = Math.abs(b - a) + (kind === "outside" ? -2 : 2) * tipRadius;
  return size > 0 ? { center, work: center - common, size } : null;
}
