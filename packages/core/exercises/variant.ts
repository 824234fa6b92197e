import { drawMill } from "./machines/mill";
import { drawTurning } from "./machines/lathe";
import { machineOf, type Exercise } from "./schema";
import type { Draw } from "./setup";
import { SEPARATION_IN_U } from "./sheet";

const TURNS = 200;

/** A student's own variant of an exercise, without the faults of a setup that is handed over. */
export function drawVariant(exercise: Exercise, seed: string): Draw {
  const draw = machineOf(exercise) === "mill" ? drawMill : drawTurning;
  for (let turn = 0; turn < TURNS; turn++) {
    const drawn = draw(exercise, seed, turn);
    if (drawn) return drawn;
  }
  throw new Error(
    `drawVariant: ${exercise.id} v${exercise.version}: no variant in ${TURNS} keeps its signatures ${SEPARATION_IN_U}u apart; widen its ranges`,
  );
}
