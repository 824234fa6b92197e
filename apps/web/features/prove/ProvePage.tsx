import type { Dialect, ProgramFacts, ToolCall } from "@probe-lane/core/gcode";
import { formatMm } from "@probe-lane/core/units";
import { programWords } from "@probe-lane/core/words";
import { FileText } from "lucide-react";
import { useSearchParams } from "react-router";
import { lazy, Suspense, useEffect, useRef, useState, type ReactNode } from "react";
import { useMe } from "../../app/session";
import { Button, Notice, Panel, Select } from "../../ui";
import { EXAMPLES } from "./examples";
import { PathDrawing } from "./PathDrawing";
import { keepProgram, keptProgram } from "./kept";
import type { EditorHandle } from "../../ui/program/ProgramEditor";
import { RunWithLane } from "./RunWithLane";
import { LONGEST_TEXT, useProgram } from "./useProgram";

const ProgramEditor = lazy(async () => ({ default: (await import("../../ui/program/ProgramEditor")).ProgramEditor }));

type Unit = "mm" | "inch";
/** More findings than this are counted, not listed. */
const LISTED = 50;

/** A program read: what is wrong with it, what it calls, how far each tool goes; and run, with a lane that is done. */
export function ProvePage() {
  const { me } = useMe();
  const owner = me?.id ?? "";
  const [before] = useState(() => keptProgram(owner));
  const [text, setText] = useState(before.text);
  const [dialect, setDialect] = useState<Dialect>(before.dialect);
  const [unit, setUnit] = useState<Unit>(before.unit);
  const [isSkipping, setSkipping] = useState(false);
  const [name, setName] = useState<string | null>(before.name);
  const [problem, setProblem] = useState<string | null>(null);
  const editor = useRef<EditorHandle>(null);
  const file = useRef<HTMLInputElement>(null);
  const [search] = useSearchParams();
  const laneId = search.get("lane");
  const { read, isReading } = useProgram(text, dialect, unit, isSkipping);
  const facts = read?.facts ?? null;
  useEffect(() => keepProgram(owner, { text, name, dialect, unit }), [owner, text, name, dialect, unit]);
  const take = async (chosen: File | undefined) => {
    if (!chosen) return;
    if (chosen.size > LONGEST_TEXT) {
      setProblem(`${chosen.name} is longer than 8 MB: split it, or read a part of it. Nothing was changed.`);
      return;
    }
    const read = await chosen.text();
    if (read.includes("\u0000")) {
      setProblem(`${chosen.name} is no text: choose the program itself. Nothing was changed.`);
      return;
    }
    setProblem(null);
    setName(chosen.name);
    setText(read);
  };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-4 lg:h-[calc(100dvh-5.5rem)] lg:min-h-[36rem] lg:grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)]">
      <Panel
        title={name ?? "Program"}
        note={facts && text !== "" ? <span className="figures">{facts.lines} lines</span> : null}
        className="min-h-[24rem]"
        bodyClassName="flex min-h-0 flex-col"
      >
        <div className="flex flex-wrap items-center gap-2 border-b border-rule-soft p-2 text-xs">
          <Button onClick={() => file.current?.click()}>
            <FileText size={14} aria-hidden className="mr-1 inline" />
            Load a file …
          </Button>
          <input
            ref={file}
            type="file"
            aria-label="Program file"
            className="sr-only"
            tabIndex={-1}
            accept=".nc,.tap,.txt,.cnc,.mpf,text/plain"
            onChange={(event) => {
              void take(event.target.files?.[0]);
              event.target.value = "";
            }}
          />
          <label>
            for a{" "}
            <Select
              aria-label="Machine"
              value={dialect}
              onChange={(event) => setDialect(event.target.value as Dialect)}
            >
              <option value="mill">mill</option>
              <option value="lathe">turret lathe</option>
            </Select>
          </label>
          <label>
            starts in{" "}
            <Select
              aria-label="Unit at the start"
              value={unit}
              onChange={(event) => setUnit(event.target.value as Unit)}
            >
              <option value="mm">mm</option>
              <option value="inch">inch</option>
            </Select>
          </label>
          <label className="flex items-center gap-1">
            <input type="checkbox" checked={isSkipping} onChange={(event) => setSkipping(event.target.checked)} />
            skip blocks after /
          </label>
        </div>
        {problem ? (
          <Notice kind="stop" role="alert">
            {problem}
          </Notice>
        ) : null}
        <div
          className="min-h-0 flex-1"
          onDragOver={(event) => event.preventDefault()}
          onDrop={(event) => {
            if (event.dataTransfer.files.length === 0) return;
            event.preventDefault();
            void take(event.dataTransfer.files[0]);
          }}
        >
          <Suspense fallback={<p className="p-3 text-ink2">Fetching the editor …</p>}>
            <ProgramEditor ref={editor} text={text} diagnostics={facts?.diagnostics ?? []} onChange={setText} />
          </Suspense>
        </div>
        <p className="border-t border-rule-soft px-3 py-1 text-xs text-ink2">
          Words in <b className="text-expected">this color</b> read a register.{" "}
          {laneId === null ? "Nothing is sent; this tab keeps it until it is shut." : ""}
        </p>
      </Panel>
      <div className="flex min-h-0 flex-col gap-4 lg:overflow-y-auto [&>*]:shrink-0" aria-busy={isReading}>
        {text.trim() === "" ? (
          <Panel title="Nothing to read yet" bodyClassName="flex flex-col gap-3 p-4">
            <p>
              Load a program, drop a file on the left, or paste it there. Here you then see what is wrong with it, which
              registers it calls, and how far each tool goes: what a careful person reads out of it before anything
              moves.
            </p>
            <p className="flex flex-wrap gap-2">
              {EXAMPLES.map((example) => (
                <Button
                  key={example.name}
                  onClick={() => {
                    setDialect(example.dialect);
                    setUnit("mm");
                    setName(example.name);
                    setText(example.text);
                  }}
                >
                  Show {example.name}
                </Button>
              ))}
            </p>
          </Panel>
        ) : null}
        {laneId === null ? null : (
          <RunWithLane
            laneId={laneId}
            text={text}
            blockDelete={isSkipping}
            dialect={dialect}
            isWrong={facts !== null && facts.diagnostics.length > 0}
            isReadable={facts !== null && !isReading && facts.diagnostics.length === 0}
            onGo={(line) => editor.current?.goTo(line, 1)}
          />
        )}
        {facts && text.trim() !== "" ? (
          <Read
            facts={facts}
            dialect={dialect}
            unit={unit}
            onGo={(line, column) => editor.current?.goTo(line, column)}
          />
        ) : null}
        {read && facts?.diagnostics.length === 0 && read.strokes.length > 0 && text.trim() !== "" ? (
          <Panel title="Where they go" note={read.isDrawnWhole ? null : "the first 4000 moves"} bodyClassName="">
            <PathDrawing strokes={read.strokes} dialect={dialect} />
          </Panel>
        ) : null}
        <p className="text-xs text-ink2">
          What stands here is in programmed figures, without work offset, length or diameter, on no machine in
          particular. Whether it fits a machine, its fixture and its tools is proved there, by the machine’s manual and
          the shop’s rules, with the person in charge.
        </p>
      </div>
    </div>
  );
}

