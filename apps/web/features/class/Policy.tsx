import type { ClassView, MarksPolicy } from "@probe-lane/contract";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";
import { api, type ApiError } from "../../app/api";
import { Button, FigureInput, Notice, Panel } from "../../ui";

type Form = Record<keyof MarksPolicy, string>;

/** A whole number from 0 to 100; null for anything else. */
const percentOf = (text: string): number | null => (/^\s*(100|\d{1,2})\s*$/.test(text) ? Number(text) : null);

/** From how many marks a lane is passed in this class, and what counts of one that came late. */
export function Policy({ view }: { view: ClassView }) {
  const client = useQueryClient();
  const { passPercent, latePercent } = view.policy;
  const [form, setForm] = useState<Form>({ passPercent: String(passPercent), latePercent: String(latePercent) });
  const keep = useMutation<unknown, ApiError, MarksPolicy>({
    mutationFn: (policy) => api.put("/class/policy", policy),
    onSuccess: () => client.invalidateQueries(),
  });
  const typed = { passPercent: percentOf(form.passPercent), latePercent: percentOf(form.latePercent) };
  const isSame = typed.passPercent === passPercent && typed.latePercent === latePercent;
  const isOdd = typed.passPercent === null || typed.latePercent === null;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (typed.passPercent !== null && typed.latePercent !== null)
      keep.mutate({ passPercent: typed.passPercent, latePercent: typed.latePercent });
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
        <p className="flex flex-wrap items-center gap-2">
          <Button type="submit" disabled={isSame || isOdd || keep.isPending}>
            Keep this
          </Button>
          <span className="text-ink2" role="status">
            {isOdd ? "Both are whole numbers from 0 to 100." : "Rulings stay as they are; marks and files follow it."}
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
