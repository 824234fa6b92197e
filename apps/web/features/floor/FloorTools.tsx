import type { FloorChange, FloorExerciseRow, StartedLane } from "@probe-lane/contract";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";
import { useNavigate } from "react-router";
import { api, type ApiError } from "../../app/api";
import { keyOf, reading } from "../../app/queries";
import { Button, Dialog, FigureInput, Notice } from "../../ui";
import { exerciseFor, lengthsOf } from "./show";

const FIELD = "mt-1 w-full rounded-[3px] border border-ink3 bg-field px-2 py-1.5 font-normal";

/** What an instructor can do with a floor exercise besides checking its lanes. */
export function FloorTools({ row }: { row: FloorExerciseRow }) {
  const client = useQueryClient();
  const [isChanging, setChanging] = useState(false);
  const [isSure, setSure] = useState(false);
  const [isTypingIn, setTypingIn] = useState(false);
  const act = useMutation<unknown, ApiError, () => Promise<unknown>>({
    mutationFn: (send) => send(),
    onSettled: () => client.invalidateQueries({ queryKey: keyOf("/floor", {}) }),
  });
  const path = `/floor/exercises/${row.id}`;
  const isUnused = row.lanes.length === 0;
  const { title } = row.exercise;
  return (
    <div className="flex flex-wrap items-center gap-2 border-t border-rule-soft px-4 py-2">
      {isUnused ? (
        <Button aria-label={`Change ${title}`} onClick={() => setChanging(true)}>
          Change
        </Button>
      ) : null}
      <Button aria-label={`Type in a worksheet of ${title}`} onClick={() => setTypingIn(true)}>
        Type in a worksheet
      </Button>
      <Button
        aria-label={`Copy ${title}`}
        disabled={act.isPending}
        onClick={() => act.mutate(() => api.post(`${path}/copy`))}
      >
        Copy
      </Button>
      <Button
        aria-label={`${row.isHidden ? "Show" : "Hide"} ${title}`}
        disabled={act.isPending}
        onClick={() => act.mutate(() => api.put(`${path}/hidden`, { isHidden: !row.isHidden }))}
      >
        {row.isHidden ? "Show it to students" : "Hide"}
      </Button>
      {isUnused && !isSure ? (
        <Button aria-label={`Delete ${title}`} onClick={() => setSure(true)}>
          Delete
        </Button>
      ) : null}
      {isUnused && isSure ? (
        <>
          <Button look="act" disabled={act.isPending} onClick={() => act.mutate(() => api.delete(path))}>
            Yes, delete it
          </Button>
          <Button onClick={() => setSure(false)}>Leave it</Button>
        </>
      ) : null}
      {row.isHidden ? <b className="text-contact">hidden from students</b> : null}
      {act.error && !isChanging ? (
        <Notice kind="stop" role="alert">
          {act.error.message}
        </Notice>
      ) : null}
      {isTypingIn ? <WhoseWorksheet row={row} onClose={() => setTypingIn(false)} /> : null}
      {isChanging ? (
        <Change
          row={row}
          error={act.error}
          isPending={act.isPending}
          onSave={(change) => act.mutate(() => api.put(path, change), { onSuccess: () => setChanging(false) })}
          onClose={() => {
            act.reset();
            setChanging(false);
          }}
        />
      ) : null}
    </div>
  );
}

