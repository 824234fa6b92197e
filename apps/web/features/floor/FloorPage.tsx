import { keyOf, reading } from "../../app/queries";
import type { FloorExerciseRow, StartedLane } from "@probe-lane/contract";
import { floorGateWords, floorSchoolWords } from "@probe-lane/core/words";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Hand } from "lucide-react";
import { Link, useNavigate } from "react-router";
import { api, type ApiError } from "../../app/api";
import { isStaff, useMe } from "../../app/session";
import { Button, LaneRule, Loading, Notice, PageError } from "../../ui";
import { FloorAuthor } from "./FloorAuthor";
import { FloorTools } from "./FloorTools";
import { drawingOf, machineOf } from "./show";

/** Exercises taken at real machines: a student's own, or the whole class with a form to make another. */
export function FloorPage() {
  const { me } = useMe();
  const { data, error } = useQuery({ ...reading("/floor", {}), refetchInterval: 6000 });
  if (error && !data) return <PageError error={error} />;
  if (!data) return <Loading />;
  const isInstructor = isStaff(me);
  return (
    <div className={isInstructor ? "grid gap-4 lg:grid-cols-[1.3fr_1fr]" : "mx-auto flex max-w-2xl flex-col gap-4"}>
      <div className="flex min-w-0 flex-col gap-4">
        {data.exercises.length === 0 ? (
          <Notice>
            {isInstructor
              ? "There is no floor exercise yet. Make one from the template: it is given to the class at once."
              : "Your instructor has set nothing at the real machines yet."}
          </Notice>
        ) : null}
        {data.exercises.map((row) => (
          <Exercise key={row.id} row={row} isInstructor={isInstructor} mayChange={me?.role === "instructor"} />
        ))}
      </div>
      {me?.role === "instructor" ? <FloorAuthor /> : null}
    </div>
  );
}

function Exercise({
  row,
  isInstructor,
  mayChange,
}: {
  row: FloorExerciseRow;
  isInstructor: boolean;
  mayChange: boolean;
}) {
  const navigate = useNavigate();
  const client = useQueryClient();
  const start = useMutation<StartedLane, ApiError, boolean>({
    mutationFn: (isAgain) => api.post<StartedLane>(`/floor/exercises/${row.id}/lanes`, { isAgain }),
    onSuccess: async ({ id }) => {
      await client.invalidateQueries({ queryKey: keyOf("/floor", {}) });
      void navigate(`/floor/${id}`);
    },
  });
  const mine = row.lanes.find(({ isMine }) => isMine);
  const { exercise } = row;
  return (
    <section aria-label={exercise.title} className="rounded-panel border border-rule bg-panel">
      <div className="flex flex-wrap items-start gap-3 p-4">
        <div className="min-w-48 flex-1">
          <h2 className="text-lg font-bold">{exercise.title}</h2>
          <p className="text-ink2">
            At the {machineOf(exercise)}, {[drawingOf(exercise), exercise.datum].filter(Boolean).join(", ")}:{" "}
            {floorSchoolWords[exercise.school]}.
            <span className="block text-xs">{exercise.registers.map(({ label }) => label).join(", ")}</span>
          </p>
        </div>
        <Link className="py-2 font-bold text-expected underline" to={`/floor/exercises/${row.id}/worksheet`}>
          Worksheet
        </Link>
        {isInstructor && row.lanes.length > 0 ? (
          <Link className="py-2 font-bold text-expected underline" to={`/floor/exercises/${row.id}/class`}>
            Check the class
          </Link>
        ) : null}
        {isInstructor ? null : (
          <>
            <Button look="act" className="min-h-11" disabled={start.isPending} onClick={() => start.mutate(false)}>
              {mine === undefined ? "Start at the machine" : mine.isHandedIn ? "Read the ruling" : "Go on"}
            </Button>
            {mine?.isHandedIn ? (
              <Button className="min-h-11" disabled={start.isPending} onClick={() => start.mutate(true)}>
                Set it up again
              </Button>
            ) : null}
          </>
        )}
      </div>
      {start.error ? (
        <Notice kind="stop" role="alert">
          {start.error.message}
        </Notice>
      ) : null}
      {isInstructor ? (
        <ul>
          {row.lanes.length === 0 ? (
            <li className="border-t border-rule-soft px-4 py-2 text-ink2">Nobody has begun.</li>
          ) : null}
          {row.lanes.map((lane) => {
            const next = lane.gates.find(({ isPassed }) => !isPassed);
            return (
              <li
                key={lane.id}
                className="grid grid-cols-[minmax(8rem,1fr)_10rem_auto] items-center gap-3 border-t border-rule-soft px-4 py-2"
              >
                <Link className="truncate font-bold underline decoration-ink3" to={`/floor/${lane.id}`}>
                  {lane.studentName}
                  {lane.attempt > 1 ? <span className="font-normal text-ink2">, attempt {lane.attempt}</span> : null}
                </Link>
                <LaneRule
                  isSmall
                  label={`Gates of ${lane.studentName}`}
                  gates={lane.gates.map(({ name, isPassed }) => ({ name, isPassed, label: floorGateWords[name] }))}
                />
                <span className="figures">
                  {lane.isHandUp ? (
                    <b className="mr-2 inline-flex items-center gap-1 text-contact">
                      <Hand size={14} aria-hidden /> hand is up
                    </b>
                  ) : null}
                  {lane.total !== null
                    ? `${Math.round(lane.total)}/100`
                    : next
                      ? `at ${floorGateWords[next.name]}`
                      : ""}
                </span>
              </li>
            );
          })}
        </ul>
      ) : null}
      {mayChange ? <FloorTools row={row} /> : null}
    </section>
  );
}
