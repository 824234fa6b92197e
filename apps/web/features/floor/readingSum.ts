import { wantedFrom, type FigureName, type Figures } from "@probe-lane/core/diagnosis";
import type { FloorExercise, FloorRegister } from "@probe-lane/core/floor";
import { lengthsOf } from "./show";

/** Methods whose value is summed from where it stood in contact, and what of each lies between. */
const SUMMED = {
  "mill-edge": ["tipRadius", "edgeWork"],
  "mill-center": [],
  "mill-length": ["paper", "block", "facing"],
  "lathe-x": ["touchDiameter", "paper"],
  "lathe-z": ["block", "facing"],
} as const satisfies Partial<Record<FloorRegister["method"], readonly FigureName[]>>;
export type SummedFigure = (typeof SUMMED)[keyof typeof SUMMED][number];

/** What is asked for beside the reading; null where nothing is summed. */
export const summedFigures = ({ method }: Pick<FloorRegister, "method">): readonly SummedFigure[] | null =>
  Object.hasOwn(SUMMED, method) ? SUMMED[method as keyof typeof SUMMED] : null;

/** Which side a tip came from, or a tool touched; null where the method knows no sides. */
export const sideOf = ({ method }: Pick<FloorRegister, "method">): "approach" | "outside" | null => {
  if (method === "mill-edge") return "approach";
  return method === "lathe-x" ? "outside" : null;
};

/** A reading as it is typed: where it stood, the figures, and the side. */
export interface TypedReading {
  readonly stoodAt: string;
  readonly figures: Readonly<Partial<Record<SummedFigure, string>>>;
  readonly side: 1 | -1;
}

/** The figures of the exercise as they stand in the boxes at first. */
export function typedFirst(exercise: FloorExercise, register: FloorRegister): TypedReading {
  const { show } = lengthsOf(exercise);
  const held = register.figures;
  const figures = Object.fromEntries(
    (summedFigures(register) ?? []).map((name) => [name, held[name] === undefined ? "" : show(held[name])]),
  );
  return { stoodAt: "", figures, side: held.approach ?? held.outside ?? 1 };
}

/** What the register should hold by a reading, mm; or what is missing or cannot be read. */
export function summed(
  exercise: FloorExercise,
  register: FloorRegister,
  typed: TypedReading,
): { mm: number } | { problem: string } {
  const { read } = lengthsOf(exercise);
  const stood = read(typed.stoodAt);
  if ("problem" in stood) return { problem: typed.stoodAt.trim() === "" ? "Type where it stood." : stood.problem };
  const figures: Figures = { leftoverCommon: register.figures.leftoverCommon };
  for (const name of summedFigures(register) ?? []) {
    const text = typed.figures[name] ?? "";
    // what does not lie between is left empty
    if (text.trim() === "") continue;
    const figure = read(text);
    if ("problem" in figure) return figure;
    figures[name] = figure.mm;
  }
  const side = sideOf(register);
  if (side !== null) figures[side] = typed.side;
  const mm = wantedFrom(register.method, stood.mm, figures);
  return mm === null ? { problem: "A figure is missing: fill in what the sum needs." } : { mm };
}
