import type { MillLengthSchool } from "@probe-lane/core/exercises";
import { offersOf } from "@probe-lane/core/machines";
import type { RegisterId } from "@probe-lane/core/registers";
import { gateWords, registerWords } from "@probe-lane/core/words";
import { useState, type FormEvent } from "react";
import { Button, FigureInput, KeyCap, Notice, Select } from "../../../../ui";
import { keyVerbs, verbKeys } from "../keys";
import type { DialogProps } from "../kit";

export function Speed({ seen, kit, send, onClose }: DialogProps) {
  const [text, setText] = useState("");
  const [direction, setDirection] = useState<"forward" | "reverse">("forward");
  const [isUnsaid, setUnsaid] = useState(false);
  const isReadable = text.trim() === "" || /^\d{1,5}$/.test(text.trim());
  const start = (event: FormEvent) => {
    event.preventDefault();
    if (!isReadable) return;
    // Enter on an empty box starts nothing: a remembered speed is chosen by its own button only
    if (text.trim() === "") return setUnsaid(true);
    startAt(Number(text));
  };
  const startAt = (rpm: number | null) => {
    send({ type: "startSpindle", direction, ...(rpm === null ? {} : { rpm }) });
    onClose();
  };
  return (
    <form onSubmit={start} className="flex flex-col gap-3">
      <p className="text-ink2">A spindle started without a speed comes up at the one it remembers.</p>
      {kit.startNotes(seen).map(({ words, isStop }) => (
        <Notice key={words} kind={isStop ? "stop" : "note"}>
          {words}
        </Notice>
      ))}
      <label className="font-bold">
        Speed{" "}
        <FigureInput
          autoFocus
          aria-label="Speed in rev/min"
          className="mx-1 w-24"
          inputMode="numeric"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />{" "}
        rev/min
      </label>
      <label className="font-bold">
        Direction{" "}
        <Select
          aria-label="Direction"
          value={direction}
          onChange={(event) => setDirection(event.target.value as "forward" | "reverse")}
        >
          <option value="forward">forward</option>
          <option value="reverse">reverse</option>
        </Select>
      </label>
      {isReadable ? null : <p role="alert">A speed is a whole number such as 600.</p>}
      {isUnsaid && text.trim() === "" ? (
        <p role="alert">State a speed first. Started without one it comes up at whatever it remembers.</p>
      ) : null}
      <p className="flex gap-2">
        <Button look="act" type="submit" disabled={!isReadable}>
          {text.trim() === "" ? "Start at the stated speed" : `Start at ${text.trim()}`}
        </Button>
        <Button onClick={onClose}>Leave it</Button>
        <Button look="quiet" className="ml-auto" onClick={() => startAt(null)}>
          Start without stating a speed
        </Button>
      </p>
    </form>
  );
}

export function KeyMap({ seen, kit }: DialogProps) {
  const verbs = keyVerbs
    .filter((verb) => verb !== "judgeSetup" || seen.sheet.handover)
    .map((verb) => ({ verb, words: kit.verbWords(verb, seen) }))
    .filter(({ words }) => words !== null);
  return (
    <div className="grid gap-x-8 gap-y-1 sm:grid-cols-2">
      {Object.values(kit.jogKeys).map(({ cap, words }) => (
        <p key={cap}>
          <KeyCap>{cap}</KeyCap> {words}
        </p>
      ))}
      <p>
        <KeyCap>Shift</KeyCap> with these: ten clicks
      </p>
      <p>
        <KeyCap>[</KeyCap> <KeyCap>]</KeyCap> coarser or finer clicks
      </p>
      {verbs.map(({ verb, words }) => (
        <p key={verb}>
          <KeyCap>{verbKeys[verb].key === "Escape" ? "Esc" : verbKeys[verb].key.toUpperCase()}</KeyCap> {words}
        </p>
      ))}
      <p>
        <KeyCap>Esc</KeyCap> in a box: leave it
      </p>
    </div>
  );
}

export function HandIn({ seen, kit, send, onClose }: DialogProps) {
  const schools = kit.schoolsToName(seen);
  const [school, setSchool] = useState<MillLengthSchool | "">("");
  const open = seen.gates.filter(({ kind, isPassed }) => !isPassed && kind !== "handIn");
  const lines = (register: RegisterId) =>
    seen.ledger.filter((line) => line.register === register && !line.isHandedOver);
  const worked = seen.sheet.handover ? [] : offersOf(seen.kind).worked(seen.sheet);
  const lacks = (kind: "reading" | "sum") =>
    worked.filter((register) => !lines(register).some((line) => line.kind === kind)).map(registerWords);
  const [unread, unsummed] = [lacks("reading"), lacks("sum")];
  return (
    <div className="flex flex-col gap-3">
      <p>After handing in the lane is ruled and cannot be worked on any more. A new attempt gets a new part.</p>
      {open.length > 0 ? <Notice kind="stop">Still shut: {open.map(gateWords).join(", ")}.</Notice> : null}
      {unread.length > 0 ? (
        <p className="text-ink2">
          <b className="text-ink">Without a reading in the ledger:</b> {unread.join(", ")}.
        </p>
      ) : null}
      {unsummed.length > 0 ? (
        <p className="text-ink2">
          <b className="text-ink">Without a sum of your own:</b> {unsummed.join(", ")}.
        </p>
      ) : null}
      {schools.length > 0 ? (
        <label className="font-bold">
          School of your lengths
          <Select
            value={school}
            onChange={(event) => setSchool(schools.find(({ id }) => id === event.target.value)?.id ?? "")}
            className="mt-1 block w-full"
          >
            <option value="">as my touches and captures show it</option>
            {schools.map(({ id, words }) => (
              <option key={id} value={id}>
                {words}
              </option>
            ))}
          </Select>
          <span className="text-xs font-normal text-ink2">
            It counts only where the log does not tell the school by itself.
          </span>
        </label>
      ) : null}
      <p className="flex gap-2">
        <Button
          look="act"
          autoFocus={open.length === 0}
          onClick={() => {
            send({ type: "handIn", ...(school === "" ? {} : { school }) });
            onClose();
          }}
        >
          Hand in
        </Button>
        <Button autoFocus={open.length > 0} onClick={onClose}>
          Go on working
        </Button>
      </p>
    </div>
  );
}
