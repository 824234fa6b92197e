import type { FloorExercise, FloorRegister } from "@probe-lane/core/floor";
import { figureWords } from "@probe-lane/core/words";
import { useId, useState, type FormEvent } from "react";
import { Button, FigureInput, Select } from "../../ui";
import { sideOf, summed, summedFigures, typedFirst } from "./readingSum";
import { lengthsOf } from "./show";

const OPEN_KEY = "probe-lane-check-by-reading";

const SIDES = {
  approach: { label: "the tip moved", plus: "plus, onto the low side", minus: "minus, onto the high side" },
  outside: { label: "touched", plus: "outside", minus: "in the bore" },
} as const;

/** A check as it is read at the machine: where it stood, what lay between, and the sum done here. */
export function CheckByReading({
  exercise,
  register,
  onTake,
}: {
  exercise: FloorExercise;
  register: FloorRegister;
  onTake(mm: number): void;
}) {
  const id = useId();
  const [typed, setTyped] = useState(() => typedFirst(exercise, register));
  const [problem, setProblem] = useState<string | null>(null);
  const figures = summedFigures(register);
  if (figures === null) return null;
  const sum = summed(exercise, register, typed);
  const side = sideOf(register);
  const change = (to: Partial<typeof typed>) => {
    setProblem(null);
    setTyped({ ...typed, ...to });
  };
  const take = (event: FormEvent) => {
    event.preventDefault();
    if ("problem" in sum) return setProblem(sum.problem);
    onTake(sum.mm);
    // tip, paper and edge stay as they are for the next one
    setTyped({ ...typed, stoodAt: "" });
  };
  return (
    <details
      open={localStorage.getItem(OPEN_KEY) === "yes"}
      onToggle={({ currentTarget }) => localStorage.setItem(OPEN_KEY, currentTarget.open ? "yes" : "no")}
    >
      <summary className="min-h-11 cursor-pointer py-2.5 font-bold">By a reading, summed here</summary>
      <form onSubmit={take} className="flex flex-wrap items-end gap-2">
        <label className="min-w-28 flex-1 text-xs text-ink2" htmlFor={`${id}at`}>
          stood at
          <FigureInput
            id={`${id}at`}
            className="min-h-11 w-full text-base text-ink"
            value={typed.stoodAt}
            onChange={(event) => change({ stoodAt: event.target.value })}
          />
        </label>
        {side === null ? null : (
          <label className="text-xs text-ink2">
            {SIDES[side].label}
            <Select
              className="block min-h-11 !px-2 text-base text-ink"
              value={typed.side}
              onChange={(event) => change({ side: event.target.value === "1" ? 1 : -1 })}
            >
              <option value={1}>{SIDES[side].plus}</option>
              <option value={-1}>{SIDES[side].minus}</option>
            </Select>
          </label>
        )}
        {figures.map((name) => (
          <label key={name} className="w-32 text-xs text-ink2" htmlFor={`${id}${name}`}>
            {figureWords[name]}
            <FigureInput
              id={`${id}${name}`}
              className="min-h-11 w-full text-base text-ink"
              value={typed.figures[name] ?? ""}
              onChange={(event) => change({ figures: { ...typed.figures, [name]: event.target.value } })}
            />
          </label>
        ))}
        <Button type="submit" className="min-h-11" disabled={typed.stoodAt.trim() === ""}>
          {"mm" in sum ? (
            <>
              Add check <b className="figures">{lengthsOf(exercise).show(sum.mm)}</b>
            </>
          ) : (
            "Add the sum as a check"
          )}
        </Button>
        {problem ? (
          <p role="alert" className="w-full text-xs">
            {problem}
          </p>
        ) : null}
      </form>
    </details>
  );
}
