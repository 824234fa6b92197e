import type { Command, Observation } from "@probe-lane/core/bench";
import { toolsAsked } from "@probe-lane/core/machines/program";
import { parseLengthMm, scales, showCounts } from "@probe-lane/core/units";
import { gaugedWords } from "@probe-lane/core/words";
import { useState, type FormEvent } from "react";
import { Button, FigureInput, KeyCap, Panel, Select } from "../../../ui";
import { outlined, type BenchKit, type Control } from "../lane/kit";
import { SignatureLine } from "./SignBar";
import { clockFactors, RUN_FORM, type ClockFactor } from "./useRunning";

const RAPIDS = [5, 25, 50, 100] as const;
const MOST_FEED = 150;

function Choice<T extends number>({
  label,
  values,
  value,
  words,
  onChoose,
}: {
  label: string;
  values: readonly T[];
  value: T;
  words(value: T): string;
  onChoose(value: T): void;
}) {
  return (
    <span className="flex items-center gap-1.5 text-xs text-ink2">
      {label}
      <span role="group" aria-label={label} className="flex rounded-[4px] border border-ink3 text-sm text-ink">
        {values.map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={one === value}
            onClick={() => onChoose(one)}
            className={`figures min-h-6 px-2 ${one === value ? "bg-ink font-bold text-panel" : "bg-field"}`}
          >
            {words(one)}
          </button>
        ))}
      </span>
    </span>
  );
}

const clockWords = (factor: ClockFactor): string => `×${factor}`;

/** What is seen between tip and part while the run is held, against the display. */
function Gap({ seen, send }: { seen: Observation; send(command: Command): void }) {
  const [text, setText] = useState("");
  const say = (isAlike: boolean) => {
    send({ type: "sayGap", text, isAlike });
    // what cannot be read is told below the picture, and stays here
    if (parseLengthMm(text, seen.sheet.unit).ok) setText("");
  };
  const last = seen.program?.gaps.at(-1);
  return (
    <div className="flex flex-wrap items-center gap-x-2 gap-y-1 border-t border-rule-soft px-2.5 py-1.5">
      <label>
        I see{" "}
        <FigureInput
          aria-label="Gap seen"
          className="w-16"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />{" "}
        {seen.sheet.unit === "mm" ? "mm" : "in"} between tip and part; display Z{" "}
        <b className="figures">{showCounts(seen.work.z, scales[seen.sheet.unit])}</b>
      </label>
      <Button className="!px-2" disabled={text.trim() === ""} onClick={() => say(true)}>
        They agree
      </Button>
      <Button className="!px-2" disabled={text.trim() === ""} onClick={() => say(false)}>
        They do not
      </Button>
      {last ? (
        <span className="text-xs text-ink2">said: {last.isAlike ? "they agree" : "they do not agree"}</span>
      ) : null}
    </div>
  );
}

