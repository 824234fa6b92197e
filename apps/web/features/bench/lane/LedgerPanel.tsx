import type { Command, Observation } from "@probe-lane/core/bench";
import type { Reading, TermName } from "@probe-lane/core/lane";
import { offersOf } from "@probe-lane/core/machines";
import type { Axis, RegisterId } from "@probe-lane/core/registers";
import { scales, showCounts, showLength, showSignedCounts, toCounts } from "@probe-lane/core/units";
import {
  figureName,
  inShopWords,
  instrumentWords,
  outcomeWords,
  readingWords,
  registerWords,
  termWords,
} from "@probe-lane/core/words";
import { X } from "lucide-react";
import { memo, useEffect, useImperativeHandle, useRef, useState, type FormEvent, type Ref } from "react";
import { HandInstrument } from "./HandInstrument";
import type { BenchKit } from "./kit";
import { Button, FigureInput, Panel, Select } from "../../../ui";

export interface LedgerHandle {
  takeReading(axis: Axis): void;
  openTerm(axis: Axis): void;
  openSum(axis: Axis): void;
}

/** What a line of the ledger that is no term is called. */
function lineWords(kind: "reading" | "sum", from: number | undefined, isHandedOver = false): string {
  if (kind === "sum") return isHandedOver ? "their sum" : "my sum";
  return from === undefined ? "stood at" : `reading ${from}`;
}

/**
 * The student's own working: reading, terms with sign, sum. With the coach on the lines are added up; otherwise that is
 * the student's.
 */
