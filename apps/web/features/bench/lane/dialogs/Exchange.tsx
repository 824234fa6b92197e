import { exchangeIds, printG10, printTable, readRegisters } from "@probe-lane/core/exchange";
import { offersOf } from "@probe-lane/core/machines";
import { readRegister, type RegisterId } from "@probe-lane/core/registers";
import { scales, showCounts, showLength, toCounts } from "@probe-lane/core/units";
import { registerWords } from "@probe-lane/core/words";
import { useState } from "react";
import { Button, Notice } from "../../../../ui";
import type { DialogProps } from "../kit";

const download = (name: string, text: string) => {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([text], { type: "text/plain" }));
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
};

/**
 * Registers as a table or a G10 program, out and in; what comes in is shown old beside new, and every bad line named.
 */
export function Exchange({ seen, kit, send, onClose, isReadOnly }: DialogProps) {
  const { registers, sheet } = seen;
  const { dialect, hasProgram, sample } = kit.registers.exchange;
  const scale = scales[sheet.unit];
  const [text, setText] = useState("");
  const rows =
    text.trim() === ""
      ? []
      : readRegisters(
          text,
          exchangeIds(registers).filter((id) => offersOf(seen.kind).has(id)),
          dialect,
          sheet.unit,
        );
  const bad = rows.filter(({ problem }) => problem !== null);
  const changes = rows.flatMap(({ register, mm, problem }) =>
    problem === null && mm !== null
      ? [
          {
            register: register as RegisterId,
            mm,
            from: readRegister(registers, register as RegisterId),
            to: register.startsWith("Q") ? Math.round(mm) * scale.countsPerUnit : toCounts(mm, scale),
          },
        ]
      : [],
  );
  const news = changes.filter(({ from, to }) => from !== to);
  const take = () => {
    send({
      type: "takeInRegisters",
      rows: changes.map(({ register, mm }) => ({
        register,
        text: register.startsWith("Q") ? String(Math.round(mm)) : showLength(mm, scale),
      })),
    });
    onClose();
  };
  return (
    <div className="flex flex-col gap-3">
      <p className="flex flex-wrap items-center gap-2">
        <Button onClick={() => download("registers.csv", printTable(registers, scale))}>Save as a table (CSV)</Button>
        {hasProgram ? (
          <Button onClick={() => download("registers.nc", printG10(registers, scale))}>Save as a G10 program</Button>
        ) : null}
      </p>
      {isReadOnly ? null : (
        <>
          <label className="flex flex-col gap-1 font-bold">
            Take in: paste {hasProgram ? "a table or a G10 program" : "a table"}, or choose a file
            <textarea
              rows={6}
              value={text}
              onChange={(event) => setText(event.target.value)}
              spellCheck={false}
              className="figures rounded-[3px] border border-ink3 bg-field p-2 font-normal"
              placeholder={sample}
            />
          </label>
          <input
            type="file"
            aria-label="Register file"
            accept=".csv,.nc,.txt"
            onChange={(event) => void event.target.files?.[0]?.text().then(setText)}
          />
          {bad.length > 0 ? (
            <Notice kind="stop" role="alert">
              {bad.map(({ line, problem }) => `Line ${line}: ${problem ?? ""}`).join(" ")} Nothing is taken in until
              every line can be used.
            </Notice>
          ) : null}
          {changes.length > 0 ? (
            <table className="w-full">
              <thead>
                <tr className="text-right text-xs text-ink2">
                  <th className="text-left font-normal">Register</th>
                  <th className="font-normal">holds</th>
                  <th className="font-normal">would hold</th>
                </tr>
              </thead>
              <tbody>
                {changes.map(({ register, from, to }) => (
                  <tr key={register} className="border-t border-rule-soft">
                    <th scope="row" className="text-left">
                      {registerWords(register)}
                    </th>
                    <td className="figures text-right">{showCounts(from, scale)}</td>
                    <td className={`figures text-right ${from === to ? "text-ink2" : "font-bold text-contact"}`}>
                      {from === to ? "the same" : showCounts(to, scale)}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          ) : null}
          {text.trim() !== "" && rows.length === 0 ? <Notice kind="stop">Nothing in it sets a register.</Notice> : null}
          <p className="flex gap-2">
            <Button look="act" disabled={bad.length > 0 || news.length === 0} onClick={take}>
              {news.length === 1 ? "Take in 1 register" : `Take in ${news.length} registers`}
            </Button>
            <Button onClick={onClose}>Leave it</Button>
          </p>
        </>
      )}
    </div>
  );
}
