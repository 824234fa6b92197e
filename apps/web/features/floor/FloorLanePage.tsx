import {
  floorGatesOf,
  isReadOff,
  termsOffered,
  type FloorEntry,
  type FloorExercise,
  type FloorRegister,
  type FloorState,
  type StoredFloorEntry,
} from "@probe-lane/core/floor";
import type { FloorLaneView } from "@probe-lane/contract";
import type { TermName } from "@probe-lane/core/lane";
import { floorCautions, floorGateWords, floorSignatureWords, termWords } from "@probe-lane/core/words";
import { FileInput, Hand, X } from "lucide-react";
import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { Shell } from "../../app/Shell";
import { Button, LaneRule, Loading, Notice, PageError, Panel } from "../../ui";
import { CheckSheet } from "./CheckSheet";
import { FloorWalk } from "./FloorWalk";
import { FloorRulingView } from "./FloorRulingView";
import { ImportForm } from "./ImportForm";
import { LengthForm } from "./Length";
import { MeasuredPart } from "./MeasuredPart";
import { exerciseFor, lengthsOf, drawingOf, machineOf } from "./show";
import { Signed } from "./Signed";
import { useFloorLane } from "./useFloorLane";
import { useKeptHere, type KeptHere } from "./useKeptHere";
import { Given, workingLines } from "./Working";

const KEPT: Record<KeptHere, string> = {
  asking: "",
  kept: " · This page opens on this device without a network, too.",
  notHere:
    " · Without a network this page does not open again here: this browser keeps pages only of an address that it trusts. What you enter is kept while it is open, and after.",
};

/** A lane at a real machine: the student's side beside it, the instructor's check of it. */
export function FloorLanePage() {
  const { id = "" } = useParams();
  const { view, state, error, waiting, refused, write, writeFromPaper } = useFloorLane(id);
  const [isTypingIn, setTypingIn] = useSearchFlag("paper");
  const kept = useKeptHere(id);
  if (error && !view)
    return (
      <Shell title="Floor lane">
        <PageError error={error} />
      </Shell>
    );
  if (!view || !state) return <Loading />;
  const mayTypeIn = view.mayMark && !state.handedIn;
  const gates = floorGatesOf(state).map(({ name, isPassed }) => ({ name, isPassed, label: floorGateWords[name] }));
  return (
    <Shell
      title={view.exercise.title}
      detail={
        view.isInstructor
          ? [view.studentName, `at the ${machineOf(view.exercise)}`, drawingOf(view.exercise)]
              .filter(Boolean)
              .join(" · ")
          : [
              `at the ${machineOf(view.exercise)}`,
              drawingOf(view.exercise),
              view.exercise.datum,
              view.attempt > 1 ? `attempt ${view.attempt}` : "",
            ]
              .filter(Boolean)
              .join(" · ")
      }
    >
      <div className="mx-auto flex max-w-2xl flex-col gap-3 text-[15px]">
        <h2 className="text-lg font-bold sm:hidden">
          {view.exercise.title}
          {view.attempt > 1 ? `, attempt ${view.attempt}` : ""}
        </h2>
        <LaneRule isSmall gates={gates} label="Gates of this lane" />
        <ol aria-hidden className="-mt-2 flex flex-wrap gap-x-3 text-xs">
          {gates.map(({ name, label, isPassed }) => (
            <li key={name} className={isPassed ? "" : "text-ink2"}>
              {isPassed ? "✓ " : "· "}
              {label}
            </li>
          ))}
        </ol>
        {waiting > 0 ? (
          <Notice role="status">
            {waiting === 1 ? "1 entry waits" : `${waiting} entries wait`} on this device and will be sent when the
            server answers. Nothing is lost if you close the page.
          </Notice>
        ) : null}
        {refused ? (
          <Notice kind="stop" role="alert">
            {refused}
          </Notice>
        ) : null}
        <TypedIn entries={view.entries} />
        {mayTypeIn ? (
          <p className="no-print flex flex-wrap items-center gap-3">
            <Button className="min-h-11" aria-pressed={isTypingIn} onClick={() => setTypingIn(!isTypingIn)}>
              <FileInput size={16} aria-hidden />{" "}
              {isTypingIn ? "To the check" : `Type in ${view.studentName}’s worksheet`}
            </Button>
            {isTypingIn ? (
              <span className="min-w-48 flex-1 text-ink2">
                What {view.studentName} wrote at the machine, as it stands on the paper. It is kept as typed in by you.
              </span>
            ) : null}
          </p>
        ) : null}
        {mayTypeIn && isTypingIn ? <PaperSheet view={view} state={state} write={writeFromPaper} /> : null}
        {view.isInstructor && !(mayTypeIn && isTypingIn) ? (
          <>
            {state.handUpAtMs === null ? null : (
              <Notice role="alert">
                {view.studentName} has a hand up.{" "}
                <Button className="min-h-11" onClick={() => write({ type: "handAnswered" })}>
                  I have come
                </Button>
              </Notice>
            )}
            <CheckSheet view={view} state={state} write={write} />
          </>
        ) : null}
        {view.isInstructor ? null : (
          <StudentSheet laneId={view.id} exercise={view.exercise} state={state} write={write} />
        )}
        {state.notes.length > 0 ? (
          <Panel title="Kept from “What did I do wrong?”" bodyClassName="p-3">
            {state.notes.map(({ id: note, text }) => (
              <p key={note} className="py-1">
                {text}
              </p>
            ))}
          </Panel>
        ) : null}
        {view.ruling && (state.handedIn ?? (view.isInstructor && !isTypingIn)) ? (
          <FloorRulingView ruling={view.ruling} state={state} />
        ) : null}
        <p className="no-print text-xs text-ink2">
          <Link className="underline" to="/floor">
            All floor lanes
          </Link>
          {KEPT[kept]}
        </p>
      </div>
    </Shell>
  );
}

