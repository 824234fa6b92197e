import type { FloorExercise, FloorRegister, FloorState } from "@probe-lane/core/floor";
import type { FigureName } from "@probe-lane/core/diagnosis";
import { figureWords, termWords } from "@probe-lane/core/words";
import { lengthsOf } from "./show";

/** The lines of a register's working: what it stood at, and what lies between. */
export function workingLines(state: FloorState, register: FloorRegister): { id: string; mm: number; label: string }[] {
  return [
    ...state.readings
      .filter((one) => one.register === register.id)
      .map(({ id, mm }) => ({ id, mm, label: "stood at, in contact" })),
    ...state.terms
      .filter((one) => one.register === register.id)
      .map(({ id, mm, term }) => ({ id, mm, label: termWords[term] })),
  ];
}

/** What the exercise gives for this register: figures of the instruments and of the part, never a value. */
export function givenWords(exercise: FloorExercise, register: FloorRegister): string[] {
  const { show } = lengthsOf(exercise);
  const { approach, outside, ...lengths } = register.figures;
  return [
    ...(register.readings === undefined ? [] : [`${register.readings} readings, from both sides`]),
    ...(approach === undefined ? [] : [`touched moving ${approach === 1 ? "plus" : "minus"}`]),
    ...Object.entries(lengths).flatMap(([name, value]) =>
      typeof value === "number" ? [`${figureWords[name as FigureName]} ${show(value)}`] : [],
    ),
    `tolerance ±${show(register.toleranceMm)}${outside === undefined ? "" : ", X is a diameter"}`,
  ];
}

export function Given({ exercise, register }: { exercise: FloorExercise; register: FloorRegister }) {
  return <p className="text-xs text-ink2">{givenWords(exercise, register).join(" · ")}</p>;
}