/** Start, hold, step; how fast; what is still to go. */
export function RunPanel({
  seen,
  kit,
  send,
  pointed,
  onPart,
  factor,
  setFactor,
}: {
  seen: Observation;
  kit: BenchKit;
  send(command: Command): void;
  pointed: ReadonlySet<Control>;
  /** To the part that was cut. */
  onPart(): void;
  factor: ClockFactor;
  setFactor(factor: ClockFactor): void;
}) {
  const { program } = seen;
  const [fromTool, setFromTool] = useState("");
  const [isUnread, setUnread] = useState(false);
  if (program?.number == null) return null;
  const { run, pace } = program;
  const gauged = program.gauged.at(-1);
  const tools = toolsAsked(program);
  const start = (event: FormEvent) => {
    event.preventDefault();
    if (run) {
      if (run.held) send({ type: "resumeCycle" });
      return;
    }
    const at = fromTool === "" ? {} : { fromTool: Number(fromTool), ...(isUnread ? { isUnread } : {}) };
    send({ type: "startCycle", ...at });
  };
  const flag = (name: "isSingle" | "stopsAtOptional" | "passesSlash", words: string) => (
    <Button
      className={`!px-2 ${pace[name] ? "!border-ink !bg-ink !text-panel" : ""}`}
      aria-pressed={pace[name]}
      onClick={() => send({ type: "setPace", [name]: !pace[name] })}
    >
      {words}
    </Button>
  );
  return (
    <Panel
      title="Run"
      note={<Choice label="clock" values={clockFactors} value={factor} words={clockWords} onChoose={setFactor} />}
    >
      <form
        id={RUN_FORM}
        onSubmit={start}
        aria-label="Run"
        className="flex flex-wrap items-center gap-1.5 px-2.5 py-1.5"
      >
        {run ? (
          <>
            {run.held ? (
              <Button look="act" type="submit" keyCap=".">
                {pace.isSingle ? "Step one block" : "Resume"}
              </Button>
            ) : (
              <Button onClick={() => send({ type: "holdCycle" })} className="border-2 border-ink" keyCap=",">
                Hold feed
              </Button>
            )}
            <span className="figures flex gap-3" aria-label="Distance to go">
              <span className="text-xs text-ink2">to go</span>
              {kit.position.axes.map((axis) => (
                <span key={axis} data-testid={`to-go-${axis}`}>
                  {axis.toUpperCase()} <b>{showCounts(run.toGo[axis], scales[seen.sheet.unit])}</b>
                </span>
              ))}
            </span>
          </>
        ) : (
          <>
            <Button look="act" type="submit" keyCap="." className={outlined(pointed, "run")}>
              Start cycle
            </Button>
            <Select aria-label="Start at" value={fromTool} onChange={(event) => setFromTool(event.target.value)}>
              <option value="">at the head</option>
              {tools.map((tool) => (
                <option key={tool} value={tool}>
                  at tool {tool}
                </option>
              ))}
            </Select>
            {fromTool === "" ? null : (
              <label className="flex items-center gap-1 text-xs">
                <input type="checkbox" checked={!isUnread} onChange={(event) => setUnread(!event.target.checked)} />
                lines before it read first
              </label>
            )}
            <span className="text-xs text-ink2">
              from where it stands; a hand on <KeyCap>,</KeyCap> and <KeyCap>Esc</KeyCap>
            </span>
          </>
        )}
      </form>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1.5 px-2.5 pb-1.5">
        {flag("isSingle", "single block")}
        {flag("stopsAtOptional", "optional stop")}
        {flag("passesSlash", "pass over /")}
        <Choice
          label="rapid %"
          values={RAPIDS}
          value={pace.rapidPercent}
          words={(one) => String(one)}
          onChoose={(rapidPercent) => send({ type: "setPace", rapidPercent })}
        />
        <label className="flex items-center gap-1.5 text-xs text-ink2">
          feed %
          <input
            type="range"
            min={0}
            max={MOST_FEED}
            step={10}
            value={pace.feedPercent}
            onChange={(event) => send({ type: "setPace", feedPercent: Number(event.target.value) })}
            className="w-24 accent-[var(--contact)]"
          />
          <b className="figures w-8 text-sm text-ink">{pace.feedPercent}</b>
        </label>
      </div>
      <p aria-live="polite" className={gauged ? "border-t border-rule-soft px-2.5 py-1 text-xs" : "sr-only"}>
        {gauged ? `Line ${gauged.line}: ${gaugedWords(gauged, seen.sheet.unit)}` : ""}
      </p>
      {!run && program.parts && program.parts.cut > 0 ? (
        <p className="flex items-center gap-2 border-t border-rule-soft px-2.5 py-1.5">
          Part {program.parts.current} was run.
          <Button look={program.last?.why === "end" ? "act" : "plain"} onClick={onPart}>
            Measure it
          </Button>
        </p>
      ) : null}
      {run ? null : <SignatureLine seen={seen} onAsk={() => send({ type: "askSignature" })} />}
      {run?.held ? <Gap seen={seen} send={send} /> : null}
    </Panel>
  );
}