/** Whether the address says so much: a page that is opened again, or come back to, stands as it did. */
function useSearchFlag(name: string): [boolean, (isOn: boolean) => void] {
  const [search, setSearch] = useSearchParams();
  return [search.has(name), (isOn) => setSearch(isOn ? { [name]: "" } : {}, { replace: true })];
}

/** Whoever reads the lane is told what of it the student did not type. */
function TypedIn({ entries }: { entries: readonly StoredFloorEntry[] }) {
  const struck = new Set(entries.flatMap(({ entry }) => (entry.type === "struck" ? [entry.entry] : [])));
  const typed = entries.filter(
    ({ id, isFromPaper, entry }) => isFromPaper && entry.type !== "struck" && !struck.has(id),
  );
  if (typed.length === 0) return null;
  const names = [...new Set(typed.map(({ by }) => by).filter((by) => by !== ""))].join(", ");
  return (
    <p role="note" className="text-ink2">
      {typed.length === 1 ? "1 entry was" : `${typed.length} entries were`} typed in from the worksheet
      {names === "" ? "" : ` by ${names}`}.
    </p>
  );
}

/** A student's worksheet on its way from the paper: the same registers, and no more than stands on it. */
function PaperSheet({
  view: { exercise, entries },
  state,
  write,
}: {
  view: FloorLaneView;
  state: FloorState;
  write(...entries: FloorEntry[]): void;
}) {
  // what the student entered is the student's to strike
  const foreign = new Set(entries.flatMap(({ id, isFromPaper }) => (isFromPaper ? [] : [id])));
  return (
    <>
      {state.hasReadCautions ? null : (
        <Panel title="Before anything was touched" bodyClassName="flex flex-col gap-3 p-3">
          <p>The worksheet begins with the cautions, and the student’s mark that they were read.</p>
          <Button look="act" className="min-h-11 self-start" onClick={() => write({ type: "cautionsRead" })}>
            They are marked as read
          </Button>
        </Panel>
      )}
      {exercise.registers.map((register) => (
        <RegisterCard
          key={register.id}
          exercise={exercise}
          register={register}
          state={state}
          write={write}
          mayStrike={(entry) => !foreign.has(entry)}
        />
      ))}
      <HandIn state={state} write={write} />
    </>
  );
}

/** On a screen of this width a register has one to itself. */
const PHONE = "(max-width: 640px)";

function StudentSheet({
  laneId,
  exercise,
  state,
  write,
}: {
  laneId: string;
  exercise: FloorExercise;
  state: FloorState;
  write(...entries: FloorEntry[]): void;
}) {
  const [isOneByOne, setIsOneByOne] = useState(() => matchMedia(PHONE).matches);
  const finish = <Finish exercise={exercise} state={state} write={write} />;
  if (state.handedIn) return <Notice>Handed in. The ruling stands below.</Notice>;
  return (
    <>
      <details open={!state.hasReadCautions} className="rounded-panel border border-rule bg-panel">
        <summary className="min-h-11 cursor-pointer px-3 py-2.5 font-bold">
          Before you touch anything{state.hasReadCautions ? " ✓ read" : ""}
        </summary>
        <div className="border-t border-rule-soft p-3">
          <ul className="list-disc pl-5">
            {floorCautions.map((words) => (
              <li key={words} className="py-0.5">
                {words}
              </li>
            ))}
          </ul>
          {state.hasReadCautions ? null : (
            <Button look="act" className="mt-3 min-h-11" onClick={() => write({ type: "cautionsRead" })}>
              I have read these
            </Button>
          )}
        </div>
      </details>
      {state.hasReadCautions ? (
        <>
          {isOneByOne ? (
            <FloorWalk laneId={laneId} state={state} write={write} finish={finish} />
          ) : (
            exercise.registers.map((register) => (
              <RegisterCard key={register.id} exercise={exercise} register={register} state={state} write={write} />
            ))
          )}
          {isOneByOne ? null : finish}
          <p className="no-print flex flex-wrap gap-2">
            <HandButton isUp={state.handUpAtMs !== null} write={write} />
            <Button className="min-h-11" onClick={() => setIsOneByOne(!isOneByOne)}>
              {isOneByOne ? "All registers on one page" : "One register at a time"}
            </Button>
          </p>
        </>
      ) : null}
    </>
  );
}

