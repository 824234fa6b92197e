import { useMe } from "../../../app/session";
import { keyOf, reading } from "../../../app/queries";
import type { LaneNote, ReviewView } from "@probe-lane/contract";
import { framesOf, type Moment, type MomentKind } from "@probe-lane/core/review";
import type { Observation } from "@probe-lane/core/bench";
import type { Axis } from "@probe-lane/core/registers";
import { gateWords, incidentWords } from "@probe-lane/core/words";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ChevronFirst, ChevronLast, Pause, Pin, Play, SkipBack, SkipForward, X } from "lucide-react";
import { Slider } from "radix-ui";
import { useEffect, useMemo, useRef, useState, type FormEvent } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { api, type ApiError } from "../../../app/api";
import { Shell } from "../../../app/Shell";
import { Button, LaneRule, Loading, Notice, PageError, Panel } from "../../../ui";
import { HandoverBar } from "../lane/HandoverBar";
import { stillView } from "../lane/laneLink";
import { LedgerPanel } from "../lane/LedgerPanel";
import { Position } from "../lane/Position";
import { RegisterPanel } from "../lane/RegisterPanel";
import { benchKitFor } from "../machines";
import { clockOf, indexOfSeq, jumpTo, stayMs } from "./reviewView";
import { nextFraming, type Framing } from "../lane/camera";
import type { Control } from "../lane/kit";
import { ScenePanel } from "../lane/ScenePanel";

const SPEEDS = [1, 4, 16] as const;
/** What the two jump buttons stop at. */
const LANDMARKS: ReadonlySet<MomentKind> = new Set(["capture", "incident"]);
const MARK: Partial<Record<MomentKind, string>> = {
  capture: "h-3 w-[3px] bg-expected",
  contact: "h-1.5 w-px bg-ink3",
  incident: "h-4 w-[3px] bg-contact",
};
const KIND_WORDS: Record<MomentKind, string> = {
  capture: "register",
  contact: "contact",
  incident: "incident",
  check: "check",
  refused: "refused",
  step: "",
  move: "",
};

/** Replays a lane through its log: a student's own after hand-in, any lane of the class for its instructor. */
export function ReviewPage() {
  const { id = "" } = useParams();
  const { data, error } = useQuery({
    ...reading("/lanes/:id/review", { id }),
    refetchOnWindowFocus: false,
    staleTime: Infinity,
    gcTime: 0,
  });
  if (error) {
    return (
      <Shell title="Replay">
        <PageError error={error} />
        {error.code === "notHandedIn" ? (
          <p className="mx-auto max-w-xl px-8">
            <Link className="font-bold text-contact underline" to={`/lanes/${id}`}>
              Go to the bench
            </Link>
          </p>
        ) : null}
      </Shell>
    );
  }
  return data ? <Replay view={data} /> : <Loading />;
}

const NOTHING_POINTED: ReadonlySet<Control> = new Set();

/** Where one goes from here: to what it came to, which is not for who only helps, or to the bench. */
function Aside({ laneId, isHandedIn }: { laneId: string; isHandedIn: boolean }) {
  const { me } = useMe();
  if (isHandedIn && me?.role === "assistant") return null;
  return (
    <Link
      className="text-xs font-bold text-expected underline"
      to={isHandedIn ? `/lanes/${laneId}/ruling` : `/lanes/${laneId}`}
    >
      {isHandedIn ? "Ruling" : "Bench as it is now"}
    </Link>
  );
}

