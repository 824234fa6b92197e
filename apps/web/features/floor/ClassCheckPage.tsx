import type { FloorClassView } from "@probe-lane/contract";
import type { FloorEntry, FloorExercise, FloorRegister } from "@probe-lane/core/floor";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Check } from "lucide-react";
import { useRef, useState, type FormEvent } from "react";
import { useParams } from "react-router";
import { v4 } from "uuid";
import { api, type ApiError } from "../../app/api";
import { useEvents } from "../../app/events";
import { keyOf, reading } from "../../app/queries";
import { Button, FigureInput, Loading, Notice, PageError, Panel, TextLink } from "../../ui";
import { CheckMethodSelect, TOUCH, uOf, type CheckMethod } from "./CheckMethod";
import { exerciseFor, lengthsOf, machineOf } from "./show";

type Lane = FloorClassView["lanes"][number];
type Typed = Readonly<Record<string, string>>;

/** Where the stream does not come through: a page that listens is told at once. */
const REFRESH_MS = 30_000;

const SIGNED: Record<Lane["signature"], string> = {
  none: "not signed",
  given: "signed",
  withdrawn: "withdrawn",
  sentBack: "sent back",
};

interface ReadCheck {
  readonly register: FloorRegister;
  readonly own: FloorExercise;
  /** What is typed, read; null where nothing is typed or it is no length. */
  readonly mm: number | null;
  readonly problem: string | null;
}

function readChecks(exercise: FloorExercise, typed: Typed): ReadCheck[] {
  return exercise.registers.map((register) => {
    const own = exerciseFor(exercise, register);
    const text = typed[register.id] ?? "";
    if (text.trim() === "") return { register, own, mm: null, problem: null };
    const read = lengthsOf(own).read(text);
    return "mm" in read
      ? { register, own, mm: read.mm, problem: null }
      : { register, own, mm: null, problem: read.problem };
  });
}

/** What a lane holds in a register, and how far that is from what it should be: as checked, or as typed just now. */
function HeldCell({ lane, check: { register, own, mm } }: { lane: Lane; check: ReadCheck }) {
  const { show } = lengthsOf(own);
  const held = lane.held[register.id];
  if (!held || held.mm === null)
    return (
      <span className="text-ink3">
        <span aria-hidden>–</span>
        <span className="sr-only">not entered</span>
      </span>
    );
  const should = mm ?? held.shouldMm;
  const off = should === null ? null : held.mm - should;
  const isOff = off !== null && Math.abs(off) > register.toleranceMm;
  return (
    <span className="figures whitespace-nowrap">
      <span className="text-base">{show(held.mm)}</span>
      <span className={`block text-xs ${isOff ? "font-bold text-contact" : "text-ink2"}`}>
        {held.isDisputed && mm === null ? "checks contradict each other" : null}
        {off !== null ? `${isOff ? "off " : "✓ "}${show(off)}` : null}
        {off === null && held.isJudged ? "✓ touched" : null}
      </span>
    </span>
  );
}

/**
 * One machine that a class has set up one after the other: what it should hold is read once, and entered as a check of
 * every lane that is ticked.
 */
export function ClassCheckPage() {
  const { id = "" } = useParams();
  const client = useQueryClient();
  const { data, error } = useQuery({ ...reading("/floor/exercises/:id/class", { id }), refetchInterval: REFRESH_MS });
  const reread = () => void client.invalidateQueries({ queryKey: keyOf("/floor/exercises/:id/class", { id }) });
  useEvents("/api/wall/stream", { open: reread, class: reread });
  if (error && !data) return <PageError error={error} />;
  if (!data) return <Loading />;
  return <ClassCheck key={id} exerciseId={id} view={data} />;
}

