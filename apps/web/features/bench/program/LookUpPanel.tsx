import type { Command, Observation } from "@probe-lane/core/bench";
import {
  canBeRead,
  hangings,
  toolsAsked,
  type AskSeen,
  type Outcome,
  type RestPlace,
} from "@probe-lane/core/machines/program";
import {
  askName,
  askWords,
  hangingWords,
  outcomeOfLook,
  refusalWords,
  restPlaceWords,
  saidWords,
  withdrawnBy,
} from "@probe-lane/core/words";
import type { LengthUnit } from "@probe-lane/core/units";
import { useEffect, useRef, useState, type FormEvent } from "react";
import { Button, FigureInput, Panel, Select } from "../../../ui";
import { outlined, type Control } from "../lane/kit";

const keyOf = ({ ask, tool }: Pick<AskSeen, "ask" | "tool">): string => `${ask} ${tool ?? ""}`;

/** Which tool is lowest over what holds the part, and over what; or none. */
function MatteringBox({
  tools,
  places,
  value,
  onChange,
}: {
  tools: readonly number[];
  places: readonly RestPlace[];
  value: string;
  onChange(value: string): void;
}) {
  const [tool = "", place = ""] = value.split(" ");
  return (
    <>
      <Select
        aria-label="Tool"
        value={tool}
        onChange={({ target }) =>
          onChange(target.value === "none" || target.value === "" ? target.value : `${target.value} ${place}`)
        }
      >
        <option value="">choose</option>
        {tools.map((one) => (
          <option key={one} value={one}>
            tool {one}
          </option>
        ))}
        <option value="none">none of them</option>
      </Select>
      {tool === "none" || tool === "" ? null : (
        <>
          over
          <Select aria-label="Over what" value={place} onChange={({ target }) => onChange(`${tool} ${target.value}`)}>
            <option value="">choose</option>
            {places.map((one) => (
              <option key={one} value={one}>
                {restPlaceWords[one]}
              </option>
            ))}
          </Select>
        </>
      )}
    </>
  );
}

/** The box for an answer: a choice where there are few, else figures or a word. */
function AnswerBox({
  ask,
  tools,
  places,
  value,
  onChange,
}: {
  ask: AskSeen;
  tools: readonly number[];
  places: readonly RestPlace[];
  value: string;
  onChange(value: string): void;
}) {
  if (ask.ask === "matters") return <MatteringBox tools={tools} places={places} value={value} onChange={onChange} />;
  if (ask.ask === "hangs")
    return (
      <Select aria-label="Answer" value={value} onChange={(event) => onChange(event.target.value)}>
        <option value="">choose</option>
        {hangings.map((one) => (
          <option key={one} value={one}>
            {hangingWords[one]}
          </option>
        ))}
      </Select>
    );
  if (ask.ask === "units")
    return (
      <Select aria-label="Answer" value={value} onChange={(event) => onChange(event.target.value)}>
        <option value="">choose</option>
        <option value="mm">millimetres</option>
        <option value="inch">inches</option>
      </Select>
    );
  if (ask.ask === "spindle") {
    const [way = "", speed = ""] = value.split(" ");
    return (
      <>
        <Select
          aria-label="Direction"
          value={way}
          onChange={(event) =>
            onChange(event.target.value === "stopped" ? "stopped" : `${event.target.value} ${speed}`)
          }
        >
          <option value="">choose</option>
          <option value="forward">forward</option>
          <option value="reverse">reverse</option>
          <option value="stopped">stopped</option>
        </Select>
        {way === "stopped" ? null : (
          <FigureInput
            aria-label="Speed in rev/min"
            className="w-20"
            value={speed}
            onChange={(event) => onChange(`${way} ${event.target.value}`)}
          />
        )}
      </>
    );
  }
  return (
    <FigureInput
      aria-label="Answer"
      className="w-28"
      value={value}
      onChange={(event) => onChange(event.target.value)}
    />
  );
}

/** One thing being looked up: what stands there, and whether it is as it should be. */
function Answering({
  ask,
  tools,
  places,
  unit,
  send,
  onDone,
}: {
  ask: AskSeen;
  tools: readonly number[];
  places: readonly RestPlace[];
  unit: LengthUnit;
  send(command: Command): void;
  onDone(): void;
}) {
  const [text, setText] = useState("");
  // which tool matters is neither right nor wrong of a program
  const isJudged = ask.ask !== "matters";
  const [isSound, setSound] = useState<boolean | null>(isJudged ? null : true);
  const [isUnreadable, setUnreadable] = useState(false);
  const form = useRef<HTMLFormElement>(null);
  // it may answer with a promise, which is no way to end an effect
  useEffect(() => void form.current?.scrollIntoView({ block: "nearest" }), []);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (isSound === null) return;
    const said = text.trim();
    // what cannot be read stays in its box, with what to do
    const isReadable = canBeRead(ask.ask, said, unit);
    setUnreadable(!isReadable);
    if (!isReadable) return;
    send({
      type: "lookUp",
      ask: ask.ask,
      ...(ask.tool === null ? {} : { tool: ask.tool }),
      text: said,
      isSound,
    });
    onDone();
  };
  return (
    <form
      ref={form}
      onSubmit={submit}
      aria-label={askName(ask)}
      className="flex flex-col gap-1.5 bg-expected-soft px-2.5 py-2"
    >
      <p className="font-bold">{askWords[ask.ask].asks(ask.tool)}</p>
      <p className="flex flex-wrap items-center gap-1.5">
        <AnswerBox ask={ask} tools={tools} places={places} value={text} onChange={setText} />
      </p>
      {isUnreadable ? (
        <p role="alert" className="font-bold text-contact">
          {refusalWords({ code: "answerUnreadable", ask: ask.ask, tool: ask.tool }, unit)}
        </p>
      ) : null}
      <fieldset className="flex flex-wrap items-center gap-x-3">
        <legend className="sr-only">What it is</legend>
        {(isJudged ? ([true, false] as const) : []).map((one) => (
          <label key={String(one)} className="flex items-center gap-1">
            <input type="radio" name="sound" checked={isSound === one} onChange={() => setSound(one)} />
            {one ? "as it should be" : "a fault"}
          </label>
        ))}
        <Button type="submit" className="ml-auto !px-2" disabled={text.trim() === "" || isSound === null}>
          Answer
        </Button>
      </fieldset>
    </form>
  );
}

