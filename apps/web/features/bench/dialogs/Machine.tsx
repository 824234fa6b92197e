import type { MillLengthSchool } from "@probe-lane/core/exercises";
import { gateWords, inShopWords, schoolWords } from "@probe-lane/core/words";
import { useState, type FormEvent } from "react";
import { Button, FigureInput, KeyCap, Notice } from "../../../ui";
import { instrumentActs } from "../benchActs";
import { jogKeys, keyVerbs, verbKeys, type KeyVerb } from "../keys";
import type { DialogProps } from "./props";

export function Speed({ seen, send, onClose }: DialogProps) {
  const [text, setText] = useState("");
  const [direction, setDirection] = useState<"forward" | "reverse">("forward");
  const isReadable = text.trim() === "" || /^\d{1,5}$/.test(text.trim());
  const start = (event: FormEvent) => {
    event.preventDefault();
    if (!isReadable) return;
    send({ type: "startSpindle", direction, ...(text.trim() === "" ? {} : { rpm: Number(text) }) });
    onClose();
  };
  const isDelicate = seen.holds === "taster" || seen.holds === "probe" || seen.holds === "indicator";
  return (
    <form onSubmit={start} className="flex flex-col gap-3">
      <p className="text-ink2">
        A spindle started without a speed comes up at the one it remembers.{" "}
        {seen.holds === "edgeFinder" ? "The edge finder is rated 400 to 1200 rev/min." : ""}
      </p>
      {isDelicate ? <Notice kind="stop">What hangs in the spindle must never turn under power.</Notice> : null}
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
        <select
          aria-label="Direction"
          value={direction}
          onChange={(event) => setDirection(event.target.value as "forward" | "reverse")}
          className="rounded-[3px] border border-ink3 bg-field px-1 py-0.5 font-normal"
        >
          <option value="forward">forward</option>
          <option value="reverse">reverse</option>
        </select>
      </label>
      {isReadable ? null : <p role="alert">A speed is a whole number such as 600.</p>}
      <p className="flex gap-2">
        <Button look="act" type="submit" disabled={!isReadable}>
          {text.trim() === "" ? "Start without stating a speed" : `Start at ${text.trim()}`}
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </p>
    </form>
  );
}

const TURNING_WORDS: Record<string, string> = {
  "←": "Z minus, toward the chuck",
  "→": "Z plus, away from the chuck",
  "↑": "X plus, away from the axis",
  "↓": "X minus, toward the axis",
};
const TURNING_VERBS: Partial<Record<KeyVerb, string>> = {
  drawer: "another tool",
  measure: "measure what was turned",
  fit: "near view or whole travel",
};
/** Keys whose meaning on a lathe is what stands on its controls now. */
const BY_ACT = new Set<KeyVerb>(["wobble", "burr", "paper", "feel", "block"]);
/** Keys that a lathe has nothing for, and those that a hand-wound one has nothing for. */
const NOT_TURNING = new Set<KeyVerb>(["look"]);
const NOT_BY_HAND = new Set<KeyVerb>(["home", "typeBlock"]);

/** What a key does here; null where it does nothing. */
function verbWords(verb: KeyVerb, seen: DialogProps["seen"]): string | null {
  if (!seen.lathe) return verbKeys[verb].words;
  if (NOT_TURNING.has(verb) || (seen.sheet.lathe?.control === "readout" && NOT_BY_HAND.has(verb))) return null;
  if (BY_ACT.has(verb))
    return instrumentActs(seen).find(({ keyCap }) => keyCap === verbKeys[verb].key.toUpperCase())?.label ?? null;
  return TURNING_VERBS[verb] ?? inShopWords(verbKeys[verb].words, seen.sheet.lathe?.control);
}

export function KeyMap({ seen }: DialogProps) {
  const isLathe = seen.lathe !== null;
  const verbs = keyVerbs
    .filter((verb) => verb !== "judgeSetup" || seen.sheet.handover)
    .map((verb) => ({ verb, words: verbWords(verb, seen) }))
    .filter(({ words }) => words !== null);
  return (
    <div className="grid gap-x-8 gap-y-1 sm:grid-cols-2">
      {Object.values(jogKeys)
        .filter(({ cap }) => !isLathe || TURNING_WORDS[cap] !== undefined)
        .map(({ cap, words }) => (
          <p key={cap}>
            <KeyCap>{cap}</KeyCap> {isLathe ? TURNING_WORDS[cap] : words}
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

export function HandIn({ seen, send, onClose }: DialogProps) {
  const { lengthSchools, targets } = seen.sheet;
  const isAsked = lengthSchools.length > 1 && targets.lengths.length > 0;
  const [school, setSchool] = useState<MillLengthSchool | "">("");
  const open = seen.gates.filter(({ kind, isPassed }) => !isPassed && kind !== "handIn");
  return (
    <div className="flex flex-col gap-3">
      <p>After handing in the lane is ruled and cannot be worked on any more. A new attempt gets a new part.</p>
      {open.length > 0 ? <Notice kind="stop">Still shut: {open.map(gateWords).join(", ")}.</Notice> : null}
      {isAsked ? (
        <label className="font-bold">
          School of your lengths
          <select
            value={school}
            onChange={(event) => setSchool(lengthSchools.find((one) => one === event.target.value) ?? "")}
            className="mt-1 block w-full rounded-[3px] border border-ink3 bg-field px-1 py-0.5 font-normal"
          >
            <option value="">as my touches and captures show it</option>
            {lengthSchools.map((one) => (
              <option key={one} value={one}>
                {schoolWords[one]}
              </option>
            ))}
          </select>
          <span className="text-xs font-normal text-ink2">
            It counts only where the log does not tell the school by itself.
          </span>
        </label>
      ) : null}
      <p className="flex gap-2">
        <Button
          look="act"
          autoFocus
          onClick={() => {
            send({ type: "handIn", ...(school === "" ? {} : { school }) });
            onClose();
          }}
        >
          Hand in
        </Button>
        <Button onClick={onClose}>Go on working</Button>
      </p>
    </div>
  );
}