function Replay({ view }: { view: ReviewView }) {
  const { lane, review, notes, canWrite } = view;
  const { moments } = review;
  const frames = useMemo(() => framesOf(review), [review]);
  const [asked, setAsked] = useSearchParams();
  const [index, setIndex] = useState(() => (asked.has("seq") ? indexOfSeq(moments, Number(asked.get("seq"))) : 0));
  const [isPlaying, setIsPlaying] = useState(false);
  const [speed, setSpeed] = useState<(typeof SPEEDS)[number]>(4);
  const [isInSpace, setInSpace] = useState(false);
  const [framing, setFraming] = useState<Framing>("near");
  const [tab, setTab] = useState<"moments" | "ledger">("moments");
  const last = moments.length - 1;

  useEffect(() => {
    if (!isPlaying) return undefined;
    const timer = setTimeout(
      () => {
        if (index >= last) setIsPlaying(false);
        else setIndex(index + 1);
      },
      stayMs(moments, index, speed),
    );
    return () => clearTimeout(timer);
  }, [isPlaying, index, last, moments, speed]);

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const isTyping = (event.target as HTMLElement | null)?.closest("input, textarea") !== null;
      if (!isTyping && !event.ctrlKey && !event.metaKey && event.key.toLowerCase() === "f") setFraming(nextFraming);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);

  const go = (to: number | null) => {
    if (to === null) return;
    setIsPlaying(false);
    setIndex(to);
    setAsked({ seq: String(moments[to]?.seq ?? 1) }, { replace: true });
  };
  const seen = frames[index];
  const moment = moments[index];
  if (!seen || !moment) return null;
  const kit = benchKitFor(seen.kind);
  const incident = seen.incidents.at(-1);
  const still = stillView(seen);
  const gates = seen.gates.map((gate) => ({ name: gate.name, isPassed: gate.isPassed, label: gateWords(gate) }));
  const back = jumpTo(moments, notes, index, -1, LANDMARKS);
  const on = jumpTo(moments, notes, index, 1, LANDMARKS);
  const axis = movedAxis(frames[index - 1], seen);
  return (
    <Shell
      isFull
      title={`Replay: ${seen.sheet.title}`}
      detail={`${canWrite ? `${lane.studentName} · ` : ""}attempt ${lane.attempt} · ${moments.length} entries`}
      aside={<Aside laneId={lane.id} isHandedIn={seen.isHandedIn || lane.handedInAt !== null} />}
    >
      <LaneRule gates={gates} label="Gates passed at this moment" />
      <div className="flex min-h-0 flex-1 flex-col gap-2 overflow-auto p-2">
        {seen.sheet.handover ? <HandoverBar seen={seen} send={() => undefined} isReadOnly /> : null}
        <div className="grid min-h-0 flex-1 grid-cols-[minmax(396px,1.5fr)_minmax(318px,1fr)_minmax(236px,0.8fr)] gap-2 xl:grid-cols-[minmax(480px,1.6fr)_minmax(356px,1fr)_minmax(284px,0.84fr)]">
          <ScenePanel
            part={null}
            isPart={false}
            view={still}
            kit={kit}
            framing={framing}
            lastAxis={axis}
            send={() => undefined}
            isReadOnly
            onFraming={() => setFraming(nextFraming)}
            isInSpace={isInSpace}
            onSpace={() => setInSpace(!isInSpace)}
            onJog={null}
            pointed={NOTHING_POINTED}
            stopsAt=""
            incident={incident ? incidentWords[incident] : null}
          />
          <div className="flex min-h-0 flex-col gap-2">
            <Position view={still} kit={kit} lastAxis={axis} isReadOnly onZeroCounter={() => undefined} />
            <RegisterPanel ref={null} view={still} kit={kit} send={() => undefined} isReadOnly open={() => undefined} />
          </div>
          <div className="flex min-h-0 flex-col gap-2">
            <div role="tablist" aria-label="Beside the replay" className="flex gap-1">
              {(["moments", "ledger"] as const).map((name) => (
                <button
                  key={name}
                  type="button"
                  role="tab"
                  aria-selected={tab === name}
                  onClick={() => setTab(name)}
                  className={`border-b-2 px-2 py-1 ${tab === name ? "border-contact font-bold" : "border-transparent text-ink2"}`}
                >
                  {name === "moments" ? "Log and notes" : "Ledger then"}
                </button>
              ))}
            </div>
            {tab === "moments" ? (
              <Moments laneId={lane.id} moments={moments} notes={notes} index={index} canWrite={canWrite} go={go} />
            ) : (
              <LedgerPanel ref={null} seen={seen} kit={kit} send={() => undefined} isReadOnly />
            )}
          </div>
        </div>
        <section aria-label="Replay" className="shrink-0 rounded-panel border border-rule bg-panel px-3 py-2">
          <div className="flex items-center gap-2">
            <Button
              look="quiet"
              aria-label="To the start"
              title="To the start"
              disabled={index === 0}
              onClick={() => go(0)}
            >
              <ChevronFirst size={18} aria-hidden />
            </Button>
            <Button
              aria-label="Back to the register, incident or note before"
              title="Register, incident or note before"
              disabled={back === null}
              onClick={() => go(back)}
            >
              <SkipBack size={16} aria-hidden />
            </Button>
            <Button
              look="act"
              className="w-24 justify-center"
              onClick={() => {
                if (index >= last) setIndex(0);
                setIsPlaying(!isPlaying);
              }}
            >
              {isPlaying ? (
                <>
                  <Pause size={16} aria-hidden /> Hold
                </>
              ) : (
                <>
                  <Play size={16} aria-hidden /> Replay
                </>
              )}
            </Button>
            <Button
              aria-label="On to the next register, incident or note"
              title="Next register, incident or note"
              disabled={on === null}
              onClick={() => go(on)}
            >
              <SkipForward size={16} aria-hidden />
            </Button>
            <Button
              look="quiet"
              aria-label="To the end"
              title="To the end"
              disabled={index === last}
              onClick={() => go(last)}
            >
              <ChevronLast size={18} aria-hidden />
            </Button>
            <div role="group" aria-label="Speed" className="flex gap-1">
              {SPEEDS.map((one) => (
                <button
                  key={one}
                  type="button"
                  aria-pressed={speed === one}
                  onClick={() => setSpeed(one)}
                  className={`figures rounded-[3px] border px-1.5 py-0.5 text-xs ${speed === one ? "border-ink bg-ink font-bold text-panel" : "border-ink3 bg-field"}`}
                >
                  {one}×
                </button>
              ))}
            </div>
            <p data-testid="moment" className="min-w-0 flex-1 truncate pl-2 text-[17px]" title={moment.label}>
              {KIND_WORDS[moment.kind] ? (
                <b className={moment.kind === "incident" ? "text-contact" : "text-expected"}>
                  {KIND_WORDS[moment.kind]}{" "}
                </b>
              ) : null}
              {moment.label}
            </p>
            <span className="figures whitespace-nowrap text-ink2">
              {clockOf(moments, index)} · {index + 1}/{moments.length}
            </span>
          </div>
          <div className="relative mt-1.5 px-2">
            <Marks moments={moments} notes={notes} />
            <Slider.Root
              className="relative flex h-5 w-full touch-none items-center"
              min={0}
              max={Math.max(1, last)}
              step={1}
              value={[index]}
              onValueChange={([to]) => go(to ?? 0)}
            >
              <Slider.Track className="relative h-1.5 flex-1 bg-rule">
                <Slider.Range className="absolute h-full bg-ink" />
              </Slider.Track>
              <Slider.Thumb
                aria-label="Entry of the log"
                aria-valuetext={`${index + 1} of ${moments.length}: ${moment.label}`}
                className="block h-5 w-3 rounded-[3px] border-2 border-panel bg-contact"
              />
            </Slider.Root>
          </div>
        </section>
      </div>
    </Shell>
  );
}

