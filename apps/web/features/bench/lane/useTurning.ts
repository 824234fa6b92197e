import type { Observation } from "@probe-lane/core/bench";
import { useEffect, useState } from "react";

const COAST_MS = 1200;
/** Turning or running down: a spindle that stops is not at rest at once. */
export function useTurning({ isOn, rpm }: Observation["spindle"]): "still" | "turning" | "coasting" {
  const [coasting, setCoasting] = useState({ wasOn: isOn, isCoasting: false });
  if (coasting.wasOn !== isOn) setCoasting({ wasOn: isOn, isCoasting: !isOn && rpm > 0 });
  useEffect(() => {
    if (!coasting.isCoasting) return undefined;
    const end = setTimeout(() => setCoasting((now) => ({ ...now, isCoasting: false })), COAST_MS);
    return () => clearTimeout(end);
  }, [coasting.isCoasting]);
  if (isOn) return "turning";
  return coasting.isCoasting ? "coasting" : "still";
}

/** One turn as it is drawn, s: far slower than it is, and still the faster the faster it turns. */
export const turnSeconds = (rpm: number): number => Math.min(2.4, Math.max(0.35, 700 / Math.max(rpm, 1)));
