import type { Command, Observation } from "@probe-lane/core/bench";
import { readProgram } from "@probe-lane/core/gcode";
import { linesSeen, type ProgramSeen } from "@probe-lane/core/machines/program";
import { endWords, holdWords } from "@probe-lane/core/words";
import { lazy, Suspense, useMemo, useState, type FormEvent } from "react";
import { Button, Panel } from "../../../ui";
import { EnvelopeTable } from "./EnvelopeTable";
import type { OpenDialog } from "../lane/act";
import { outlined, type BenchKit, type Control } from "../lane/kit";

/** Fetched when a program is looked at. */
const ProgramEditor = lazy(async () => ({
  default: (await import("../../../ui/program/ProgramEditor")).ProgramEditor,
}));

/** One line, chosen in the program, to be changed. */
function Mender({ line, text, onMend }: { line: number; text: string; onMend(text: string): void }) {
  const [typed, setTyped] = useState(text);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    onMend(typed);
    (document.activeElement as HTMLElement | null)?.blur();
  };
  return (
    <form
      onSubmit={submit}
      aria-label="Change a line"
      className="flex shrink-0 items-center gap-1.5 border-t border-rule p-1.5"
    >
      <label htmlFor="mend" className="text-xs text-ink2">
        line {line}
      </label>
      <input
        id="mend"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        autoComplete="off"
        spellCheck={false}
        className="figures min-w-0 flex-1 rounded-[3px] border border-ink3 bg-field px-1.5 py-0.5"
      />
      <Button type="submit" className="!px-2" disabled={typed === text}>
        Change
      </Button>
    </form>
  );
}

/** How the run stands, in a few words. */
function standing({ run, last }: ProgramSeen): string {
  if (run) return run.held ? holdWords[run.held] : "running";
  return last ? endWords(last) : "cursor at the head";
}

/** The program that the control holds, with its running line; a line that is chosen can be changed. */
export function ProgramPanel({
  seen,
  kit,
  send,
  isReadOnly,
  open,
  pointed,
}: {
  seen: Observation;
  kit: BenchKit;
  send(command: Command): void;
  isReadOnly: boolean;
  open(dialog: OpenDialog): void;
  pointed: ReadonlySet<Control>;
}) {
  const { program, sheet } = seen;
  const { dialect } = kit.registers.exchange;
  const lines = useMemo(() => (program ? linesSeen(program, sheet.programs) : []), [program, sheet.programs]);
  const text = lines.join("\n");
  const diagnostics = useMemo(() => (text === "" ? [] : readProgram(text, dialect).diagnostics), [text, dialect]);
  const [chosen, setChosen] = useState<number | null>(null);
  const [isTable, setTable] = useState(false);
  const stored = sheet.programs?.find(({ number }) => number === program?.number);
  const isHeld = program?.number != null;
  const chosenText = chosen === null ? undefined : lines[chosen - 1];
  return (
    <Panel
      title={
        isHeld ? `Program ${program.number === 0 ? "of your own" : `${program.as}, ${stored?.title ?? ""}`}` : "Program"
      }
      note={
        <span className="flex gap-1">
          {isHeld ? (
            <Button
              look="quiet"
              className="!py-0 text-xs"
              aria-pressed={isTable}
              onClick={() => setTable((was) => !was)}
            >
              {isTable ? "Lines" : "How deep each goes"}
            </Button>
          ) : null}
          {isReadOnly ? null : (
            <Button look="quiet" className="!py-0 text-xs" onClick={() => open("program")}>
              Load …
            </Button>
          )}
        </span>
      }
      className="flex-1"
      bodyClassName="flex flex-col"
    >
      {isHeld ? (
        <>
          <div className="min-h-24 flex-1">
            {isTable ? (
              <EnvelopeTable text={text} dialect={dialect} unit={sheet.unit} called={seen.modal.tool} />
            ) : (
              <Suspense fallback={<p className="p-3 text-ink2">Fetching the program …</p>}>
                <ProgramEditor
                  text={text}
                  diagnostics={diagnostics}
                  isReadOnly
                  running={program.run?.line ?? null}
                  onLine={setChosen}
                />
              </Suspense>
            )}
          </div>
          {!isTable && chosen !== null && chosenText !== undefined && !isReadOnly && !program.run ? (
            <Mender
              key={`${chosen} ${chosenText}`}
              line={chosen}
              text={chosenText}
              onMend={(typed) => send({ type: "mendLine", line: chosen, text: typed })}
            />
          ) : null}
          <p role="status" data-testid="run-state" className="border-t border-rule-soft px-2.5 py-1 text-xs text-ink2">
            {standing(program)}
          </p>
        </>
      ) : (
        <div className="p-3">
          <p>No program is held. The sheet says which one belongs to this part.</p>
          {isReadOnly ? null : (
            <Button look="act" className={`mt-2 ${outlined(pointed, "load")}`} onClick={() => open("program")}>
              Load a program …
            </Button>
          )}
        </div>
      )}
    </Panel>
  );
}