/** The axis that moved to come here; X when none did. */
function movedAxis(before: Observation | undefined, now: Observation): Axis {
  return (["x", "y", "z"] as const).find((axis) => before && before.machine[axis] !== now.machine[axis]) ?? "x";
}

/** Where registers were set, contacts made, incidents and notes: small marks over the scrubber. */
function Marks({ moments, notes }: { moments: readonly Moment[]; notes: readonly LaneNote[] }) {
  const span = Math.max(1, moments.length - 1);
  return (
    <div aria-hidden className="relative mx-1.5 h-4">
      {moments.map(({ seq, kind }, at) =>
        MARK[kind] ? (
          <span
            key={seq}
            className={`absolute bottom-0 -translate-x-1/2 ${MARK[kind]}`}
            style={{ left: `${(at / span) * 100}%` }}
          />
        ) : null,
      )}
      {notes.map(({ id, seq }) => (
        <Pin
          key={id}
          size={13}
          className="absolute -top-0.5 -ml-1.5 text-ink"
          style={{ left: `${(indexOfSeq(moments, seq) / span) * 100}%` }}
        />
      ))}
    </div>
  );
}

function Moments({
  laneId,
  moments,
  notes,
  index,
  canWrite,
  go,
}: {
  laneId: string;
  moments: readonly Moment[];
  notes: readonly LaneNote[];
  index: number;
  canWrite: boolean;
  go(to: number): void;
}) {
  const client = useQueryClient();
  const [text, setText] = useState("");
  const shown = useMemo(() => {
    const noted = new Set(notes.map(({ seq }) => seq));
    return moments
      .map((moment, at) => ({ moment, at }))
      .filter(({ moment }) => moment.kind !== "move" || noted.has(moment.seq));
  }, [moments, notes]);
  const here = shown.findLast(({ at }) => at <= index)?.at ?? 0;
  const list = useRef<HTMLOListElement>(null);
  useEffect(() => {
    list.current?.querySelector(`[data-at="${here}"]`)?.scrollIntoView({ block: "nearest" });
  }, [here, notes]);
  const refresh = () => client.invalidateQueries({ queryKey: keyOf("/lanes/:id/review", { id: laneId }) });
  const seq = moments[index]?.seq ?? 1;
  const pin = useMutation<unknown, ApiError>({
    mutationFn: () => api.post(`/lanes/${laneId}/notes`, { seq, text }),
    onSuccess: async () => {
      setText("");
      await refresh();
    },
  });
  const remove = useMutation<unknown, ApiError, string>({
    mutationFn: (id) => api.delete(`/lanes/${laneId}/notes/${id}`),
    onSuccess: refresh,
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (text.trim()) pin.mutate();
  };
  const failed = pin.error ?? remove.error;
  return (
    <Panel
      title="What was done"
      note={
        canWrite ? null : `${notes.length === 0 ? "no notes" : notes.length === 1 ? "1 note" : `${notes.length} notes`}`
      }
      className="flex-1"
      bodyClassName="flex flex-col"
    >
      <ol ref={list} className="min-h-0 flex-1 overflow-y-auto">
        {shown.map(({ moment, at }) => (
          <li key={moment.seq} data-at={at} className="border-b border-rule-soft">
            <button
              type="button"
              aria-current={at === here ? "step" : undefined}
              onClick={() => go(at)}
              className={`block w-full px-2 py-1 text-left leading-5 hover:bg-well ${at === here ? "bg-contact-soft" : ""} ${moment.kind === "incident" ? "font-bold text-contact" : moment.kind === "capture" ? "font-bold" : ""}`}
            >
              <span className="figures mr-1.5 text-xs font-normal text-ink2">{clockOf(moments, at)}</span>
              {moment.label}
            </button>
            {notes
              .filter((note) => note.seq === moment.seq)
              .map((note) => (
                <div
                  key={note.id}
                  className="mx-2 mb-1.5 flex items-start gap-1.5 border-l-4 border-l-expected bg-expected-soft px-2 py-1"
                >
                  <Pin size={14} aria-hidden className="mt-0.5 shrink-0" />
                  <p className="min-w-0 flex-1 break-words">
                    {note.text} <span className="block text-xs text-ink2">{note.by}</span>
                  </p>
                  {canWrite ? (
                    <Button
                      look="quiet"
                      className="!p-0"
                      aria-label={`Take the note away: ${note.text}`}
                      disabled={remove.isPending}
                      onClick={() => remove.mutate(note.id)}
                    >
                      <X size={14} aria-hidden />
                    </Button>
                  ) : null}
                </div>
              ))}
          </li>
        ))}
      </ol>
      {canWrite ? (
        <form onSubmit={submit} className="border-t border-rule p-2">
          <label className="block text-xs text-ink2">
            A note pinned to this moment, for the student
            <textarea
              value={text}
              maxLength={1000}
              rows={2}
              onChange={(event) => setText(event.target.value)}
              className="mt-1 block w-full rounded-[3px] border border-ink3 bg-field p-1 text-[14px] text-ink"
            />
          </label>
          <Button type="submit" className="mt-1" disabled={!text.trim() || pin.isPending}>
            <Pin size={14} aria-hidden /> Pin it here
          </Button>
        </form>
      ) : null}
      {failed ? (
        <Notice kind="stop" role="alert">
          {failed.message}
        </Notice>
      ) : null}
    </Panel>
  );
}