function ClassCheck({ exerciseId, view: { exercise, lanes } }: { exerciseId: string; view: FloorClassView }) {
  const client = useQueryClient();
  const [typed, setTyped] = useState<Typed>({});
  const [method, setMethod] = useState<CheckMethod>(TOUCH);
  // ticked one by one: a lane that was set up otherwise has another truth
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const [said, setSaid] = useState<string | null>(null);
  // a check that is sent again after its answer was lost is the same check
  const ids = useRef(new Map<string, string>());
  const idOf = (what: string): string => {
    const held = ids.current.get(what) ?? v4();
    ids.current.set(what, held);
    return held;
  };
  const checks = readChecks(exercise, typed);
  const chosen = lanes.filter(({ id }) => ticked.has(id));
  const wanted = checks.flatMap(({ register, mm }) => (mm === null ? [] : [{ register, mm }]));
  /** What is sent to each lane: only of registers that it holds. */
  const entriesOf = ({ held }: Lane): FloorEntry[] =>
    wanted.flatMap(({ register, mm }): FloorEntry[] =>
      held[register.id]?.mm == null ? [] : [{ type: "check", register: register.id, method, mm, uMm: uOf(method) }],
    );
  const enter = useMutation<number, ApiError>({
    mutationFn: async () => {
      let count = 0;
      for (const lane of chosen) {
        const entries = entriesOf(lane).map((entry) => ({
          id: idOf(`${lane.id} ${JSON.stringify(entry)}`),
          atMs: Date.now(),
          entry,
        }));
        if (entries.length > 0) await api.post(`/floor/lanes/${lane.id}/entries`, { entries });
        // what is in is not sent again if a later one fails
        setTicked((before) => new Set([...before].filter((one) => one !== lane.id)));
        count += entries.length;
      }
      return count;
    },
    onSuccess: (count) => {
      ids.current.clear();
      setTyped({});
      setSaid(count === 1 ? "1 check entered." : `${count} checks entered.`);
    },
    onSettled: () => client.invalidateQueries({ queryKey: keyOf("/floor/exercises/:id/class", { id: exerciseId }) }),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    setSaid(null);
    enter.mutate();
  };
  const tick = (id: string, isOn: boolean) =>
    setTicked((before) => new Set(isOn ? [...before, id] : [...before].filter((one) => one !== id)));
  const problem = checks.find(({ problem: found }) => found !== null);
  const total = chosen.reduce((sum, lane) => sum + entriesOf(lane).length, 0);
  // what is handed in is ruled: a check of it is ticked by itself
  const open = lanes.filter(({ isHandedIn }) => !isHandedIn);
  const isAll = open.length > 0 && open.every(({ id }) => ticked.has(id));
  return (
    <form className="flex flex-col gap-3" onSubmit={submit}>
      <p className="flex flex-wrap items-baseline gap-4">
        <b className="text-lg">
          {exercise.title} · {machineOf(exercise)}
        </b>
        <span className="flex-1 text-ink2">{exercise.datum}</span>
        <TextLink to="/floor">All floor lanes</TextLink>
      </p>
      {lanes.length === 0 ? (
        <Notice>Nobody has begun this exercise. A lane stands here as soon as it is opened at the machine.</Notice>
      ) : null}
      <Panel
        title="What each holds"
        note="read the machine once, type what each register should hold, tick the setups that it is true of"
      >
        <div className="overflow-x-auto">
          <table className="w-full">
            <caption className="sr-only">
              What each student’s setup holds in each register, and how far off it is
            </caption>
            <thead>
              <tr className="align-bottom">
                <th className="sticky left-0 bg-panel px-4 py-2 text-left">
                  <label className="flex items-center gap-2 text-xs text-ink2">
                    <input
                      type="checkbox"
                      className="size-5"
                      checked={isAll}
                      disabled={open.length === 0}
                      onChange={({ target }) => setTicked(new Set(target.checked ? open.map(({ id }) => id) : []))}
                    />
                    all setups
                  </label>
                </th>
                {checks.map(({ register, own, problem: found }) => (
                  <th key={register.id} className="px-2 py-2 text-left">
                    <label className="block text-xs text-ink2">
                      <b className="block text-sm text-ink">{register.label}</b>
                      should hold, ±{lengthsOf(own).show(register.toleranceMm)}
                      <FigureInput
                        className="block min-h-11 w-28 text-base font-normal text-ink"
                        value={typed[register.id] ?? ""}
                        aria-invalid={found !== null}
                        onChange={({ target }) => {
                          setSaid(null);
                          setTyped((before) => ({ ...before, [register.id]: target.value }));
                        }}
                      />
                    </label>
                  </th>
                ))}
                <th className="px-2 py-2 text-left text-xs font-bold text-ink2">Signature</th>
              </tr>
            </thead>
            <tbody>
              {lanes.map((lane) => (
                <tr key={lane.id} className="border-t border-rule-soft align-top">
                  <th scope="row" className="sticky left-0 bg-panel px-4 py-1.5 text-left whitespace-nowrap">
                    <label className="flex min-h-11 items-center gap-2">
                      <input
                        type="checkbox"
                        className="size-5"
                        checked={ticked.has(lane.id)}
                        onChange={({ target }) => tick(lane.id, target.checked)}
                      />
                      {lane.studentName}
                      {lane.attempt > 1 ? (
                        <span className="font-normal text-ink2">, attempt {lane.attempt}</span>
                      ) : null}
                    </label>
                  </th>
                  {checks.map((check) => (
                    <td key={check.register.id} className="px-2 py-1.5">
                      <HeldCell lane={lane} check={check} />
                    </td>
                  ))}
                  <td className="px-2 py-1.5 whitespace-nowrap">
                    <TextLink to={`/floor/${lane.id}`}>
                      {SIGNED[lane.signature]}
                      <span className="sr-only"> of {lane.studentName}</span>
                    </TextLink>
                    {lane.isHandedIn ? <span className="block text-xs text-ink2">handed in</span> : null}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </Panel>
      <div className="flex flex-wrap items-center gap-3">
        <label className="flex items-center gap-2">
          read by
          <CheckMethodSelect value={method} onChange={setMethod} />
        </label>
        <Button
          look="act"
          type="submit"
          className="min-h-11"
          disabled={total === 0 || problem !== undefined || enter.isPending}
        >
          <Check size={16} aria-hidden />{" "}
          {total === 0 ? "Enter the checks" : `Enter ${total} ${total === 1 ? "check" : "checks"}`}
        </Button>
        <span role="status" className="text-ink2">
          {said ?? "Each setup is signed on its own page: a signature is of what its signer saw."}
        </span>
      </div>
      {problem ? (
        <Notice kind="stop" role="alert">
          {problem.register.label}: {problem.problem}
        </Notice>
      ) : null}
      {enter.error ? (
        <Notice kind="stop" role="alert">
          {enter.error.message} The setups that are still ticked have not got it.
        </Notice>
      ) : null}
    </form>
  );
}
