import { reading } from "../../app/queries";
import type { Command, Observation, PartPicture } from "@probe-lane/core/bench";
import type { JogSize } from "@probe-lane/core/lane";
import type { Axis } from "@probe-lane/core/registers";
import { gateWords, incidentWords } from "@probe-lane/core/words";
import type { LaneView } from "@probe-lane/contract";
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useCallback, useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import { Shell } from "../../app/Shell";
import { LaneRule, Notice } from "../../ui";
import type { ActKey, OpenDialog } from "./lane/act";
import { Aside } from "./lane/Aside";
import { Controls } from "./lane/Controls";
import { BenchDialogs, readOnlyDialogs } from "./lane/dialogs";
import { HandoverBar, JUDGE_ID } from "./lane/HandoverBar";
import { keyAction, jogSizeOrder, type KeyVerb } from "./lane/keys";
import { nextFraming, type Framing } from "./lane/camera";
import type { BenchKit, Control } from "./lane/kit";
import type { LinkView } from "./lane/laneLink";
import { LedgerPanel, type LedgerHandle } from "./lane/LedgerPanel";
import { Position } from "./lane/Position";
import { RegisterPanel, type RegisterPanelHandle } from "./lane/RegisterPanel";
import { ScenePanel } from "./lane/ScenePanel";
import { caption, heardBetween, useSound, type Noise } from "./lane/sound";
import { StopBar } from "./lane/StopBar";
import { RUN_FORM, useRunning } from "./program/useRunning";

/** Its words are many, and no picture waits for them. */
const Coach = lazy(async () => ({ default: (await import("./lane/Coach")).Coach }));
/** As high as most of what the coach says. */
const coachIsComing = <div aria-hidden className="h-16 shrink-0 rounded-panel bg-expected-soft" />;
/** Fetched when a program is looked at. */
const ProgramDesk = lazy(async () => ({ default: (await import("./program/ProgramDesk")).ProgramDesk }));
const PartDesk = lazy(async () => ({ default: (await import("./program/PartDesk")).PartDesk }));
const KeptBar = lazy(async () => ({ default: (await import("./program/KeptBar")).KeptBar }));
const SignBar = lazy(async () => ({ default: (await import("./program/SignBar")).SignBar }));
const RunPanel = lazy(async () => ({ default: (await import("./program/RunPanel")).RunPanel }));

/** What lies beside the registers: the ledger, the program, or the part that it cut. */
type Desk = "ledger" | "program" | "part";
const DESK_WORDS: Record<Desk, string> = { ledger: "Ledger", program: "Program", part: "Part" };

/** What the next gate of the lane is done with. */
function nextDesk({ program, gates }: Observation): Desk {
  const next = gates.find(({ isPassed }) => !isPassed)?.kind ?? "";
  if (PART_GATES.has(next) && program?.run == null) return (program?.parts?.cut ?? 0) > 0 ? "part" : "program";
  return program?.run != null || program?.signature.state === "asked" || PROGRAM_GATES.has(next) ? "program" : "ledger";
}
const PROGRAM_GATES = new Set<string>(["programHeld", "proved", "ran", "partJudged", "partAgain"]);
const PART_GATES = new Set<string>(["partJudged", "partAgain"]);

/** The part that is held, as it was cut; null before that, and until it is drawn. */
function usePart(id: string, { program }: Observation): PartPicture | null {
  const { current = 1, cut = 0 } = program?.parts ?? {};
  const { data, refetch } = useQuery({ ...reading("/lanes/:id/part", { id }), enabled: cut > 0, staleTime: Infinity });
  useEffect(() => {
    if (cut > 0) void refetch();
  }, [current, cut, refetch]);
  return data?.part === current && data.cut === cut ? data.picture : null;
}

/** Clicks of a press with Shift, or while the ten clicks are latched. */
const TEN = 10;
/** Escape that shut a sheet does not stop the machine as well, within this time, ms. */
const SHUT_MS = 600;

