import {
  combineChecks,
  isJudgedWithin,
  lateMinutes,
  signingProblems,
  type FloorEntry,
  type FloorRegister,
  type FloorState,
  type PartRead,
} from "@probe-lane/core/floor";
import type { FloorLaneView } from "@probe-lane/contract";
import { floorSignatureWords, signingWords } from "@probe-lane/core/words";
import { X } from "lucide-react";
import { useState, type FormEvent } from "react";
import { Button, FigureInput, Notice, Panel } from "../../ui";
import { BY_PART, CheckMethodSelect, TOUCH, uOf, type CheckMethod } from "./CheckMethod";
import { CheckByReading } from "./CheckByReading";
import { LengthForm } from "./Length";
import { PartReads } from "./MeasuredPart";
import { exerciseFor, lengthsOf } from "./show";
import { Signed } from "./Signed";
import { Given, workingLines } from "./Working";

interface Props {
  view: FloorLaneView;
  state: FloorState;
  write(...entries: FloorEntry[]): void;
}

/**
 * The instructor's side: check readings are the truth of this lane; then the signature, and what there is to say about
 * safety.
 */
export function CheckSheet({ view, state, write }: Props) {
  return (
    <>
      <Together view={view} state={state} write={write} />
      {view.exercise.registers.map((register) => (
        <RegisterCheck key={register.id} register={register} view={view} state={state} write={write} />
      ))}
      {state.parts.length > 0 ? (
        <Panel title="First part, as the student measured it" bodyClassName="p-3">
          <PartReads state={state} act={(one) => countersigning(state, one)} write={write} />
        </Panel>
      ) : null}
      {view.mayMark ? (
        <>
          <SignOff view={view} state={state} write={write} />
          <Safety view={view} state={state} write={write} />
          {state.handedIn ? <Override view={view} state={state} write={write} /> : null}
        </>
      ) : (
        <Notice>You check; the instructor signs and marks.</Notice>
      )}
    </>
  );
}

/** Several values judged at once: touched, each within its tolerance, and no figure taken of any. */
function Together({ view, state, write }: Props) {
  const open = view.exercise.registers.flatMap((register) => {
    const held = state.registers[register.id];
    const isChecked = state.checks.some((one) => one.register === register.id) || isJudgedWithin(state, register.id);
    return held && !isChecked ? [{ register, mm: held.mm }] : [];
  });
  // ticked one by one: nothing is found good by a click that was meant for something else
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const chosen = open.filter(({ register }) => ticked.has(register.id));
  if (state.handedIn || open.length === 0) return null;
  return (
    <Panel title="Touched, and within tolerance" bodyClassName="flex flex-col gap-2 p-3">
      {open.map(({ register, mm }) => (
        <label key={register.id} className="flex min-h-11 items-center gap-3">
          <input
            type="checkbox"
            className="size-5"
            checked={ticked.has(register.id)}
            onChange={({ target }) =>
              setTicked((held) => {
                const next = new Set(held);
                if (target.checked) next.add(register.id);
                else next.delete(register.id);
                return next;
              })
            }
          />
          <span className="flex-1">{register.label}</span>
          <span className="figures text-lg">{lengthsOf(exerciseFor(view.exercise, register)).show(mm)}</span>
        </label>
      ))}
      <Button
        className="min-h-11 justify-center"
        disabled={chosen.length === 0}
        onClick={() =>
          write(...chosen.map(({ register, mm }): FloorEntry => ({ type: "judgedWithin", register: register.id, mm })))
        }
      >
        {chosen.length > 1 ? `These ${chosen.length} are` : "This one is"} within tolerance, by my own touch
      </Button>
      <p className="text-ink2">
        Tick what you touched yourself and found good: it counts as checked, without a figure. What is off wants a
        reading below, so that the ruling can say why.
      </p>
    </Panel>
  );
}

/** A feature of the first part, countersigned, is a check of its register; once. */
function countersigning(state: FloorState, { register, wantedMm, uMm }: PartRead) {
  if (wantedMm === null) return null;
  const isTaken = state.checks.some(
    (one) => one.register === register && one.method === BY_PART && one.mm === wantedMm,
  );
  if (isTaken) return null;
  return {
    words: "Take it as a check",
    entry: { type: "check", register, method: BY_PART, mm: wantedMm, uMm } satisfies FloorEntry,
  };
}