function Read({
  facts,
  dialect,
  unit,
  onGo,
}: {
  facts: ProgramFacts;
  dialect: Dialect;
  unit: Unit;
  onGo(line: number, column: number): void;
}) {
  const { diagnostics } = facts;
  return (
    <>
      <Panel
        title={diagnostics.length === 0 ? "Nothing is wrong with it as a text" : "What is wrong"}
        note={diagnostics.length > 0 ? `${diagnostics.length} ${diagnostics.length === 1 ? "line" : "lines"}` : null}
        bodyClassName="divide-y divide-rule-soft"
      >
        {diagnostics.length === 0 ? (
          <p className="px-4 py-2 text-ink2">
            {facts.calls.length} {facts.calls.length === 1 ? "use of a tool" : "uses of tools"}, {endWords(facts)}.
          </p>
        ) : null}
        <ul role="status" aria-live="polite">
          {diagnostics.slice(0, LISTED).map(({ line, column, code, said }) => (
            <li key={`${line} ${column}`} className="flex items-baseline gap-3 px-4 py-1.5">
              <button
                type="button"
                className="figures shrink-0 text-contact underline"
                onClick={() => onGo(line, column)}
              >
                line {line}
              </button>
              <span>{programWords({ code, said })}</span>
            </li>
          ))}
        </ul>
        {diagnostics.length > LISTED ? <p className="px-4 py-1.5">and {diagnostics.length - LISTED} more.</p> : null}
      </Panel>
      {facts.calls.length > 0 ? <Calls calls={facts.calls} dialect={dialect} unit={unit} onGo={onGo} /> : null}
    </>
  );
}