export const LedgerPanel = memo(function LedgerPanel({
  seen,
  kit,
  send,
  isReadOnly,
  isPointed = false,
  ref,
}: {
  seen: Observation;
  kit: BenchKit;
  send(command: Command): void;
  isReadOnly: boolean;
  /** The coach speaks of taking a reading. */
  isPointed?: boolean;
  ref: Ref<LedgerHandle>;
}) {
  const offers = offersOf(seen.kind);
  const choices = offers.worked(seen.sheet);
  const scale = scales[seen.sheet.unit];
  const [register, setRegister] = useState<RegisterId>(choices[0] ?? "G54.x");
  const [term, setTerm] = useState<TermName | "sum">(() => kit.ledger.firstTerm("x"));
  const [text, setText] = useState("");
  const box = useRef<HTMLInputElement>(null);
  const forAxis = (axis: Axis): RegisterId => kit.ledger.forAxis(seen, axis, choices);
  const open = (axis: Axis, what: TermName | "sum") => {
    setRegister(forAxis(axis));
    setTerm(what);
    setTimeout(() => box.current?.focus());
  };
  useImperativeHandle(ref, () => ({
    takeReading: (axis) => send({ type: "takeReading", register: forAxis(axis) }),
    openTerm: (axis) => open(axis, kit.ledger.firstTerm(axis)),
    openSum: (axis) => open(axis, "sum"),
  }));
  const write = (event: FormEvent) => {
    event.preventDefault();
    send(term === "sum" ? { type: "writeSum", register, text } : { type: "writeTerm", register, term, text });
    setText("");
    (document.activeElement as HTMLElement | null)?.blur();
  };
  // what was written last is what is being worked on
  const lines = useRef<HTMLDivElement>(null);
  const newest = Math.max(0, ...seen.ledger.map(({ line }) => line));
  const followed = useRef(newest);
  useEffect(() => {
    if (newest === followed.current) return;
    followed.current = newest;
    lines.current?.querySelector(`[data-line="${newest}"]`)?.scrollIntoView({ block: "nearest" });
  }, [newest]);
  const written = [...new Set([...choices, ...seen.ledger.map((line) => line.register)])];
  const groups = written
    .map((id) => ({ id, lines: seen.ledger.filter((line) => line.register === id) }))
    .filter(({ lines }) => lines.length > 0);
  return (
    <Panel
      title="Ledger"
      note={
        seen.sheet.handover
          ? "theirs in italics, yours upright"
          : seen.isCoachOn
            ? "checked once you have summed"
            : "your working"
      }
      bodyClassName="flex flex-col"
      className="flex-1"
    >
      <div ref={lines} className="min-h-[9rem] flex-1 overflow-y-auto">
        {groups.length === 0 ? (
          <p className="p-2.5 text-ink2">
            {choices.length === 0
              ? "Nothing in this exercise is worked out in lines."
              : "Nothing written yet. Take a reading at a contact, add what lies between it and the register, write the sum."}
          </p>
        ) : null}
        {groups.map(({ id, lines }) => (
          <section key={id} aria-label={`Ledger of ${registerWords(id)}`} className="border-b border-rule">
            <h3 className="px-2.5 pt-1.5 font-bold">{registerWords(id)}</h3>
            <ul>
              {inOrder(lines, toCounts(SAME_PLACE_MM, scale)).map(
                ({ line, kind, term: name, counts, from, isHandedOver, isPassed }) => (
                  <li
                    key={line}
                    data-line={line}
                    className={`flex items-center gap-1 border-t border-rule-soft px-2.5 py-0.5 ${isHandedOver ? "italic text-ink2" : ""} ${isPassed ? "text-ink2 line-through" : ""} ${kind === "sum" ? "border-y-3 border-double !border-ink bg-well font-bold" : ""}`}
                  >
                    <span className="flex-1">
                      {kind === "term" ? termWords[name ?? "other"] : lineWords(kind, from, isHandedOver)}
                    </span>
                    <span className="figures">
                      {kind === "term" ? showSignedCounts(counts, scale) : showCounts(counts, scale)}
                    </span>
                    {isReadOnly ? null : (
                      <Button
                        look="quiet"
                        className="min-h-6 min-w-6 justify-center !p-0"
                        aria-label={`Strike this line of ${registerWords(id)}`}
                        title="Strike this line"
                        onClick={() => send({ type: "strikeLine", line })}
                      >
                        <X size={13} aria-hidden />
                      </Button>
                    )}
                  </li>
                ),
              )}
              {isReadOnly || lines.some(({ kind, isHandedOver }) => kind === "sum" && !isHandedOver) ? null : (
                <li className="border-y-3 border-double border-ink bg-well">
                  <button
                    type="button"
                    className="flex w-full items-center px-2.5 py-0.5 text-left"
                    onClick={() => {
                      setRegister(id);
                      setTerm("sum");
                      setTimeout(() => box.current?.focus());
                    }}
                  >
                    <b className="flex-1">my sum</b>
                    <span className="figures text-ink2">still open</span>
                  </button>
                </li>
              )}
              {seen.isCoachOn && lines.some(({ kind, isHandedOver }) => kind === "sum" && !isHandedOver) ? (
                <li className="flex border-t border-rule-soft px-2.5 py-0.5 text-expected">
                  <span className="flex-1">{/^L[XZ]\d/.test(id) ? "reads, less that" : "adds up to"}</span>
                  <span className="figures">{showCounts(addUp(lines), scale)}</span>
                  {isReadOnly ? null : <span className="w-[17px]" />}
                </li>
              ) : null}
            </ul>
          </section>
        ))}
      </div>
      {seen.readings.length > 0 ? (
        <Readings seen={seen} onTake={isReadOnly ? null : (from) => send({ type: "takeReading", register, from })} />
      ) : null}
      {isReadOnly || choices.length === 0 ? null : (
        <form
          onSubmit={write}
          aria-label="Write in the ledger"
          className="flex shrink-0 flex-col gap-1.5 border-t border-rule p-2"
        >
          <div className="flex flex-wrap gap-1.5">
            <Select
              aria-label="Ledger register"
              value={register}
              onChange={(event) => setRegister(event.target.value as RegisterId)}
              className="min-w-24 flex-1"
            >
              {choices.map((id) => (
                <option key={id} value={id}>
                  {registerWords(id)}
                </option>
              ))}
            </Select>
            <Button
              className={`!px-2 text-xs ${isPointed ? "outline-3 outline-offset-2 outline-expected" : ""}`}
              keyCap="L"
              onClick={() => send({ type: "takeReading", register })}
            >
              Take reading
            </Button>
          </div>
          <div className="flex flex-wrap gap-1.5">
            <Select
              aria-label="Kind of line"
              value={term}
              onChange={(event) => setTerm(event.target.value as TermName | "sum")}
              className="min-w-24 flex-1"
            >
              {offers.terms.map((name) => (
                <option key={name} value={name}>
                  {termWords[name]}
                </option>
              ))}
              <option value="sum">my sum</option>
            </Select>
            <FigureInput
              ref={box}
              aria-label="Amount with its sign"
              className="w-20"
              value={text}
              onChange={(event) => setText(event.target.value)}
            />
            <Button type="submit" className="!px-2 text-xs" disabled={text.trim() === ""} keyCap="T">
              Write
            </Button>
          </div>
        </form>
      )}
    </Panel>
  );
});

