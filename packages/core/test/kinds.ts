import { drawLane, type Exercise, type MillDraw } from "../exercises";

/** What is drawn for a lane on a mill. */
export function millDraw(exercise: Exercise, seed: string): MillDraw {
  const drawn = drawLane(exercise, seed);
  if (drawn.kind !== "mill") throw new Error(`${exercise.id} is not for a mill`);
  return drawn;
}
