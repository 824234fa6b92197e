import { useState } from "react";
import { Button, FigureInput, Notice } from "../../../ui";
import type { DialogProps } from "../lane/kit";

/** Most of a program that one takes along oneself, characters. */
const MOST_TEXT = 16_000;

/** One program of the store, and the number that it is to bear in the control. */
function Stored({
  number,
  title,
  isHeld,
  isRunning,
  onLoad,
}: {
  number: number;
  title: string;
  isHeld: boolean;
  isRunning: boolean;
  onLoad(as: { as?: number }): void;
}) {
  const [as, setAs] = useState(String(number));
  const isNumber = /^[1-9]\d{0,3}$/.test(as);
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 px-3 py-1.5">
      <b className="figures">{number}</b>
      <span className="flex-1">{title}</span>
      <label className="flex items-center gap-1 text-xs text-ink2">
        as O
        <FigureInput
          aria-label={`Number that ${number} is to bear`}
          className="w-16"
          value={as}
          aria-invalid={!isNumber}
          onChange={(event) => setAs(event.target.value.trim())}
        />
      </label>
      <Button disabled={isRunning || !isNumber} onClick={() => onLoad(Number(as) === number ? {} : { as: Number(as) })}>
        {isHeld ? `Load ${number} all the same` : `Load ${number}`}
      </Button>
      {isNumber ? null : (
        <span role="alert" className="w-full text-right text-contact">
          A program bears a number from 1 to 9999.
        </span>
      )}
    </li>
  );
}

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
          {sheet.programs.map((stored) => (
            <Stored
              key={stored.number}
              {...stored}
              isHeld={isHeld}
              isRunning={isRunning}
              onLoad={(as) => {
                send({ type: "loadProgram", number: stored.number, ...as, isConfirmed: isHeld });
                onClose();
              }}
            />
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
