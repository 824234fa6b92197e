import type { FloorExercise } from "@probe-lane/core/floor";
import { useId, useState, type FormEvent, type ReactNode } from "react";
import { Button, FigureInput } from "../../ui";
import { lengthsOf } from "./show";

/** A length to type and a button that takes it: large enough for a thumb, and clear when it cannot be read. */
export function LengthForm({
  exercise,
  label,
  act,
  onTake,
  children,
}: {
  exercise: FloorExercise;
  label: string;
  act: string;
  onTake(mm: number): void;
  children?: ReactNode;
}) {
  const id = useId();
  const [text, setText] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const take = (event: FormEvent) => {
    event.preventDefault();
    const read = lengthsOf(exercise).read(text);
    if ("problem" in read) {
      setProblem(read.problem);
      return;
    }
    onTake(read.mm);
    setText("");
    setProblem(null);
  };
  return (
    <form onSubmit={take} className="flex flex-wrap items-end gap-2">
      {children}
      <label className="min-w-28 flex-1 text-xs text-ink2" htmlFor={id}>
        {label}
        <FigureInput
          id={id}
          className="min-h-11 w-full text-base text-ink"
          value={text}
          aria-invalid={problem !== null}
          onChange={(event) => {
            setText(event.target.value);
            setProblem(null);
          }}
        />
      </label>
      <Button type="submit" className="min-h-11" disabled={text.trim() === ""}>
        {act}
      </Button>
      {problem ? (
        <p role="alert" className="w-full text-xs">
          {problem}
        </p>
      ) : null}
    </form>
  );
}
