import type { ChangeClassRequest, ClassView, NewClassRequest } from "@probe-lane/contract";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type ApiError } from "../../app/api";
import { useEnter } from "../../app/enter";
import { Button, Dialog, Notice, Panel } from "../../ui";

const FIELD = "mt-1 w-full rounded-[3px] border border-ink3 bg-field px-2 py-1.5 text-base font-normal";

interface NameFieldsProps {
  form: { readonly name: string; readonly term: string };
  set(change: { name?: string; term?: string }): void;
}
function NameFields({ form, set }: NameFieldsProps) {
  return (
    <>
      <label className="font-bold">
        Name of the class
        <input
          className={FIELD}
          value={form.name}
          onChange={(event) => set({ name: event.target.value })}
          required
          minLength={2}
          maxLength={80}
        />
      </label>
      <label className="font-bold">
        Term, if it has one
        <input
          className={FIELD}
          value={form.term}
          onChange={(event) => set({ term: event.target.value })}
          maxLength={40}
          placeholder="Spring 2027"
        />
      </label>
    </>
  );
}

/** What the open class is called, whether it goes on; and the next one. */
export function Settings({ view }: { view: ClassView }) {
  const client = useQueryClient();
  const [form, setForm] = useState({ name: view.className, term: view.term });
  const [isNew, setNew] = useState(false);
  const [isEnding, setEnding] = useState(false);
  const change = useMutation<unknown, ApiError, ChangeClassRequest>({
    mutationFn: (request) => api.put("/class", request),
    onSuccess: async () => {
      setEnding(false);
      await client.invalidateQueries();
    },
  });
  const isSame = form.name.trim() === view.className && form.term.trim() === view.term;
  const { isArchived } = view;
  return (
    <Panel title="This class" bodyClassName="flex flex-col gap-3 p-4">
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          change.mutate({ ...form, isArchived });
        }}
      >
        <NameFields form={form} set={(one) => setForm((held) => ({ ...held, ...one }))} />
        <p className="flex flex-wrap gap-2">
          <Button type="submit" disabled={isSame || change.isPending}>
            Keep the name
          </Button>
          <Button onClick={() => setNew(true)}>A new class</Button>
          <Button
            disabled={change.isPending}
            onClick={() =>
              isArchived ? change.mutate({ name: view.className, term: view.term, isArchived: false }) : setEnding(true)
            }
          >
            {isArchived ? "Take it out of the archive" : "Archive it"}
          </Button>
        </p>
      </form>
      {change.error ? (
        <Notice kind="stop" role="alert">
          {change.error.message}
        </Notice>
      ) : null}
      <Dialog title="Archive this class?" isOpen={isEnding} onClose={() => setEnding(false)}>
        <p>
          Nobody joins it or begins a lane in it any more. Lanes, rulings and marks can still be read, and it can be
          taken out of the archive again.
        </p>
        <p className="mt-4 flex gap-2">
          <Button
            look="act"
            disabled={change.isPending}
            onClick={() => change.mutate({ name: view.className, term: view.term, isArchived: true })}
          >
            Archive it
          </Button>
          <Button onClick={() => setEnding(false)}>Leave it</Button>
        </p>
      </Dialog>
      {isNew ? <NewClass like={view} onClose={() => setNew(false)} /> : null}
    </Panel>
  );
}

/** A class of one's own beside this one, with its exercises or with all of the shelf. */
function NewClass({ like, onClose }: { like: ClassView; onClose(): void }) {
  const [form, setForm] = useState<NewClassRequest>({ name: "", term: "", copiesPlan: true });
  const enter = useEnter();
  const make = useMutation<{ id: string }, ApiError>({
    mutationFn: () => api.post<{ id: string }>("/classes", form),
    onSuccess: ({ id }) => enter.mutate(id, { onSuccess: onClose }),
  });
  const problem = make.error ?? enter.error;
  return (
    <Dialog title="A new class" isOpen onClose={onClose}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          make.mutate();
        }}
      >
        <NameFields form={form} set={(one) => setForm((held) => ({ ...held, ...one }))} />
        <fieldset className="flex flex-col gap-1">
          <legend className="font-bold">Its exercises</legend>
          {([true, false] as const).map((copies) => (
            <label key={String(copies)} className="flex items-baseline gap-2">
              <input
                type="radio"
                name="plan"
                checked={form.copiesPlan === copies}
                onChange={() => setForm((held) => ({ ...held, copiesPlan: copies }))}
              />
              {copies ? `as ${like.className} has them, without its days` : "all of the shelf"}
            </label>
          ))}
        </fieldset>
        <p className="flex gap-2">
          <Button look="act" type="submit" disabled={make.isPending || enter.isPending}>
            Make it, and open it
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </p>
        {problem ? (
          <Notice kind="stop" role="alert">
            {problem.message}
          </Notice>
        ) : null}
      </form>
    </Dialog>
  );
}