export function Bench({
  lane,
  kit,
  view,
  send,
  isReadOnly,
  isWatching = false,
  together = null,
  isFirst = false,
}: {
  lane: LaneView["lane"];
  kit: BenchKit;
  view: LinkView;
  send(command: Command, isRepeat?: boolean): void;
  isReadOnly: boolean;
  isWatching?: boolean;
  /** What comes from others while the lane is worked or watched. */
  together?: ReactNode;
  /** A first start: the sheet lies on top, as it would beside the machine. */
  isFirst?: boolean;
}) {
  // panels that do not show where the machine stands are given `steady`, and are not drawn again by a click of an axis
  const { observation: seen, steady } = view;
  const [size, setSize] = useState<JogSize>("rapid");
  const [lastAxis, setLastAxis] = useState<Axis>("x");
  const [framing, setFraming] = useState<Framing>("auto");
  const [isTen, setTen] = useState(false);
  const [isInSpace, setInSpace] = useState(false);
  const [dialog, setDialog] = useState<OpenDialog>(isFirst ? "sheet" : null);
  const registers = useRef<RegisterPanelHandle>(null);
  const ledger = useRef<LedgerHandle>(null);
  const block = useRef<HTMLInputElement>(null);

  const { program } = seen;
  const hasProgram = program !== undefined || (seen.isCoachOn && kit.runsPrograms(seen));
  const [wanted, setDesk] = useState(() => nextDesk(seen));
  const desks: readonly Desk[] = [
    "ledger",
    ...(hasProgram ? (["program"] as const) : []),
    ...(program?.parts ? (["part"] as const) : []),
  ];
  const desk = desks.includes(wanted) ? wanted : "ledger";
  const otherDesk = desks[(desks.indexOf(desk) + 1) % desks.length] ?? "ledger";
  const isAtProgram = desk !== "ledger";
  const goToOther = useCallback(() => setDesk(otherDesk), [otherDesk]);
  const [lookUpWords, shut] = [useCallback(() => setDialog("words"), []), useCallback(() => setDialog(null), [])];
  const part = usePart(lane.id, seen);
  // a new blank is there to be run
  const current = program?.parts?.current ?? 1;
  const [heldPart, setHeldPart] = useState(current);
  if (heldPart !== current) {
    setHeldPart(current);
    setDesk("program");
  }
  const running = useRunning({ program, isWaiting: view.isWaiting, isReadOnly, send });

  const [isLoud, setLoud] = useState(false);
  const [heard, setHeard] = useState<{ what: Noise | null; count: number; seen: Observation; noticed: string }>(() => ({
    what: null,
    count: 0,
    seen,
    noticed: JSON.stringify(kit.noticed(seen)),
  }));
  if (heard.seen !== seen) {
    const noticed = JSON.stringify(kit.noticed(seen));
    setHeard({
      what: heardBetween(heard.seen, seen, noticed !== heard.noticed, kit.sounds(seen)),
      count: heard.count + 1,
      seen,
      noticed,
    });
  }
  useSound(isLoud, seen, heard);

  const jog = (axis: Axis, direction: 1 | -1, clicks: number, isRepeat = false) => {
    setLastAxis(axis);
    send({ type: "jog", axis, direction, clicks, size }, isRepeat);
  };
  /** Does what stands on the controls under this key; without it the bench says why not. */
  const act = (key: ActKey) => {
    const found = kit.acts(seen).find(({ on }) => on === key);
    if (found?.dialog) setDialog(found.dialog);
    else send(found?.command ?? kit.asks(key, seen));
  };
  const verbs: Record<KeyVerb, () => void> = {
    home: () => send({ type: "home" }),
    door: () => send({ type: "setDoor", isOpen: !seen.isDoorOpen }),
    spindle: () => (seen.spindle.isOn ? send({ type: "stopSpindle" }) : setDialog("speed")),
    drawer: () => setDialog("drawer"),
    look: () => send(kit.asks("look", seen)),
    wobble: () => act("wobble"),
    burr: () => act("burr"),
    paper: () => act("paper"),
    feel: () => act("feel"),
    block: () => act("block"),
    measure: () => setDialog("measure"),
    check: () => setDialog("check"),
    register: () => registers.current?.openCapture(lastAxis),
    typeRegister: () => registers.current?.openTyping(),
    undo: () => send({ type: "undoRegister" }),
    reading: () => ledger.current?.takeReading(lastAxis),
    term: () => ledger.current?.openTerm(lastAxis),
    sum: () => ledger.current?.openSum(lastAxis),
    zeroCounter: () => send({ type: "zeroCounter", axis: lastAxis }),
    typeBlock: () => block.current?.focus(),
    hand: () => send({ type: seen.isHandUp ? "lowerHand" : "raiseHand" }),
    fit: () => setFraming(nextFraming),
    space: () => setInSpace((now) => !now),
    reset: () => send({ type: "reset" }),
    handIn: () => setDialog("handIn"),
    keys: () => setDialog("keys"),
    sheet: () => setDialog("sheet"),
    program: goToOther,
    cycle: () => {
      const form = document.getElementById(RUN_FORM);
      if (form instanceof HTMLFormElement) form.requestSubmit();
      else send({ type: program?.run?.held ? "resumeCycle" : "startCycle" });
    },
    holdFeed: () => send({ type: "holdCycle" }),
    judgeSetup: () => document.getElementById(JUDGE_ID)?.focus(),
  };
  const pointed: ReadonlySet<Control> = useMemo(
    () => new Set(steady.coach ? kit.pointsAt(steady.coach, steady) : []),
    [steady, kit],
  );
  const stopsAt = JSON.stringify([seen.incidents.length, seen.isStopped, view.message, kit.noticed(seen)]);
  /** What was noticed when the key went down that is held now. */
  const heldFrom = useRef(stopsAt);
  /** When Escape shut a sheet: that press does not stop the machine as well; one after a sheet was used does. */
  const shutAt = useRef(-Infinity);
  const readOnlyVerbs = new Set<KeyVerb>(["fit", "space", "keys", "sheet", "program"]);

  const onKey = (event: KeyboardEvent) => {
    const target = event.target as HTMLElement | null;
    // a box that is being filled keeps its keys; a radio button or a pressed button does not hold the bench's keys back
    const box = target?.closest<HTMLElement>("input:not([type=radio]), select, textarea, [role=dialog]");
    // while a program runs, Escape stops it whatever is being filled; a slider keeps its arrows
    const isStop = event.key === "Escape" && program?.run != null && !dialog;
    if (box && !isStop) {
      if (event.key === "Escape" && box.getAttribute("role") !== "dialog") box.blur();
      return;
    }
    if (dialog) return;
    const action = keyAction(event, kit.jogKeys);
    if (!action) return;
    event.preventDefault();
    if (action.type === "size") {
      const at = jogSizeOrder.indexOf(size) + action.step;
      setSize(jogSizeOrder[Math.min(jogSizeOrder.length - 1, Math.max(0, at))] ?? size);
    } else if (action.type === "jog") {
      if (!event.repeat) heldFrom.current = stopsAt;
      // a held key stops at the first thing that is felt, and goes on when it is pressed anew
      else if (heldFrom.current !== stopsAt) return;
      if (!isReadOnly) jog(action.axis, action.direction, isTen ? TEN : action.clicks, event.repeat);
    } else if (action.what === "reset" && performance.now() - shutAt.current < SHUT_MS) {
      return;
    } else if (!event.repeat && (!isReadOnly || readOnlyVerbs.has(action.what))) verbs[action.what]();
  };
  const latest = useRef(onKey);
  useEffect(() => {
    latest.current = onKey;
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => latest.current(event);
    // seen before the sheet itself sees it, and is gone
    const shuts = ({ key }: KeyboardEvent) => {
      if (key === "Escape" && document.querySelector("[role=dialog]")) shutAt.current = performance.now();
    };
    window.addEventListener("keydown", shuts, true);
    window.addEventListener("keydown", listen);
    return () => {
      window.removeEventListener("keydown", shuts, true);
      window.removeEventListener("keydown", listen);
    };
  }, []);

  const gates = useMemo(
    () => steady.gates.map((gate) => ({ name: gate.name, isPassed: gate.isPassed, label: gateWords(gate) })),
    [steady.gates],
  );
  const incident = seen.incidents.at(-1);
  const registerPanel = (
    <RegisterPanel
      ref={registers}
      view={view}
      kit={kit}
      send={send}
      isReadOnly={isReadOnly}
      open={setDialog}
      isPointed={pointed.has("register")}
    />
  );
  return (
    <Shell
      isFull
      title={seen.sheet.title}
      aside={
        <Aside
          lane={lane}
          seen={steady}
          send={send}
          open={setDialog}
          desk={hasProgram ? DESK_WORDS[otherDesk] : null}
          isAtProgram={isAtProgram}
          onDesk={goToOther}
          isLoud={isLoud}
          setLoud={setLoud}
          heard={isLoud ? caption(seen, heard.what) : ""}
          status={view.status}
          isReadOnly={isReadOnly}
          isWatching={isWatching}
          pointed={pointed}
        />
      }
      detail={`${lane.isTrial ? "counts nowhere · " : ""}${isWatching ? `watching ${lane.studentName} · ` : ""}attempt ${lane.attempt} · coach ${seen.isCoachOn ? "on" : "off"}${isReadOnly && !isWatching ? " · handed in" : ""}`}
    >
      <LaneRule gates={gates} label="Gates of this lane" />
      <div data-waiting={view.isWaiting} className="flex min-h-0 flex-1 flex-col gap-2 overflow-auto p-2">
        {view.status === "lost" ? (
          <Notice kind="stop" role="alert">
            Link lost: the machine holds where it is. {view.message}
          </Notice>
        ) : null}
        {view.status === "paused" ? (
          <Notice kind="stop" role="alert">
            {view.message} Nothing is lost; it goes on when the class is let go on.
          </Notice>
        ) : null}
        {together}
        {view.status !== "lost" && view.status !== "paused" && view.status !== "linked" ? (
          <Notice kind="stop" role="alert">
            {view.message}{" "}
            {view.status === "signedOut" ? null : (
              <button type="button" className="font-bold underline" onClick={() => location.reload()}>
                Reload this page
              </button>
            )}
          </Notice>
        ) : null}
        {isWatching && program?.signature.state === "asked" ? (
          <Suspense fallback={null}>
            <SignBar laneId={lane.id} seen={seen} />
          </Suspense>
        ) : null}
        {seen.sheet.kept ? (
          <Suspense fallback={null}>
            <KeptBar seen={steady} send={send} isReadOnly={isReadOnly} pointed={pointed} />
          </Suspense>
        ) : null}
        {seen.sheet.handover ? <HandoverBar seen={steady} send={send} isReadOnly={isReadOnly} /> : null}
        <p className="rounded-panel border border-expected bg-expected-soft px-3 py-1 md:hidden">
          A bench wants more room than a phone has: it works, one thing under the other. Take a tablet or a screen to
          work a whole lane.
        </p>
        <div
          className={`grid gap-2 md:min-h-0 md:flex-1 ${isAtProgram ? "md:grid-cols-[minmax(0,0.62fr)_minmax(0,1fr)] xl:grid-cols-[minmax(0,0.72fr)_minmax(0,1fr)]" : "md:grid-cols-[minmax(0,1.03fr)_minmax(0,1fr)]"}`}
        >
          <div className="flex h-[46rem] flex-col gap-2 md:h-auto md:min-h-0">
            <ScenePanel
              view={view}
              kit={kit}
              framing={framing}
              lastAxis={lastAxis}
              send={send}
              isReadOnly={isReadOnly}
              onFraming={verbs.fit}
              isInSpace={isInSpace}
              part={part}
              isPart={desk === "part"}
              onSpace={verbs.space}
              onJog={
                isReadOnly
                  ? null
                  : (axis, direction, isShifted, isRepeat) =>
                      jog(axis, direction, isTen || isShifted ? TEN : 1, isRepeat)
              }
              incident={incident ? incidentWords[incident] : null}
              pointed={pointed}
              stopsAt={stopsAt}
            />
            {isReadOnly ? null : (
              <Controls
                seen={steady}
                kit={kit}
                send={send}
                size={size}
                setSize={setSize}
                isTen={isTen}
                setTen={setTen}
                open={setDialog}
                pointed={pointed}
              />
            )}
          </div>
          <div className="flex min-h-0 flex-col gap-2">
            {seen.coach ? (
              <Suspense fallback={coachIsComing}>
                <Coach seen={seen} onWords={lookUpWords} isShort={isAtProgram} />
              </Suspense>
            ) : null}
            {desk === "part" ? (
              <Suspense fallback={<p className="flex-1 p-3 text-ink2">Fetching the part …</p>}>
                <PartDesk seen={seen} send={send} isReadOnly={isReadOnly} pointed={pointed} registers={registerPanel} />
              </Suspense>
            ) : (
              <div
                className={`grid gap-2 md:min-h-0 md:flex-1 ${isAtProgram ? "md:grid-cols-[minmax(0,1.05fr)_minmax(0,1fr)] xl:grid-cols-[minmax(0,0.85fr)_minmax(0,1fr)]" : "md:grid-cols-[minmax(0,1.36fr)_minmax(0,1fr)]"}`}
              >
                <div className="flex min-h-0 flex-col gap-2">
                  <Position
                    view={view}
                    kit={kit}
                    lastAxis={lastAxis}
                    isReadOnly={isReadOnly}
                    onZeroCounter={(axis) => send({ type: "zeroCounter", axis })}
                  />
                  {registerPanel}
                </div>
                {isAtProgram ? (
                  <Suspense fallback={<p className="p-3 text-ink2">Fetching the program …</p>}>
                    <ProgramDesk
                      seen={steady}
                      kit={kit}
                      send={send}
                      isReadOnly={isReadOnly}
                      open={setDialog}
                      pointed={pointed}
                    />
                  </Suspense>
                ) : (
                  <LedgerPanel
                    ref={ledger}
                    seen={steady}
                    kit={kit}
                    send={send}
                    isReadOnly={isReadOnly}
                    isPointed={pointed.has("reading")}
                  />
                )}
              </div>
            )}
            {!isReadOnly && (desk === "program" || (isAtProgram && program?.run != null)) ? (
              <Suspense fallback={null}>
                <RunPanel
                  seen={seen}
                  kit={kit}
                  send={send}
                  pointed={pointed}
                  onPart={() => setDesk("part")}
                  {...running}
                />
              </Suspense>
            ) : null}
            {isReadOnly ? null : <StopBar seen={steady} kit={kit} send={send} blockRef={block} pointed={pointed} />}
          </div>
        </div>
      </div>
      <BenchDialogs
        open={isReadOnly && !readOnlyDialogs.has(dialog) ? null : dialog}
        seen={dialog === null ? steady : seen}
        kit={kit}
        send={send}
        onClose={shut}
        isReadOnly={isReadOnly}
      />
    </Shell>
  );
}