/** Whose paper it is; their lane is opened then, begun if it was not. */
function WhoseWorksheet({ row, onClose }: { row: FloorExerciseRow; onClose(): void }) {
  const navigate = useNavigate();
  const { data, error } = useQuery(reading("/class", {}));
  const [studentId, setStudentId] = useState("");
  const open = useMutation<StartedLane, ApiError, string>({
    mutationFn: (whose) => api.post<StartedLane>(`/floor/exercises/${row.id}/lanes`, { studentId: whose }),
    onSuccess: ({ id }) => void navigate(`/floor/${id}?paper`),
  });
  const problem = error ?? open.error;
  return (
    <Dialog title="Type in a worksheet" isOpen onClose={onClose}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (studentId !== "") open.mutate(studentId);
        }}
      >
        <label className="font-bold">
          Whose worksheet of {row.exercise.title}?
          <select className={FIELD} value={studentId} onChange={({ target }) => setStudentId(target.value)}>
            <option value="">choose a student</option>
            {(data?.students ?? []).map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <p className="text-ink2">
          What is typed in counts as theirs, is marked as typed in by you, and is checked and signed as any other.
        </p>
        {problem ? (
          <Notice kind="stop" role="alert">
            {problem.message}
          </Notice>
        ) : null}
        <Button type="submit" look="act" className="self-start" disabled={studentId === "" || open.isPending}>
          Open the lane
        </Button>
      </form>
    </Dialog>
  );
}

function Change({
  row,
  error,
  isPending,
  onSave,
  onClose,
}: {
  row: FloorExerciseRow;
  error: ApiError | null;
  isPending: boolean;
  onSave(change: FloorChange): void;
  onClose(): void;
}) {
  const { exercise } = row;
  const [title, setTitle] = useState(exercise.title);
  const [machineNumber, setNumber] = useState(exercise.machineNumber ?? "");
  const [drawingNumber, setDrawing] = useState(exercise.drawingNumber ?? "");
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>(() =>
    Object.fromEntries(
      exercise.registers.map((one) => [one.id, lengthsOf(exerciseFor(exercise, one)).show(one.toleranceMm)]),
    ),
  );
  const read = exercise.registers.map((one) => {
    const answer = lengthsOf(exerciseFor(exercise, one)).read(texts[one.id] ?? "");
    return { ...one, mm: "mm" in answer && answer.mm > 0 ? answer.mm : null };
  });
  const odd = read.find(({ mm }) => mm === null);
  const save = (event: FormEvent) => {
    event.preventDefault();
    if (odd) return;
    onSave({
      title,
      machineNumber,
      drawingNumber,
      tolerancesMm: Object.fromEntries(read.map(({ id, mm }) => [id, mm ?? 0])),
    });
  };
  return (
    <Dialog title={exercise.title} isOpen onClose={onClose}>
      <form className="flex flex-col gap-2" onSubmit={save}>
        <label className="font-bold">
          Title
          <input
            className={FIELD}
            value={title}
            onChange={(event) => setTitle(event.target.value)}
            required
            minLength={3}
            maxLength={80}
          />
        </label>
        <label className="font-bold">
          Number on the machine
          <input
            className={`figures block ${FIELD} !w-32`}
            value={machineNumber}
            onChange={(event) => setNumber(event.target.value)}
            maxLength={12}
          />
        </label>
        <label className="font-bold">
          Drawing number
          <input
            className={`figures block ${FIELD} !w-56`}
            value={drawingNumber}
            onChange={(event) => setDrawing(event.target.value)}
            maxLength={24}
          />
        </label>
        <fieldset className="grid grid-cols-2 gap-x-4 gap-y-1">
          <legend className="font-bold">Tolerance of each, ±</legend>
          {exercise.registers.map(({ id, label }) => (
            <label key={id} className="flex items-center justify-between gap-2">
              {label}
              <FigureInput
                className="w-24"
                value={texts[id] ?? ""}
                aria-invalid={odd?.id === id}
                onChange={(event) => setTexts({ ...texts, [id]: event.target.value })}
              />
            </label>
          ))}
        </fieldset>
        {odd ? (
          <Notice kind="stop" role="alert">
            The tolerance of {odd.label} is no length above zero: type one.
          </Notice>
        ) : null}
        <p className="flex gap-2">
          <Button look="act" type="submit" disabled={odd !== undefined || title.trim().length < 3 || isPending}>
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
    </Dialog>
  );
}