/** Raised, it stands on the wall until somebody has come, or it is taken down. */
function HandButton({ isUp, write }: { isUp: boolean; write(...entries: FloorEntry[]): void }) {
  return (
    <Button
      className={`min-h-11 ${isUp ? "border-contact text-contact" : ""}`}
      aria-pressed={isUp}
      onClick={() => write({ type: isUp ? "handLowered" : "handRaised" })}
    >
      <Hand size={16} aria-hidden /> {isUp ? "Hand is up: take it down" : "Raise a hand"}
    </Button>
  );
}

/** What stands after the registers: what the control can say of them, the first part, signature and hand-in. */
function Finish({
  exercise,
  state,
  write,
}: {
  exercise: FloorExercise;
  state: FloorState;
  write(...entries: FloorEntry[]): void;
}) {
  const isSigned = state.signature.state === "given";
  return (
    <>
      <ImportForm exercise={exercise} write={write} />
      {isSigned || state.parts.length > 0 ? <MeasuredPart state={state} write={write} /> : null}
      <HandIn state={state} write={write} />
    </>
  );
}

function HandIn({ state, write }: { state: FloorState; write(...entries: FloorEntry[]): void }) {
  const [isSure, setIsSure] = useState(false);
  const isSigned = state.signature.state === "given";
  return (
    <Panel title="Sign-off and hand-in" bodyClassName="flex flex-col gap-3 p-3">
      {isSigned ? (
        <p>
          <Signed state={state} /> You may go on.
        </p>
      ) : (
        <p role="status">
          <b className="text-contact">{floorSignatureWords(state.signature)}</b> No cycle start before it is checked and
          signed.
        </p>
      )}
      {isSure ? (
        <p className="flex flex-wrap gap-2">
          <Button look="act" className="min-h-11" onClick={() => write({ type: "handedIn" })}>
            Yes, hand in
          </Button>
          <Button className="min-h-11" onClick={() => setIsSure(false)}>
            Go on working
          </Button>
        </p>
      ) : (
        <Button className="min-h-11 self-start" disabled={!isSigned} onClick={() => setIsSure(true)}>
          Hand in
        </Button>
      )}
    </Panel>
  );
}

function RegisterCard({
  exercise,
  register,
  state,
  write,
  mayStrike = () => true,
}: {
  exercise: FloorExercise;
  register: FloorRegister;
  state: FloorState;
  write(...entries: FloorEntry[]): void;
  mayStrike?: (entry: string) => boolean;
}) {
  const offered: TermName[] = [...termsOffered(register).map((one) => one.term), "other"];
  const [term, setTerm] = useState<TermName>(offered[0] ?? "other");
  const own = exerciseFor(exercise, register);
  const { show } = lengthsOf(own);
  const sum = state.sums[register.id];
  const value = state.registers[register.id];
  const lines = workingLines(state, register);
  return (
    <Panel
      title={register.label}
      note={value ? <b className="figures text-base text-ink">{show(value.mm)}</b> : "not set yet"}
      bodyClassName="flex flex-col gap-3 p-3"
    >
      <Given exercise={exercise} register={register} />
      {lines.length > 0 ? (
        <ul>
          {lines.map(({ id, mm, label }) => (
            <li key={id} className="flex items-center gap-2 border-b border-rule-soft">
              <span className="flex-1">{label}</span>
              <span className="figures">{show(mm)}</span>
              {mayStrike(id) ? (
                <Button
                  look="quiet"
                  className="min-h-11 min-w-11 justify-center"
                  aria-label={`Strike ${label} ${show(mm)}`}
                  onClick={() => write({ type: "struck", entry: id })}
                >
                  <X size={16} aria-hidden />
                </Button>
              ) : null}
            </li>
          ))}
        </ul>
      ) : null}
      {isReadOff(register) ? null : (
        <>
          <LengthForm
            exercise={exercise}
            label={`reading, ${exercise.unit}`}
            act="Add reading"
            onTake={(mm) => write({ type: "reading", register: register.id, mm })}
          />
          <LengthForm
            exercise={exercise}
            label="amount with its sign"
            act="Add term"
            onTake={(mm) => write({ type: "term", register: register.id, term, mm })}
          >
            <label className="text-xs text-ink2">
              what lies between
              <select
                value={term}
                onChange={(event) => setTerm(event.target.value as TermName)}
                className="block min-h-11 max-w-44 rounded-[3px] border border-ink3 bg-field px-2 text-base text-ink"
              >
                {offered.map((name) => (
                  <option key={name} value={name}>
                    {termWords[name]}
                  </option>
                ))}
              </select>
            </label>
          </LengthForm>
          <LengthForm
            exercise={exercise}
            label={sum ? `my sum, now ${show(sum.mm)}` : "my sum"}
            act="Write sum"
            onTake={(mm) => write({ type: "sum", register: register.id, mm })}
          />
        </>
      )}
      <LengthForm
        exercise={own}
        label={value ? `in the control, now ${show(value.mm)}` : "as it stands in the control"}
        act="Enter register"
        onTake={(mm) => write({ type: "register", register: register.id, mm })}
      />
    </Panel>
  );
}
