import type { TurningLane } from "../../lane";
import { tipAt } from "../../contact";
import type { CutLook } from "./names";

/** Above this the edge sings and tears, m/min; no bench insert stands it. */
const FASTEST_M_PER_MIN = 400;
/** Below this an edge is heard to scrape and not to cut, mm. */
export const SCRAPES_BELOW_MM = 0.03;

/** How the edge here cuts now: heel first when the chuck turns backward, singing too fast or with a chipped insert. */
export function cutLook(state: TurningLane, deepMm: number): CutLook {
  const { spindle, lathe } = state;
  if (spindle.direction === "reverse") return "rubs";
  const mPerMin = (2 * Math.PI * Math.abs(tipAt(state).radiusMm) * spindle.rpm) / 1000;
  if (lathe.chipped.includes(lathe.station) || mPerMin > FASTEST_M_PER_MIN) return "chatters";
  return deepMm < SCRAPES_BELOW_MM ? "scrapes" : "cuts";
}