function endWords({ end, stops, writes }: ProgramFacts): string {
  const ends = end && `ends ${end.kind === "text" ? "with its text" : `by ${end.kind}`} at line ${end.line}`;
  const held = stops.map(({ line, kind }) => `${kind} at line ${line}`).join(", ");
  return [
    held === "" ? "" : `stops: ${held}`,
    writes.length > 0 ? `writes registers in ${writes.length} lines` : "",
    ends,
  ]
    .filter(Boolean)
    .join("; ");
}

const list = (values: readonly (string | number | null)[], none: string): string =>
  values.length === 0 ? none : values.map((value) => value ?? "none").join(", ");

/** How far each tool goes in each work offset, and what it is called with. */
function Calls({
  calls,
  dialect,
  unit,
  onGo,
}: {
  calls: readonly ToolCall[];
  dialect: Dialect;
  unit: Unit;
  onGo(line: number, column: number): void;
}) {
  const show = (value: number): string => formatMm(value, unit === "mm" ? 3 : 4);
  const span = (extent: readonly [number, number] | null): ReactNode =>
    extent ? (
      <>
        {show(extent[0])}
        <br />
        {show(extent[1])}
      </>
    ) : (
      "–"
    );
  const isMill = dialect !== "lathe";
  return (
    <Panel title="How far each tool goes" note={`programmed figures, ${unit}`} bodyClassName="overflow-x-auto">
      <table className="w-full min-w-[34rem]">
        <thead>
          <tr className="text-right text-xs text-ink2">
            <th className="py-1 pl-4 text-left font-normal">tool</th>
            <th className="text-left font-normal">offset</th>
            <th className="text-left font-normal">{isMill ? "H, D" : "row"}</th>
            <th className="text-left font-normal">spindle</th>
            <th className="font-normal">deepest Z fed</th>
            <th className="font-normal">deepest Z at all</th>
            <th className="font-normal">X{isMill ? "" : " ⌀"} from, to</th>
            {isMill ? <th className="pr-4 font-normal">Y from, to</th> : <th className="pr-4" />}
          </tr>
        </thead>
        <tbody>
          {calls.map((call) => (
            <tr key={`${call.tool} ${call.frame}`} className="border-t border-rule-soft text-right align-top">
              <th scope="row" className="py-1 pl-4 text-left">
                <button type="button" className="figures underline" onClick={() => onGo(call.firstLine, 1)}>
                  T{call.tool}
                </button>
              </th>
              <td className="figures text-left">{call.frame}</td>
              <td className={`figures text-left ${call.rows.includes(null) ? "text-contact" : ""}`}>
                {isMill ? `H ${list(call.rows, "–")}` : list(call.rows, "–")}
                {call.diameterRows.length > 0 ? <span className="block">D {list(call.diameterRows, "–")}</span> : null}
              </td>
              <td className={`text-left text-xs ${call.spindle.includes("stopped") ? "text-contact" : ""}`}>
                {list(call.spindle, "never fed")}
                <span className="figures block">
                  {call.speeds.map(({ value, isSurface }) => `${value}${isSurface ? " surface" : ""}`).join(", ")}
                </span>
              </td>
              <td className="figures font-bold">{call.reach?.cutZ ? show(call.reach.cutZ[0]) : "–"}</td>
              <td className="figures">{call.reach?.z ? show(call.reach.z[0]) : "–"}</td>
              <td className="figures text-xs">{span(call.reach?.x ?? null)}</td>
              <td className="figures pr-4 text-xs">{isMill ? span(call.reach?.y ?? null) : null}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Panel>
  );
}