function RegisterCheck({ register, view, state, write }: Props & { register: FloorRegister }) {
  const [method, setMethod] = useState<CheckMethod>(TOUCH);
  const own = exerciseFor(view.exercise, register);
  const { show } = lengthsOf(own);
  const checks = state.checks.filter((one) => one.register === register.id);
  const combined = combineChecks(checks);
  const held = state.registers[register.id];
  const late = held ? lateMinutes(held) : null;
  const sum = state.sums[register.id];
  const lines = workingLines(state, register);
  const add = (by: typeof method, mm: number) =>
    write({ type: "check", register: register.id, method: by, mm, uMm: uOf(by) });
  return (
    <Panel
      title={register.label}
      note={
        <>
          student holds <b className="figures text-ink">{held ? show(held.mm) : "nothing yet"}</b>
          {late === null ? "" : `, on the device ${late} minutes before it came`}
        </>
      }
      bodyClassName="flex flex-col gap-2 p-3"
    >
      <Given exercise={own} register={register} />
      {lines.length > 0 || sum ? (
        <p className="text-ink2">
          Working: {lines.map(({ label, mm }) => `${label} ${show(mm)}`).join(", ")}
          {sum ? `; sum ${show(sum.mm)}` : "; no sum written"}.
        </p>
      ) : null}
      {checks.map(({ id, mm, method: by, uMm }) => (
        <p
          key={id}
          className={`flex items-center gap-2 border-b border-rule-soft ${combined?.outliers.includes(id) ? "bg-contact-soft" : ""}`}
        >
          <span className="flex-1">
            {by}
            {combined?.outliers.includes(id) ? <b> stands off from the others</b> : null}
          </span>
          <span className="figures">
            {show(mm)} ± {show(2 * uMm)}
          </span>
          <Button
            look="quiet"
            className="min-h-11 min-w-11 justify-center"
            aria-label={`Strike the check ${show(mm)}`}
            onClick={() => write({ type: "struck", entry: id })}
          >
            <X size={16} aria-hidden />
          </Button>
        </p>
      ))}
      {state.judged
        .filter((one) => one.register === register.id)
        .map(({ id, mm }) => (
          <p key={id} className="flex items-center gap-2 border-b border-rule-soft">
            <span className="flex-1">
              touched, and <span className="figures">{show(mm)}</span> found within ±{show(register.toleranceMm)}
            </span>
            <Button
              look="quiet"
              className="min-h-11 min-w-11 justify-center"
              aria-label={`Strike the judgement of ${register.label}`}
              onClick={() => write({ type: "struck", entry: id })}
            >
              <X size={16} aria-hidden />
            </Button>
          </p>
        ))}
      {combined ? (
        <p>
          Should hold <b className="figures text-expected">{show(combined.mm)}</b>{" "}
          <span className="figures text-ink2">U ± {show(combined.expandedMm)}</span>, tolerance ±
          {show(register.toleranceMm)}
        </p>
      ) : null}
      <CheckByReading exercise={own} register={register} onTake={(mm) => add(TOUCH, mm)} />
      <LengthForm exercise={own} label="it should hold" act="Add check" onTake={(mm) => add(method, mm)}>
        <label className="text-xs text-ink2">
          by
          <CheckMethodSelect value={method} onChange={setMethod} />
        </label>
      </LengthForm>
    </Panel>
  );
}

const REASON_LEAST = 5;
const WORD_LEAST = 3;

