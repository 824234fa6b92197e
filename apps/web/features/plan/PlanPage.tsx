import type { PlanRow, PlanView } from "@probe-lane/contract";
import { machineWords } from "@probe-lane/core/words";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ArrowDown, ArrowUp } from "lucide-react";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, type ApiError } from "../../app/api";
import { keyOf, reading } from "../../app/queries";
import { Button, Loading, Notice, PageError, Panel, Select, TextLink } from "../../ui";
import { PlanForm } from "./PlanForm";
import { askedOf, changeOf, dayWords, groupsOf, soughtIn, swapped, weeksOffered } from "./planView";

const PLAN_KEY = keyOf("/plan", {});

/** What the class is given, week by week: when each exercise opens and is due, and on which terms. */
export function PlanPage() {
  const { data, error } = useQuery(reading("/plan", {}));
  if (error) return <PageError error={error} />;
  if (!data) return <Loading />;
  return <Plan view={data} />;
}

function Plan({ view }: { view: PlanView }) {
  const client = useQueryClient();
  const [changed, setChanged] = useState<PlanRow | null>(null);
  const changes = useMutation<unknown, ApiError, () => Promise<unknown>>({
    mutationFn: (send) => send(),
    onSettled: () => client.invalidateQueries({ queryKey: PLAN_KEY }),
  });
  const [sought, setSought] = useState("");
  const groups = groupsOf({ ...view, rows: soughtIn(view.rows, sought) }, new Date());
  const move = (row: PlanRow, other: PlanRow | undefined) => {
    if (other) changes.mutate(() => api.put("/plan/order", { ids: swapped(view.rows, row.id, other.id) }));
  };
  return (
    <div className="mx-auto flex max-w-6xl flex-col gap-4">
      <Start
        key={view.startsOn}
        view={view}
        onSave={(startsOn) => changes.mutate(() => api.put("/plan", { startsOn }))}
      />
      <input
        type="search"
        aria-label="Find an exercise"
        placeholder="Find an exercise by its title, its part or its machine"
        value={sought}
        onChange={(event) => setSought(event.target.value)}
        className="rounded-[3px] border border-ink3 bg-field px-3 py-1.5 placeholder:text-ink2"
      />
      {groups.length === 0 ? <Notice>No exercise is called that. Try one word of its title.</Notice> : null}
      {changes.error ? (
        <Notice kind="stop" role="alert">
          {changes.error.message}
        </Notice>
      ) : null}
      {groups.map(({ name, note, isNow, rows }) => (
        <Panel key={name} title={name} note={note} className={isNow ? "border-l-[5px] border-l-expected" : ""}>
          <ul>
            {rows.map((row, at) => (
              <Row
                key={row.id}
                row={row}
                isMoving={changes.isPending}
                onWeek={(week) => changes.mutate(() => api.put(`/plan/${row.id}`, { ...changeOf(row), week }))}
                onUp={at === 0 ? null : () => move(row, rows[at - 1])}
                onDown={at === rows.length - 1 ? null : () => move(row, rows[at + 1])}
                onChange={() => setChanged(row)}
              />
            ))}
          </ul>
        </Panel>
      ))}
      {changed ? (
        <PlanForm
          row={changed}
          error={changes.error}
          isPending={changes.isPending}
          onEdit={() => changes.reset()}
          onSave={(change) =>
            changes.mutate(() => api.put(`/plan/${changed.id}`, change), { onSuccess: () => setChanged(null) })
          }
          onClose={() => {
            changes.reset();
            setChanged(null);
          }}
        />
      ) : null}
    </div>
  );
}

