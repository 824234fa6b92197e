import { drawMillHandover } from "./machines/millHandover";
import { drawMillKept } from "./machines/millKept";
import { drawTurningHandover } from "./machines/turningHandover";
import type { Exercise } from "./schema";
import type { Draw } from "./setup";
import { withPrograms } from "./programmed";
import { drawVariant } from "./variant";

/** Below this height of the tip over the part's skin a rapid move counts as moving at speed, mm; the bench says so. */
export const SLOW_BELOW_MM = 25;

/**
 * The lane's sheet and its hidden truth, drawn from a seed. The result is stored in the first event and never drawn
 * again.
 */
export function drawLane(exercise: Exercise, seed: string): Draw {
  const drawn = withPrograms(exercise, seed, drawVariant(exercise, seed));
  if (exercise.kept && exercise.program && drawn.kind === "mill")
    return drawMillKept(exercise.kept, drawn, exercise.program.number);
  if (!exercise.handover) return drawn;
  return drawn.kind === "mill"
    ? drawMillHandover(exercise.handover, drawn)
    : drawTurningHandover(exercise.handover, drawn);
}
