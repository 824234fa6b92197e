import { readRegisters, type ReadRegister } from "../exchange";
import type { FloorExercise } from "./exercise";

/** The wear row beside a length. */
const wearOf = (id: string): string => id.replace(/^H(?=[0-9])/, "HW");

/**
 * Registers out of a control, as an exercise asks for them, mm: where a length is asked for together with its wear both
 * rows are wanted, and come to one value; one without the other is told, since it would be taken for the whole.
 */
export function readForFloor(
  text: string,
  { registers, machine, unit }: Pick<FloorExercise, "registers" | "machine" | "unit">,
): ReadRegister[] {
  const together = registers.filter(({ holds }) => holds === "withWear").map(({ id }) => id);
  const wears = new Map(together.map((id) => [wearOf(id), id]));
  const rows = readRegisters(text, [...registers.map(({ id }) => id), ...wears.keys()], machine, unit);
  const mmOf = (id: string): number | null | undefined => rows.findLast(({ register }) => register === id)?.mm;
  return rows.flatMap((row): ReadRegister[] => {
    const length = wears.get(row.register);
    const isWhole = row.problem === null;
    if (length !== undefined && isWhole)
      return mmOf(length) === undefined
        ? [{ ...row, mm: null, problem: `The value is ${length} and ${row.register} together: give ${length} too.` }]
        : [];
    if (!together.includes(row.register) || !isWhole || row.mm === null) return [row];
    const wear = mmOf(wearOf(row.register));
    return wear === undefined || wear === null
      ? [
          {
            ...row,
            mm: null,
            problem: `The value is ${row.register} and ${wearOf(row.register)} together: give ${wearOf(row.register)} too.`,
          },
        ]
      : [{ ...row, mm: row.mm + wear }];
  });
}
