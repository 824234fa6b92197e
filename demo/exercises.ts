import { exerciseSchema, markingSchema, type Exercise, type Marking } from "@probe-lane/core/exercises";
import focuserPlate from "./exercises/focuser-plate-lower-left.json" with { type: "json" };
import rollerBracket from "./exercises/roller-bracket-back-right.json" with { type: "json" };

export interface ExerciseFile { exercise: Exercise; marking: Marking }

const read = (file: { exercise: unknown; marking: unknown }): ExerciseFile => ({
  exercise: exerciseSchema.parse(file.exercise),
  marking: markingSchema.parse(file.marking),
});

export const demoExercises: readonly ExerciseFile[] = [read(focuserPlate), read(rollerBracket)];

export function findDemoExercise(id: string): ExerciseFile {
  const found = demoExercises.find(({ exercise }) => exercise.id === id);
  if (!found) throw new Error(`findDemoExercise: no exercise ${id}`);
  return found;
}
