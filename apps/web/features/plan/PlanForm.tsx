import type { PlanChange, PlanRow } from "@probe-lane/contract";
import { format } from "date-fns";
import { useState, type FormEvent } from "react";
import type { ApiError } from "../../app/api";
import { Button, Notice, Select, SideSheet } from "../../ui";
import { MustHaveFields } from "../../ui/MustHaveFields";
import { mustHaveTexts, readMustHaves } from "../../ui/mustHaves";
import { changeOf, overWords } from "./planView";

const FIELD = "figures mt-1 block w-full rounded-[3px] border border-ink3 bg-field px-2 py-1 font-normal";

/** A moment as its box has it, by the clock of this machine; and back. */
const toBox = (at: string | null): string => (at === null ? "" : format(new Date(at), "yyyy-MM-dd'T'HH:mm"));
const fromBox = (text: string): string | null => (text === "" ? null : new Date(text).toISOString());

/** Everything that can be said of one assignment. */
export function PlanForm({
  row,
  error,
  isPending,
  onEdit,
  onSave,
  onClose,
}: {
  row: PlanRow;
  error: ApiError | null;
  isPending: boolean;
  /** What was refused is being put right. */
  onEdit(): void;
  onSave(change: PlanChange): void;
  onClose(): void;
}) {
  const [held, setHeld] = useState(() => changeOf(row));
  const [attempts, setAttempts] = useState(String(row.attemptsAllowed));
  const [over, setOver] = useState(() => mustHaveTexts(row.mustHaves ?? row.markedOn));
  const [isOwn, setOwn] = useState(row.mustHaves !== null);
  const read = isOwn ? readMustHaves(over) : { mustHaves: null };
  const set = (change: Partial<PlanChange>) => setHeld((now) => ({ ...now, ...change }));
  const attemptsAllowed = /^\d{1,2}$/.test(attempts.trim()) ? Number(attempts) : 0;
  const isFair = attemptsAllowed >= 1 && attemptsAllowed <= 50;
  const save = (event: FormEvent) => {
    event.preventDefault();
    if (isFair && "mustHaves" in read) onSave({ ...held, attemptsAllowed, mustHaves: read.mustHaves });
  };
  return (
    <SideSheet title={row.title} isOpen onClose={onClose}>
      <form className="flex flex-col gap-3" onChange={onEdit} onSubmit={save}>
        <p className="text-ink2">{row.story}</p>
        <label className="flex items-center gap-2 font-bold">
          <input type="checkbox" checked={held.isGiven} onChange={(event) => set({ isGiven: event.target.checked })} />{" "}
          Given to the class
        </label>
        <label className="font-bold">
          Opens
          <input
            type="datetime-local"
            className={FIELD}
            value={toBox(held.opensAt)}
            onChange={(event) => set({ opensAt: fromBox(event.target.value) })}
          />
        </label>
        <label className="font-bold">
          Due
          <input
            type="datetime-local"
            className={FIELD}
            value={toBox(held.dueAt)}
            onChange={(event) => set({ dueAt: fromBox(event.target.value) })}
          />
        </label>
        <p className="text-xs text-ink2">
          {held.week === null
            ? "Empty: open at all times, and never due."
            : `Empty: as week ${held.week} opens and ends.`}
        </p>
        <label className="font-bold">
          Begun after that
          <Select
            className="mt-1 block w-full !px-2 !py-1"
            value={held.late}
            onChange={(event) => set({ late: event.target.value === "refused" ? "refused" : "taken" })}
          >
            <option value="taken">is taken, and called late in the marks</option>
            <option value="refused">is refused; what is open by then may still be handed in</option>
          </Select>
        </label>
        <label className="font-bold">
          Attempts
          <input
            inputMode="numeric"
            className={`${FIELD} !w-24`}
            value={attempts}
            onChange={(event) => setAttempts(event.target.value)}
            aria-invalid={!isFair}
          />
        </label>
        {isFair ? null : (
          <Notice kind="stop" role="alert">
            Attempts are a whole number from 1 to 50.
          </Notice>
        )}
        <label className="flex items-center gap-2 font-bold">
          <input
            type="checkbox"
            checked={held.isCoachOn}
            onChange={(event) => set({ isCoachOn: event.target.checked })}
          />{" "}
          Coach on, for lanes that are begun from now on
        </label>
        <label className="font-bold">
          What stands over points
          <Select
            className="mt-1 block w-full !px-2 !py-1"
            value={isOwn ? "own" : "marking"}
            onChange={(event) => setOwn(event.target.value === "own")}
          >
            <option value="marking">as the marking of the exercise has it</option>
            <option value="own">as this class asks</option>
          </Select>
        </label>
        {isOwn ? (
          <fieldset className="rounded-[3px] border border-rule">
            <legend className="sr-only">What this class asks for over points</legend>
            <MustHaveFields
              offered={row.canMiss}
              texts={over}
              onChange={setOver}
              className="flex items-center justify-between gap-3 border-t border-rule-soft px-3 py-1.5 first-of-type:border-t-0"
            />
          </fieldset>
        ) : (
          <p className="text-ink2">{overWords(row.canMiss.filter((name) => row.markedOn?.[name] === true))}</p>
        )}
        <p className="text-xs text-ink2">
          It holds for what is handed in from now on, and for lanes that are marked again; students read it on their
          first page.
        </p>
        {"problem" in read ? (
          <Notice kind="stop" role="alert">
            {read.problem}
          </Notice>
        ) : null}
        <p className="flex gap-2">
          <Button look="act" type="submit" disabled={!isFair || "problem" in read || isPending}>
            Keep it so
          </Button>
          <Button onClick={onClose}>Leave it as it was</Button>
        </p>
        {error ? (
          <Notice kind="stop" role="alert">
            {error.message}
          </Notice>
        ) : null}
      </form>
    </SideSheet>
  );
}
