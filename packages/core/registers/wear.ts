export type WearKind = "outside" | "inside" | "turned" | "bored" | "depth";

/**
 * Correction of a wear register after measuring; any length unit. Both walls by one cutter: outside −(S − S*), inside
 * +(S − S*); turned and bored: target − measured; depth (heights in work Z): −e. A radius register takes half; times a
 * percentage. A correction beyond the limit stops and is not applied.
 */
export function wearCorrection(
  kind: WearKind,
  measured: number,
  target: number,
  mode: "diameter" | "radius",
  percent = 100,
  limit = Infinity,
): { delta: number; applied: number; stopped: boolean } {
  const whole = kind === "inside" ? measured - target : target - measured;
  const half = kind !== "depth" && mode === "radius" ? 0.5 : 1;
  const delta = (whole * half * percent) / 100;
  const stopped = Math.abs(delta) > limit;
  return { delta, applied: stopped ? 0 : delta, stopped };
}
