import type { RegisterRuling } from "../../grading";

/** To which side a value of a mill is off, and what that does. */
export function millDirection({ target: { kind }, closureMm }: RegisterRuling): string {
  const isUp = closureMm > 0;
  if (kind === "turn") return isUp ? "too far counter-clockwise" : "too far clockwise";
  if (kind === "diameter") return isUp ? "too large" : "too small";
  if (kind === "place") return isUp ? "high" : "low";
  return isUp ? "high: the tip stands off" : "low: the tip cuts deep";
}
