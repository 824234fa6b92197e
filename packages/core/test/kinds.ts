import { drawLane, type Exercise, type MillDraw, type TurningDraw } from "../exercises";

/** What is drawn for a lane on a mill. */
export function millDraw(exercise: Exercise, seed: string): MillDraw {
  const drawn = drawLane(exercise, seed);
  if (drawn.kind !== "mill") throw new Error(`${exercise.id} is not for a mill`);
  return drawn;
}

/** What is drawn for a lane on a lathe. */
export function turningDraw(exercise: Exercise, seed: string): TurningDraw {
  const drawn = drawLane(exercise, seed);
  if (drawn.kind === "mill") throw new Error(`${exercise.id} is for a mill`);
  return drawn;
}