/** The signature: of exactly what is shown here. What stands in its way is said, and a reason wanted where one is. */
function SignOff({ view, state, write }: Props) {
  const [word, setWord] = useState("");
  const { signature, binding, exercise } = state;
  if (signature.state === "given")
    return (
      <Panel title="Signed" bodyClassName="flex flex-wrap items-center gap-2 p-3">
        <p className="min-w-48 flex-1">
          <Signed state={state} />
          {signature.reason ? ` Signed all the same: ${signature.reason}` : ""}
        </p>
        {state.handedIn ? null : (
          <Button className="min-h-11" onClick={() => write({ type: "signatureWithdrawn" })}>
            Withdraw it
          </Button>
        )}
      </Panel>
    );
  const problems = signingProblems(state);
  const isBarred = problems.some(({ problem }) => problem !== "reasonWanted");
  const isReasonWanted = problems.length > 0;
  const text = word.trim();
  const sign = (event: FormEvent) => {
    event.preventDefault();
    write({ type: "signedOff", saw: [...binding], ...(isReasonWanted ? { reason: text } : {}) });
    setWord("");
  };
  return (
    <Panel title="Sign-off before cycle start" bodyClassName="flex flex-col gap-2 p-3">
      {signature.state === "none" ? null : (
        <p role="status" className="font-bold text-contact">
          {floorSignatureWords(signature)}
        </p>
      )}
      <p>
        You sign what stands on this page: {exercise.registers.length} registers, {binding.length} entries of{" "}
        {view.studentName} and of your checks. Whatever is entered after it takes the signature back.
      </p>
      {problems.length > 0 ? (
        <ul aria-label="Before you sign" className="border-l-[5px] border-contact pl-3">
          {problems.map(({ label, problem }) => (
            <li key={label}>
              <b>{label}</b> {signingWords[problem]}.
            </li>
          ))}
        </ul>
      ) : null}
      <form onSubmit={sign} className="flex flex-wrap items-end gap-2">
        <label className="min-w-56 flex-1 text-xs text-ink2">
          {isReasonWanted && !isBarred ? "why you sign it all the same, or why it goes back" : "why it goes back"}
          <input
            className="block min-h-11 w-full rounded-[3px] border border-ink3 bg-field px-2 text-base text-ink"
            maxLength={300}
            value={word}
            onChange={(event) => setWord(event.target.value)}
          />
        </label>
        <Button
          className="min-h-11"
          disabled={text.length < WORD_LEAST}
          onClick={() => {
            write({ type: "sentBack", word: text });
            setWord("");
          }}
        >
          Send it back
        </Button>
        <Button
          look="act"
          type="submit"
          className="min-h-11"
          disabled={isBarred || (isReasonWanted && text.length < REASON_LEAST)}
        >
          Sign this setup
        </Button>
      </form>
    </Panel>
  );
}

function Safety({ state, write }: Props) {
  const [text, setText] = useState("");
  const [cost, setCost] = useState("5");
  const note = (event: FormEvent) => {
    event.preventDefault();
    write({ type: "safetyNoted", text: text.trim(), cost: Number(cost) });
    setText("");
  };
  return (
    <Panel title="Safety, as you saw it" bodyClassName="flex flex-col gap-2 p-3">
      {state.safety.length === 0 ? (
        <p className="text-ink2">Nothing noted: full marks.</p>
      ) : (
        state.safety.map(({ id, text: words, cost: lost }) => (
          <p key={id}>
            <b className="figures">−{lost}</b> {words}
          </p>
        ))
      )}
      <form onSubmit={note} className="flex flex-wrap items-end gap-2">
        <label className="min-w-48 flex-1 text-xs text-ink2">
          what happened
          <input
            className="block min-h-11 w-full rounded-[3px] border border-ink3 bg-field px-2 text-base text-ink"
            maxLength={200}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <label className="text-xs text-ink2">
          costs
          <select
            value={cost}
            onChange={(event) => setCost(event.target.value)}
            className="block min-h-11 rounded-[3px] border border-ink3 bg-field px-2 text-base text-ink"
          >
            {["2", "5", "10", "15"].map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        </label>
        <Button type="submit" className="min-h-11" disabled={text.trim().length < 3}>
          Note it
        </Button>
      </form>
    </Panel>
  );
}

function Override({ state, write }: Props) {
  const [marks, setMarks] = useState("");
  const [reason, setReason] = useState("");
  const isReady = /^\d{1,3}$/.test(marks) && Number(marks) <= 100 && reason.trim().length >= 5;
  const override = (event: FormEvent) => {
    event.preventDefault();
    write({ type: "overridden", marks: Number(marks), reason: reason.trim() });
    setMarks("");
    setReason("");
  };
  return (
    <Panel title="Override the total, with a reason" bodyClassName="p-3">
      {state.override ? (
        <p className="mb-2">
          Now <b className="figures">{state.override.marks}</b>: {state.override.reason}
        </p>
      ) : null}
      <form onSubmit={override} className="flex flex-wrap items-end gap-2">
        <label className="text-xs text-ink2">
          marks of 100
          <FigureInput
            className="block min-h-11 w-20 text-base text-ink"
            inputMode="numeric"
            value={marks}
            onChange={(event) => setMarks(event.target.value)}
          />
        </label>
        <label className="min-w-48 flex-1 text-xs text-ink2">
          reason
          <input
            className="block min-h-11 w-full rounded-[3px] border border-ink3 bg-field px-2 text-base text-ink"
            maxLength={300}
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
        </label>
        <Button type="submit" className="min-h-11" disabled={!isReady}>
          Override
        </Button>
      </form>
    </Panel>
  );
}
