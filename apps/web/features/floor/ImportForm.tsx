import { readForFloor, type FloorEntry, type FloorExercise } from "@probe-lane/core/floor";
import { useState } from "react";
import { Button, Notice } from "../../ui";
import { lengthsOf } from "./show";

/**
 * Registers out of the control: a G10 program or a table, pasted or from a file. Shown first; nothing is half taken.
 */
export function ImportForm({ exercise, write }: { exercise: FloorExercise; write(...entries: FloorEntry[]): void }) {
  const [text, setText] = useState("");
  const rows = text.trim() === "" ? [] : readForFloor(text, exercise);
  const bad = rows.filter(({ problem }) => problem !== null).length;
  const { show } = lengthsOf(exercise);
  return (
    <details className="rounded-panel border border-rule bg-panel">
      <summary className="min-h-11 cursor-pointer px-3 py-2.5 font-bold">Read registers from the control</summary>
      <div className="flex flex-col gap-3 border-t border-rule-soft p-3">
        <p className="text-ink2">
          A G10 program, or lines such as{" "}
          <span className="figures text-ink">{exercise.registers[0]?.id ?? "H1"},-250.780</span>. Numbers are in{" "}
          {exercise.unit}.
        </p>
        <label className="font-bold">
          From a file{" "}
          <input
            type="file"
            accept=".nc,.txt,.csv,text/plain,text/csv"
            onChange={(event) => void event.target.files?.[0]?.text().then(setText)}
            className="mt-1 block w-full text-sm font-normal file:mr-3 file:min-h-11 file:rounded-[4px] file:border file:border-ink3 file:bg-field file:px-3 file:font-bold file:text-ink"
          />
        </label>
        <label className="font-bold">
          or pasted
          <textarea
            value={text}
            rows={4}
            spellCheck={false}
            onChange={(event) => setText(event.target.value)}
            className="figures mt-1 w-full rounded-[3px] border border-ink3 bg-field p-2 font-normal"
          />
        </label>
        {rows.length > 0 ? (
          <table className="w-full">
            <caption className="sr-only">What was read, line by line</caption>
            <tbody>
              {rows.map(({ line, register, mm, problem }) => (
                <tr
                  key={`${line} ${register}`}
                  className={`border-t border-rule-soft align-top ${problem ? "bg-contact-soft" : ""}`}
                >
                  <td className="px-1 py-1 text-xs text-ink2">line {line}</td>
                  <td className="figures py-1">{register}</td>
                  <td className="figures py-1 text-right">{problem ? "" : show(mm ?? 0)}</td>
                  <td className="py-1 pl-2">{problem}</td>
                </tr>
              ))}
            </tbody>
          </table>
        ) : null}
        {text.trim() !== "" && rows.length === 0 ? <Notice kind="stop">Nothing in it sets a register.</Notice> : null}
        {bad > 0 ? (
          <Notice kind="stop" role="alert">
            {bad === 1 ? "1 line cannot be used" : `${bad} lines cannot be used`}, so nothing is taken. Mend or delete
            it.
          </Notice>
        ) : null}
        {rows.length > 0 && bad === 0 ? (
          <Button
            look="act"
            className="min-h-11 self-start"
            onClick={() => {
              write(...rows.map(({ register, mm }): FloorEntry => ({ type: "register", register, mm: mm ?? 0 })));
              setText("");
            }}
          >
            Take {rows.length === 1 ? "this register" : `these ${rows.length} registers`}
          </Button>
        ) : null}
      </div>
    </details>
  );
}