function Standing({ ask }: { ask: AskSeen }) {
  if (ask.said === null)
    return ask.withdrawnBy === null ? (
      <span className="text-ink2">open</span>
    ) : (
      <span className="text-contact">{withdrawnBy({ by: ask.withdrawnBy })}</span>
    );
  return (
    <span className="min-w-0 truncate">
      <b className="figures">{saidWords({ ask: ask.ask, said: ask.said })}</b>
      {ask.isSound === false ? <b className="text-contact"> fault</b> : null}
      {ask.agrees === null ? null : (
        <span className={ask.agrees ? "text-ink2" : "font-bold text-contact"}>
          {ask.agrees ? " ✓ stands there" : " ▲ not what stands there"}
        </span>
      )}
    </span>
  );
}

/** The deepest point, seen beside the part with the tool and its row. */
function Deepest({ seen, send }: { seen: Observation; send(command: Command): void }) {
  const [tool, setTool] = useState("");
  const tools = toolsAsked(seen.program);
  const chosen = tool === "" ? (tools[0] ?? 0) : Number(tool);
  if (tools.length === 0) return null;
  const say = (outcome: Outcome) => send({ type: "judgeDeepest", tool: chosen, outcome });
  return (
    <section aria-label="Deepest point beside the part" className="shrink-0 border-t border-rule px-2.5 py-1.5">
      <p className="text-xs text-ink2">
        Deepest point, looked at from the side: the display stands at its deepest Z, the tool over what holds the part.
      </p>
      <p className="flex flex-wrap items-center gap-1.5">
        <Select aria-label="Tool at its deepest" value={chosen} onChange={(event) => setTool(event.target.value)}>
          {tools.map((one) => (
            <option key={one} value={one}>
              tool {one}
            </option>
          ))}
        </Select>
        <Button className="!px-2" onClick={() => say("clear")}>
          stays clear
        </Button>
        <Button className="!px-2" onClick={() => say("wouldHit")}>
          would hit
        </Button>
        {seen.program?.deepest.map((one) => (
          <span key={one.tool} className="text-xs">
            tool {one.tool}: <b>{outcomeOfLook[one.outcome]}</b>
          </span>
        ))}
      </p>
    </section>
  );
}

function openWords(asks: readonly AskSeen[]): string | null {
  if (asks.length === 0) return null;
  const left = asks.filter(({ said }) => said === null).length;
  return left === 0 ? "all answered" : `${left} of ${asks.length} open`;
}
function markOf({ said, withdrawnBy: by }: AskSeen): string {
  if (said !== null) return "✓";
  return by === null ? "○" : "↺";
}

/** What is looked up in program and registers before anything runs; only practice says whether it stands there. */
export function LookUpPanel({
  seen,
  send,
  isReadOnly,
  pointed,
}: {
  seen: Observation;
  send(command: Command): void;
  isReadOnly: boolean;
  pointed: ReadonlySet<Control>;
}) {
  const asks = seen.program?.asks ?? [];
  const [open, setOpen] = useState<string | null>(null);
  return (
    <Panel
      title="Looked up by you"
      note={openWords(asks)}
      className={`flex-1 ${outlined(pointed, "lookUp")}`}
      bodyClassName="flex flex-col"
    >
      {asks.length === 0 ? (
        <p className="p-2.5 text-ink2">What is looked up depends on the program: load it first.</p>
      ) : null}
      <ul
        aria-label="Answers"
        // where nothing in it can be pressed the list itself is reached by the keyboard
        tabIndex={isReadOnly || seen.program?.run != null ? 0 : undefined}
        className="min-h-24 flex-1 divide-y divide-rule-soft overflow-y-auto"
      >
        {asks.map((ask) => (
          <li key={keyOf(ask)}>
            <button
              type="button"
              aria-expanded={open === keyOf(ask)}
              disabled={isReadOnly || seen.program?.run != null}
              onClick={() => setOpen(open === keyOf(ask) ? null : keyOf(ask))}
              className="flex w-full items-baseline gap-2 px-2.5 py-1 text-left hover:bg-well"
            >
              <span aria-hidden className="w-4 shrink-0">
                {markOf(ask)}
              </span>
              <span className="w-36 shrink-0">{askName(ask)}</span>
              <Standing ask={ask} />
            </button>
            {open === keyOf(ask) ? (
              <Answering
                ask={ask}
                tools={toolsAsked(seen.program)}
                places={seen.program?.restPlaces ?? []}
                unit={seen.sheet.unit}
                send={send}
                onDone={() => {
                  const next = asks.slice(asks.indexOf(ask) + 1).find(({ said }) => said === null);
                  setOpen(next ? keyOf(next) : null);
                }}
              />
            ) : null}
          </li>
        ))}
      </ul>
      {asks.length > 0 && !isReadOnly && open === null && seen.program?.run == null ? (
        <Deepest seen={seen} send={send} />
      ) : null}
    </Panel>
  );
}
