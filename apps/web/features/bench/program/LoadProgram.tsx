import { useState } from "react";
import { Button, Notice } from "../../../ui";
import type { DialogProps } from "../lane/kit";

/** Most of a program that one takes along oneself, characters. */
const MOST_TEXT = 16_000;

/** The shop's store of programs; in practice one of one's own as well. What is held is taken away only when asked. */
export function LoadProgram({ seen, send, onClose }: DialogProps) {
  const [own, setOwn] = useState("");
  const { program, sheet } = seen;
  const isHeld = program?.number != null;
  const isRunning = program?.run != null;
  return (
    <div className="flex flex-col gap-3">
      {isHeld ? (
        <Notice kind="stop">
          The control holds {program.number === 0 ? "a program of your own" : `program ${program.number}`}. Loading
          another takes it away, with what you changed in it and what you looked up.
        </Notice>
      ) : null}
      {sheet.programs ? (
        <ul className="divide-y divide-rule-soft border border-rule">
          {sheet.programs.map(({ number, title }) => (
            <li key={number} className="flex items-center gap-3 px-3 py-1.5">
              <b className="figures">{number}</b>
              <span className="flex-1">{title}</span>
              <Button
                disabled={isRunning}
                onClick={() => {
                  send({ type: "loadProgram", number, isConfirmed: isHeld });
                  onClose();
                }}
              >
                {isHeld ? `Load ${number} all the same` : `Load ${number}`}
              </Button>
            </li>
          ))}
        </ul>
      ) : null}
      {seen.isCoachOn ? (
        <form
          className="flex flex-col gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            send({ type: "takeProgram", text: own, isConfirmed: isHeld });
            onClose();
          }}
        >
          <label className="font-bold" htmlFor="own-program">
            Or one of your own: paste its lines, or open a file
          </label>
          <input
            type="file"
            accept=".nc,.txt,text/plain"
            aria-label="Program from a file"
            onChange={(event) => {
              const file = event.target.files?.[0];
              if (file) void file.text().then((text) => setOwn(text.slice(0, MOST_TEXT)));
            }}
          />
          <textarea
            id="own-program"
            value={own}
            onChange={(event) => setOwn(event.target.value)}
            rows={8}
            maxLength={MOST_TEXT}
            spellCheck={false}
            className="figures rounded-[3px] border border-ink3 bg-field p-2"
          />
          <Button type="submit" className="self-start" disabled={own.trim() === "" || isRunning}>
            Take it
          </Button>
        </form>
      ) : null}
    </div>
  );
}