/** The day from which the weeks are counted. */
function Start({ view: { startsOn, rows }, onSave }: { view: PlanView; onSave(startsOn: string | null): void }) {
  const [day, setDay] = useState(startsOn ?? "");
  const hasWeeks = rows.some(({ week }) => week !== null);
  return (
    <form
      aria-label="Weeks"
      className="flex flex-wrap items-end gap-3 rounded-panel border border-rule bg-panel px-4 py-3"
      onSubmit={(event) => {
        event.preventDefault();
        onSave(day === "" ? null : day);
      }}
    >
      <label className="font-bold">
        Week 1 begins on
        <input
          type="date"
          value={day}
          onChange={(event) => setDay(event.target.value)}
          className="figures mt-1 block rounded-[3px] border border-ink3 bg-field px-2 py-1 font-normal"
        />
      </label>
      <Button type="submit" disabled={day === (startsOn ?? "")}>
        {day === "" ? "Count no weeks" : "Count from this day"}
      </Button>
      <p className="min-w-72 flex-1 text-ink2">
        An exercise with a week opens on the first day of it and is due at its end; a day of its own goes before that.
        Without either it lies on the practice shelf.{" "}
        {hasWeeks && startsOn === null ? (
          <b className="text-ink">No day is set yet, so that nothing opens or is due by its week.</b>
        ) : null}
      </p>
    </form>
  );
}

function Row({
  row,
  isMoving,
  onWeek,
  onUp,
  onDown,
  onChange,
}: {
  row: PlanRow;
  /** Something of the plan is on its way to the server, so that what stands here is not yet what will. */
  isMoving: boolean;
  onWeek(week: number | null): void;
  onUp: (() => void) | null;
  onDown: (() => void) | null;
  onChange(): void;
}) {
  const navigate = useNavigate();
  const tried = useMutation<{ id: string }, ApiError>({
    mutationFn: () => api.post(`/plan/${row.id}/try`),
    onSuccess: ({ id }) => navigate(`/lanes/${id}`),
  });
  return (
    <li
      aria-label={row.title}
      className="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-rule-soft px-4 py-1.5 first:border-t-0"
    >
      <span className="flex">
        {(
          [
            ["up", onUp, ArrowUp],
            ["down", onDown, ArrowDown],
          ] as const
        ).map(([where, move, Icon]) => (
          <Button
            key={where}
            look="quiet"
            className="px-1"
            disabled={move === null || isMoving}
            aria-label={`Move ${row.title} ${where}`}
            onClick={() => move?.()}
          >
            <Icon size={15} aria-hidden />
          </Button>
        ))}
      </span>
      <Select
        aria-label={`Week of ${row.title}`}
        value={row.week ?? ""}
        disabled={isMoving}
        onChange={({ target: { value } }) => onWeek(value === "" ? null : Number(value))}
      >
        <option value="">no week</option>
        {weeksOffered(row.week).map((week) => (
          <option key={week} value={week}>
            week {week}
          </option>
        ))}
      </Select>
      <div className="min-w-60 flex-1">
        <b>{row.title}</b> <span className="text-xs text-ink2">{machineWords[row.machine]}</span>
        <p className="text-xs text-ink2">
          {[...dayWords(row), row.isCoachOn ? "coach on" : "coach off", `${row.attemptsAllowed} attempts`].join(" · ")}
          {askedOf(row).length > 0 ? ` · ${askedOf(row).length} must-have${askedOf(row).length === 1 ? "" : "s"}` : ""}
          {row.mustHaves ? " of this class" : ""}
          {row.lanes > 0 ? ` · begun ${row.lanes === 1 ? "once" : `${row.lanes} times`}` : ""}
        </p>
      </div>
      <TextLink to={`/assignments/${row.id}/marking`} aria-label={`Tolerances, weights and must-haves of ${row.title}`}>
        Marking
      </TextLink>
      <Button disabled={tried.isPending} aria-label={`Try ${row.title}`} onClick={() => tried.mutate()}>
        Try it
      </Button>
      <Button disabled={isMoving} aria-label={`Change ${row.title}`} onClick={onChange}>
        Change
      </Button>
      {tried.error ? (
        <Notice kind="stop" role="alert">
          {tried.error.message}
        </Notice>
      ) : null}
    </li>
  );
}
