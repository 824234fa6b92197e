import type { ClassView, MarksPolicy } from "@probe-lane/contract";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";
import { api, type ApiError } from "../../app/api";
import { Button, FigureInput, Notice, Panel } from "../../ui";

type Form = Record<keyof MarksPolicy, string>;

const MOST = { passPercent: 100, latePercent: 100, lapseMonths: 60 } as const satisfies MarksPolicy;

/** A whole number from 0 to the most that a field holds; null for anything else. */
const numberOf = (text: string, most: number): number | null =>
  /^\s*\d{1,3}\s*$/.test(text) && Number(text) <= most ? Number(text) : null;

/** From how many marks a lane is passed in this class, what counts of one that came late, and how long it holds. */
export function Policy({ view }: { view: ClassView }) {
  const client = useQueryClient();
  const { policy } = view;
  const [form, setForm] = useState<Form>(() => ({
    passPercent: String(policy.passPercent),
    latePercent: String(policy.latePercent),
    lapseMonths: String(policy.lapseMonths),
  }));
  const keep = useMutation<unknown, ApiError, MarksPolicy>({
    mutationFn: (typed) => api.put("/class/policy", typed),
    onSuccess: () => client.invalidateQueries(),
  });
  const of = (name: keyof Form) => numberOf(form[name], MOST[name]);
  const [passPercent, latePercent, lapseMonths] = [of("passPercent"), of("latePercent"), of("lapseMonths")];
  const typed =
    passPercent === null || latePercent === null || lapseMonths === null
      ? null
      : { passPercent, latePercent, lapseMonths };
  const isSame =
    passPercent === policy.passPercent && latePercent === policy.latePercent && lapseMonths === policy.lapseMonths;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (typed) keep.mutate(typed);
  };
  const field = (name: keyof Form) => ({
    className: "w-14 text-right text-base",
    value: form[name],
    onChange: ({ target }: { target: { value: string } }) => setForm((held) => ({ ...held, [name]: target.value })),
  });
  return (
    <Panel title="What passes" bodyClassName="p-4">
      <form onSubmit={submit} className="flex flex-col gap-2">
        <label>
          A lane passes from <FigureInput {...field("passPercent")} /> of 100 marks, its must-haves there
        </label>
        <label>
          Handed in late, <FigureInput {...field("latePercent")} /> % of its marks count
        </label>
        <label>
          What was signed or shown lapses after <FigureInput {...field("lapseMonths")} /> months; at 0 never
        </label>
        <p className="flex flex-wrap items-center gap-2">
          <Button type="submit" disabled={isSame || !typed || keep.isPending}>
            Keep this
          </Button>
          <span className="text-ink2" role="status">
            {typed
              ? "Rulings stay as they are; marks and files follow it."
              : "Whole numbers: marks from 0 to 100, months from 0 to 60."}
          </span>
        </p>
        {keep.error ? (
          <Notice kind="stop" role="alert">
            {keep.error.message}
          </Notice>
        ) : null}
      </form>
    </Panel>
  );
}
