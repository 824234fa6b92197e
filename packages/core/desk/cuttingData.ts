export interface CuttingData {
  readonly system: "metric" | "inch";
  readonly surfaceSpeed: number;
  readonly diameter: number;
  readonly flutes: number;
  readonly feedPerTooth: number;
  readonly maxSpeed?: number | undefined;
  readonly minSpeed?: number | undefined;
}

/**
 * Spindle speed `1000·Vc/(π·D)` (m/min, mm) or `12·Vc/(π·D)` (ft/min, inch), held to the spindle's range, and the feed
 * `n·z·fz` at that speed, in the system's unit per minute.
 */
export function cuttingData({
  system,
  surfaceSpeed,
  diameter,
  flutes,
  feedPerTooth,
  maxSpeed = Infinity,
  minSpeed = 0,
}: CuttingData): { speed: number; feed: number; clamped: boolean } {
  const wanted = ((system === "metric" ? 1000 : 12) * surfaceSpeed) / (Math.PI * diameter);
  const speed = Math.min(maxSpeed, Math.max(minSpeed, wanted));
  return { speed, feed: speed * flutes * feedPerTooth, clamped: speed !== wanted };
}