/** What a figure of a reading is shown as: lengths in the machine's unit, angles and speeds as they are. */
function figureText(name: string, value: number, seen: Observation): string {
  if (name === "rpm") return String(value);
  return name.endsWith("Deg") ? `${value.toFixed(3).replace("-", "−")}°` : showLength(value, scales[seen.sheet.unit]);
}

/** What the instruments have shown, newest first; one press takes it into the line that is being worked on. */
function Readings({ seen, onTake }: { seen: Observation; onTake: ((number: number) => void) | null }) {
  return (
    <section
      aria-label="Readings of the instruments"
      className="max-h-[34%] min-h-[3.5rem] shrink overflow-y-auto border-t border-rule bg-well"
    >
      <h3 className="px-2.5 pt-1.5 text-xs font-bold text-ink2">Readings, newest first</h3>
      <ol>
        {seen.readings.toReversed().map((reading, at) => (
          <li
            key={reading.number}
            data-testid={`reading-${reading.number}`}
            className="border-t border-rule-soft px-2.5 py-1"
          >
            <p className="flex items-baseline gap-1 text-xs">
              <b className="figures">{reading.number}</b>
              <span className="min-w-0 flex-1 truncate" title={titleOf(reading, seen.kind)}>
                {titleOf(reading, seen.kind)}
              </span>
              {onTake && Object.keys(reading.values).length > 0 ? (
                <button
                  type="button"
                  className="shrink-0 font-bold text-expected underline"
                  aria-label={`Take reading ${reading.number} into the ledger`}
                  onClick={() => onTake(reading.number)}
                >
                  take
                </button>
              ) : null}
            </p>
            {reading.outcome !== undefined && reading.outcome !== "found" ? (
              <p className="font-bold text-contact">{outcomeWords[reading.outcome]}</p>
            ) : null}
            <p className="flex flex-wrap gap-x-2">
              {Object.entries(reading.values).map(([name, value]) => (
                <span key={name} className="whitespace-nowrap">
                  <span className="text-xs text-ink2">{figureName(name, reading.what)}</span>{" "}
                  <b className="figures">{figureText(name, value, seen)}</b>
                </span>
              ))}
            </p>
            {at === 0 ? <HandInstrument instrument={reading.instrument} isRound={isRound(reading.what)} /> : null}
          </li>
        ))}
      </ol>
    </section>
  );
}

const ROUND = new Set(["diameter", "turned", "pip", "bored"]);
const isRound = (what: string): boolean => ROUND.has(what);

const titleOf = ({ instrument, what, tool }: Reading, kind: Observation["kind"]): string =>
  inShopWords(`${instrumentWords(instrument)}: ${readingWords(what, tool)}`, kind);

const addUp = (lines: Observation["ledger"]): number => {
  const reading = lines.findLast(({ kind }) => kind === "reading")?.counts ?? 0;
  return lines.reduce((sum, { kind, counts }) => (kind === "term" ? sum + counts : sum), reading);
};

/** Readings this near to one another are of one place that was met again, mm. */
const SAME_PLACE_MM = 2;

/** Readings and terms as they were written, the sum last; a reading whose place was met again later is struck. */
function inOrder(
  lines: Observation["ledger"],
  sameCounts: number,
): (Observation["ledger"][number] & { readonly isPassed: boolean })[] {
  const rank = ({ kind }: { kind: string }) => (kind === "sum" ? 1 : 0);
  const isAgain = (one: Observation["ledger"][number], other: Observation["ledger"][number]) =>
    other.kind === "reading" && other.line > one.line && Math.abs(other.counts - one.counts) <= sameCounts;
  return lines
    .map((line) => ({ ...line, isPassed: line.kind === "reading" && lines.some((other) => isAgain(line, other)) }))
    .sort((a, b) => rank(a) - rank(b));
}
