import { termNames, type Command, type Observation, type TermName } from "@probe-lane/core/bench";
import type { Axis, MillRegisterId } from "@probe-lane/core/registers";
import { formatCounts, formatSignedCounts } from "@probe-lane/core/units";
import { coachWords, registerWords, termWords } from "@probe-lane/core/words";
import { X } from "lucide-react";
import { useImperativeHandle, useRef, useState, type FormEvent, type Ref } from "react";
import { Button, FigureInput, Panel } from "../../ui";

export interface LedgerHandle { takeReading(axis: Axis): void; openTerm(axis: Axis): void; openSum(axis: Axis): void }

const REGISTERS: readonly MillRegisterId[] = ["G54.x", "G54.y", "H1", "G54.z"];
const forAxis = (axis: Axis): MillRegisterId => (axis === "z" ? "H1" : `G54.${axis}`);

/** The student's own working: reading, terms with sign, sum. With the coach on the lines are added up; otherwise that is the student's. */
export function LedgerPanel({ seen, send, isReadOnly, ref }: { seen: Observation; send(command: Command): void; isReadOnly: boolean; ref: Ref<LedgerHandle> }) {
  const [register, setRegister] = useState<MillRegisterId>("G54.x");
  const [term, setTerm] = useState<TermName | "sum">("tipRadius");
  const [text, setText] = useState("");
  const box = useRef<HTMLInputElement>(null);
  const open = (axis: Axis, what: TermName | "sum") => {
    setRegister(forAxis(axis));
    setTerm(what);
    setTimeout(() => box.current?.focus());
  };
  useImperativeHandle(ref, () => ({
    takeReading: (axis) => send({ type: "takeReading", register: forAxis(axis) }),
    openTerm: (axis) => open(axis, axis === "z" ? "paper" : "tipRadius"),
    openSum: (axis) => open(axis, "sum"),
  }));
  const write = (event: FormEvent) => {
    event.preventDefault();
    send(term === "sum" ? { type: "writeSum", register, text } : { type: "writeTerm", register, term, text });
    setText("");
    (document.activeElement as HTMLElement | null)?.blur();
  };
  const groups = REGISTERS.map((id) => ({ id, lines: seen.ledger.filter((line) => line.register === id) })).filter(({ lines }) => lines.length > 0);
  return (
    <Panel title="Ledger" note={seen.isCoachOn ? "your working, added up" : "your working"} bodyClassName="flex flex-col" className="flex-1">
      <div className="min-h-0 flex-1 overflow-y-auto">
        {groups.length === 0 ? <p className="p-2.5 text-ink2">Nothing written yet. Take a reading at a contact, add what lies between it and the register, write the sum.</p> : null}
        {groups.map(({ id, lines }) => (
          <section key={id} aria-label={`Ledger of ${registerWords(id)}`} className="border-b border-rule">
            <h3 className="px-2.5 pt-1.5 font-bold">{registerWords(id)}</h3>
            <ul>
              {lines.map(({ line, kind, term: name, counts }) => (
                <li key={line} className={`flex items-center gap-1 border-t border-rule-soft px-2.5 py-0.5 ${kind === "sum" ? "bg-well font-bold" : ""}`}>
                  <span className="flex-1">{kind === "reading" ? "stood at" : kind === "sum" ? "my sum" : termWords[name ?? "other"]}</span>
                  <span className="figures">{kind === "term" ? formatSignedCounts(counts) : formatCounts(counts)}</span>
                  {isReadOnly ? null : <Button look="quiet" className="!p-0" aria-label={`Strike this line of ${registerWords(id)}`} title="Strike this line" onClick={() => send({ type: "strikeLine", line })}><X size={13} aria-hidden /></Button>}
                </li>
              ))}
              {seen.isCoachOn ? (
                <li className="flex border-t border-rule-soft px-2.5 py-0.5 text-expected">
                  <span className="flex-1">adds up to</span><span className="figures">{formatCounts(addUp(lines))}</span>{isReadOnly ? null : <span className="w-[17px]" />}
                </li>
              ) : null}
            </ul>
          </section>
        ))}
      </div>
      {isReadOnly ? null : (
        <form onSubmit={write} aria-label="Write in the ledger" className="flex flex-col gap-1.5 border-t border-rule p-2">
          <div className="flex gap-1.5">
            <select aria-label="Ledger register" value={register} onChange={(event) => setRegister(event.target.value as MillRegisterId)} className="min-w-0 flex-1 rounded-[3px] border border-ink3 bg-field px-1 py-0.5">
              {REGISTERS.map((id) => <option key={id} value={id}>{registerWords(id)}</option>)}
            </select>
            <Button className="!px-2 text-xs" keyCap="L" onClick={() => send({ type: "takeReading", register })}>Take reading</Button>
          </div>
          <div className="flex gap-1.5">
            <select aria-label="Kind of line" value={term} onChange={(event) => setTerm(event.target.value as TermName | "sum")} className="min-w-0 flex-1 rounded-[3px] border border-ink3 bg-field px-1 py-0.5">
              {termNames.map((name) => <option key={name} value={name}>{termWords[name]}</option>)}
              <option value="sum">my sum</option>
            </select>
            <FigureInput ref={box} aria-label="Amount with its sign" className="w-20" value={text} onChange={(event) => setText(event.target.value)} />
            <Button type="submit" className="!px-2 text-xs" disabled={text.trim() === ""} keyCap="T">Write</Button>
          </div>
        </form>
      )}
      {seen.coach ? (
        <aside aria-label="Coach" className="border-t-0 border-l-4 border-expected bg-expected-soft p-2.5">
          <h3 className="font-bold">Next</h3>
          <p data-testid="coach">{coachWords(seen.coach, seen)}</p>
        </aside>
      ) : null}
    </Panel>
  );
}

const addUp = (lines: Observation["ledger"]): number => {
  const reading = lines.findLast(({ kind }) => kind === "reading")?.counts ?? 0;
  return lines.reduce((sum, { kind, counts }) => (kind === "term" ? sum + counts : sum), reading);
};
