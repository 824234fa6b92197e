import type { Command, Observation } from "@probe-lane/core/bench";
import {
  partInstrumentNames,
  partInstruments,
  partVerdicts,
  isTried,
  toolsAsked,
  type PartInstrument,
  type PartsSeen,
  type TriedInstrument,
} from "@probe-lane/core/machines/program";
import { exchangeIds } from "@probe-lane/core/exchange";
import { readRegister, type RegisterId } from "@probe-lane/core/registers";
import { parseLengthMm, scales, showCounts, showLength } from "@probe-lane/core/units";
import { drawingWords, partInstrumentWords, partSaidWords, registerName } from "@probe-lane/core/words";
import { useState, type FormEvent, type ReactNode } from "react";
import { Button, FigureInput, Panel, Select } from "../../../ui";
import { GaugedTable } from "../../../ui/program/GaugedTable";
import { outlined, type Control } from "../lane/kit";
import { InstrumentPicture } from "./instruments";

type Features = NonNullable<Observation["sheet"]["features"]>;
type Feature = Features[number];
type Figure = PartsSeen["figures"][number];

interface DeskProps {
  seen: Observation;
  send(command: Command): void;
  isReadOnly: boolean;
  pointed: ReadonlySet<Control>;
  /** The registers, as they stand beside every desk. */
  registers: ReactNode;
}

/** Figures that were read of the part as it is now. */
const figuresNow = ({ figures, current, cut }: PartsSeen): readonly Figure[] =>
  figures.filter((one) => one.part === current && one.cut === cut);

/** What a row of the report shows as the student's own: the last figure, or the stacks that close in on a slot. */
function mine(figures: readonly Figure[], unit: "mm" | "inch"): string {
  const last = figures.at(-1);
  if (!last) return "–";
  const show = (mm: number) => showLength(mm, scales[unit]);
  if (last.goes === undefined) return show(last.mm);
  const goes = figures.filter((one) => one.goes).map(({ mm }) => mm);
  const stays = figures.filter((one) => one.goes === false).map(({ mm }) => mm);
  return `${goes.length > 0 ? show(Math.max(...goes)) : "…"} to ${stays.length > 0 ? show(Math.min(...stays)) : "…"}`;
}

/** The features of the drawing with what was read of each; in practice, what each really is once it was read. */
function Report({
  parts,
  features,
  unit,
  isPractice,
  chosen,
  onChoose,
}: {
  parts: PartsSeen;
  features: Features;
  unit: "mm" | "inch";
  isPractice: boolean;
  chosen: string;
  onChoose(name: string): void;
}) {
  const figures = figuresNow(parts);
  const head = "px-2 py-0.5 text-left text-xs font-normal text-ink2";
  const cell = "figures px-2 py-1 text-right whitespace-nowrap";
  return (
    <table className="w-full">
      <thead>
        <tr className="border-b border-rule">
          <th className={head}>feature</th>
          <th className={`${head} !text-right`}>drawing</th>
          <th className={`${head} !text-right`}>mine</th>
          {isPractice ? <th className={`${head} !text-right`}>really</th> : null}
          <th className={head}>read with</th>
        </tr>
      </thead>
      <tbody>
        {features.map((feature) => {
          const own = figures.filter((one) => one.feature === feature.name);
          const last = own.at(-1);
          return (
            <tr
              key={feature.name}
              className={`border-t border-rule-soft ${feature.name === chosen ? "bg-expected-soft" : ""}`}
            >
              <th scope="row" className="text-left font-normal">
                <button
                  type="button"
                  aria-pressed={feature.name === chosen}
                  onClick={() => onChoose(feature.name)}
                  className={`w-full px-2 py-1 text-left hover:underline ${feature.name === chosen ? "font-bold" : ""}`}
                >
                  {feature.name}
                </button>
              </th>
              <td className={`${cell} text-ink2`}>{drawingWords(feature, unit)}</td>
              <td className={`${cell} font-bold`} data-testid={`mine ${feature.name}`}>
                {mine(own, unit)}
              </td>
              {isPractice ? (
                <td className={cell}>
                  {last?.reallyMm == null ? (
                    <span className="text-ink2">after yours</span>
                  ) : (
                    showLength(last.reallyMm, scales[unit])
                  )}
                </td>
              ) : null}
              <td className="px-2 py-1 text-xs text-ink2">
                {last ? `${partInstrumentWords[last.with]}${last.isWarm ? ", warm" : ""}` : ""}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

const stepWords = (instrument: PartInstrument, unit: "mm" | "inch"): string => {
  const step = showLength(partInstruments[instrument].stepMm, scales[unit]);
  return isTried(instrument) ? `steps of ${step}` : `reads ${step}`;
};

const TRIED: Record<TriedInstrument, { begins: string; form: string; size: string; tries: string }> = {
  gaugeStack: { begins: "A stack of", form: "Gauge stack", size: "Size of the stack", tries: "Stacks tried" },
  plug: { begins: "A plug of", form: "Plug", size: "Size of the plug", tries: "Plugs tried" },
};

/** Which instrument to put where; a stack or a plug is tried, the others show a figure. */
function Measuring({
  seen,
  parts,
  features,
  feature,
  send,
  onChoose,
}: {
  seen: Observation;
  parts: PartsSeen;
  features: Features;
  feature: Feature;
  send(command: Command): void;
  onChoose(name: string): void;
}) {
  const { unit } = seen.sheet;
  const [tried, setTried] = useState<TriedInstrument | null>(null);
  const [size, setSize] = useState("");
  const tries = figuresNow(parts).filter((one) => one.feature === feature.name && one.with === tried);
  const take = (instrument: PartInstrument) => {
    setTried(isTried(instrument) ? instrument : null);
    if (!isTried(instrument)) send({ type: "measurePart", feature: feature.name, with: instrument });
  };
  const tryIt = (event: FormEvent) => {
    event.preventDefault();
    if (tried) send({ type: "tryGauge", feature: feature.name, with: tried, text: size });
    // what cannot be read is told below the picture, and stays here
    if (parseLengthMm(size, unit).ok) setSize("");
  };
  return (
    <>
      <p className="flex flex-wrap items-center gap-1.5 px-2.5 pt-1.5">
        Of the{" "}
        <Select aria-label="Feature" value={feature.name} onChange={({ target }) => onChoose(target.value)}>
          {features.map(({ name }) => (
            <option key={name}>{name}</option>
          ))}
        </Select>{" "}
        with the
      </p>
      <div role="group" aria-label="Instruments" className="grid grid-cols-4 gap-1 p-2">
        {partInstrumentNames.map((name) => (
          <button
            key={name}
            type="button"
            aria-pressed={isTried(name) ? name === tried : undefined}
            onClick={() => take(name)}
            className={`flex flex-col items-center rounded-[4px] border bg-field px-1 py-1 leading-tight hover:border-ink ${name === tried ? "border-2 border-ink" : "border-rule"}`}
          >
            <InstrumentPicture name={name} />
            <b className="text-[13px]">{partInstrumentWords[name]}</b>
            <span className="text-xs text-ink2">{stepWords(name, unit)}</span>
          </button>
        ))}
      </div>
      {tried ? (
        <form
          onSubmit={tryIt}
          aria-label={TRIED[tried].form}
          className="flex flex-wrap items-center gap-1.5 border-t border-rule-soft px-2.5 py-1.5"
        >
          {TRIED[tried].begins}{" "}
          <FigureInput
            aria-label={TRIED[tried].size}
            className="w-24"
            autoFocus
            value={size}
            onChange={({ target }) => setSize(target.value)}
          />
          <Button type="submit" className="!px-2" disabled={size.trim() === ""}>
            Try it
          </Button>
          <ul aria-label={TRIED[tried].tries} className="flex w-full flex-wrap gap-x-3 text-xs">
            {tries.slice(-6).map(({ mm, goes }, at) => (
              <li key={`${at} ${mm}`}>
                <span className="figures">{showLength(mm, scales[unit])}</span>{" "}
                <b className={goes ? "text-expected" : "text-contact"}>{goes ? "goes" : "does not go"}</b>
              </li>
            ))}
          </ul>
        </form>
      ) : null}
    </>
  );
}

/** Spindle, door, and whether the part is warm: what stands between hands and a measure. */
function Hands({ seen, parts, send }: { seen: Observation; parts: PartsSeen; send(command: Command): void }) {
  return (
    <p className="mt-auto flex flex-wrap items-center gap-1.5 border-t border-rule-soft px-2.5 py-1.5 text-xs">
      {seen.spindle.isOn ? (
        <Button className="!px-2" onClick={() => send({ type: "stopSpindle" })}>
          Stop the spindle
        </Button>
      ) : (
        <span>spindle stopped</span>
      )}
      {seen.isDoorOpen ? (
        <span>· door open</span>
      ) : (
        <Button className="!px-2" onClick={() => send({ type: "setDoor", isOpen: true })}>
          Open the door
        </Button>
      )}
      {parts.isWarm ? (
        <>
          <b className="text-contact">· part warm from the cut</b>
          <Button className="!px-2" onClick={() => send({ type: "letCool" })}>
            Let it cool
          </Button>
        </>
      ) : (
        <span>· part cool</span>
      )}
    </p>
  );
}

/** A correction beyond this stops, and is not set, mm. */
const LIMIT_MM = 0.2;
const WEAR = /^(?:HW|DW|XW|ZW)(\d)$/;

/** What is off goes into wear: which register, and by how much it changes; nothing is worked out here. */
function Correct({ seen, send }: { seen: Observation; send(command: Command): void }) {
  const { unit } = seen.sheet;
  const tools = toolsAsked(seen.program);
  const wears = exchangeIds(seen.registers).filter((id): id is RegisterId =>
    tools.includes(Number(WEAR.exec(id)?.[1])),
  );
  const [chosen, setChosen] = useState("");
  const [change, setChange] = useState("");
  const register = wears.find((one) => one === chosen);
  const read = parseLengthMm(change, unit);
  const isTooMuch = read.ok && Math.abs(read.value) > LIMIT_MM;
  const set = (event: FormEvent) => {
    event.preventDefault();
    if (!register || isTooMuch) return;
    send({ type: "typeRegister", register, text: change, how: "add", isConfirmed: true });
    if (read.ok) setChange("");
  };
  return (
    <form onSubmit={set} aria-label="Correct" className="flex flex-wrap items-center gap-1.5 px-2.5 py-1.5">
      <Select aria-label="Wear" value={chosen} onChange={({ target }) => setChosen(target.value)}>
        <option value="">which wear</option>
        {wears.map((one) => (
          <option key={one} value={one}>
            {registerName(one, seen.kind)}
          </option>
        ))}
      </Select>{" "}
      {register ? (
        <span className="figures">{showCounts(readRegister(seen.registers, register), scales[unit])}</span>
      ) : null}{" "}
      by{" "}
      <FigureInput
        aria-label="Change"
        className="w-20"
        value={change}
        onChange={({ target }) => setChange(target.value)}
      />
      <Button type="submit" disabled={!register || change.trim() === "" || isTooMuch}>
        Set wear
      </Button>
      {isTooMuch ? (
        <p role="alert" className="w-full text-xs font-bold text-contact">
          One correction is at most {showLength(LIMIT_MM, scales[unit])}. More is no wear: find out what it is, and set
          the register itself if it is meant.
        </p>
      ) : null}
    </form>
  );
}

/** What the part is called, and what comes after it. */
function Verdict({ parts, send }: { parts: PartsSeen; send(command: Command): void }) {
  const { current, cut, blanks, judged } = parts;
  const said = judged.findLast((one) => one.part === current && one.cut === cut)?.verdict;
  const left = blanks - current;
  return (
    <p className="flex flex-wrap items-center gap-1.5 border-t border-rule-soft px-2.5 py-1.5">
      <span role="group" aria-label="What this part is" className="flex items-center gap-1">
        Part {current} is
        {partVerdicts.map((verdict) => (
          <Button
            key={verdict}
            aria-pressed={said === verdict}
            className={`!px-2 ${said === verdict ? "!border-ink !bg-ink !text-panel" : ""}`}
            onClick={() => send({ type: "judgePart", verdict })}
          >
            {partSaidWords[verdict]}
          </Button>
        ))}
      </span>
      <Button className="ml-auto" disabled={left === 0} onClick={() => send({ type: "takeBlank" })}>
        {left === 0 ? "No blank left" : `Take the next blank (${left} left)`}
      </Button>
    </p>
  );
}

/** The setup of a good part, kept with who kept it; over one that is kept already only when that is said. */
function Keep({ seen, parts, send }: { seen: Observation; parts: PartsSeen; send(command: Command): void }) {
  const [initials, setInitials] = useState("");
  const { saved, judged, current, cut } = parts;
  const isGood = judged.findLast((one) => one.part === current && one.cut === cut)?.verdict === "good";
  const keep = (event: FormEvent) => {
    event.preventDefault();
    send({ type: "saveSetup", initials, isConfirmed: saved !== null });
    setInitials("");
  };
  return (
    <>
      {saved ? <Kept saved={saved} seen={seen} /> : null}
      {isGood ? (
        <form onSubmit={keep} aria-label="Keep the setup" className="flex flex-wrap items-center gap-1.5 px-2.5 py-1.5">
          Initials
          <input
            aria-label="Initials"
            value={initials}
            onChange={({ target }) => setInitials(target.value)}
            autoComplete="off"
            className="w-16 rounded-[3px] border border-ink3 bg-field px-1.5 py-0.5"
          />
          <Button type="submit" disabled={initials.trim() === ""}>
            {saved ? "Keep this one in its place" : "Keep this setup"}
          </Button>
        </form>
      ) : null}
    </>
  );
}

/** The card of a setup that was kept: what it is for, who kept it, and every register that is not zero. */
function Kept({ saved, seen }: { saved: NonNullable<PartsSeen["saved"]>; seen: Observation }) {
  const { sheet, kind } = seen;
  const rows = exchangeIds(saved.registers).flatMap((id) => {
    const counts = readRegister(saved.registers, id);
    return counts === 0 ? [] : [{ id, counts }];
  });
  return (
    <section aria-label="Setup that was kept" className="border-b border-rule-soft px-2.5 py-1.5 text-xs">
      <p>
        <b className="text-sm">Proven setup</b>, {sheet.partName}: program <b className="figures">{saved.program}</b>,
        by part {saved.part}, kept by <b>{saved.initials}</b>
      </p>
      <dl className="mt-1 grid grid-cols-[repeat(auto-fill,minmax(9.5rem,1fr))] gap-x-3">
        {rows.map(({ id, counts }) => (
          <div key={id} className="flex justify-between gap-2 border-t border-rule-soft">
            <dt>{registerName(id, kind)}</dt>
            <dd className="figures">
              {id.startsWith("Q") ? counts / scales[sheet.unit].countsPerUnit : showCounts(counts, scales[sheet.unit])}
            </dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

/** The part that was cut: measured feature by feature, called what it is, put right in wear, cut again. */
export function PartDesk({ seen, send, isReadOnly, pointed, registers }: DeskProps) {
  const { parts } = seen.program ?? {};
  const features = seen.sheet.features ?? [];
  const [chosen, setChosen] = useState(features[0]?.name ?? "");
  const feature = features.find(({ name }) => name === chosen) ?? features[0];
  if (!parts || !feature) return null;
  const read = features.filter(({ name }) => figuresNow(parts).some((one) => one.feature === name)).length;
  const common = { seen, parts, send };
  const gauged = seen.program?.gauged.filter((one) => one.part === parts.current) ?? [];
  return (
    <div className="flex min-h-0 flex-col gap-2 md:flex-1">
      <Panel
        title={`Part ${parts.current} of ${parts.blanks}`}
        note={parts.cut === 0 ? "not cut yet" : `${read} of ${features.length} measured by you`}
        className="min-h-40 shrink"
        bodyClassName="overflow-y-auto"
      >
        <Report
          parts={parts}
          features={features}
          unit={seen.sheet.unit}
          isPractice={seen.isCoachOn}
          chosen={feature.name}
          onChoose={setChosen}
        />
        {gauged.length > 0 ? (
          <div className="mt-1 border-t border-rule">
            <GaugedTable gauged={gauged} unit={seen.sheet.unit} />
          </div>
        ) : null}
        {seen.isCoachOn ? null : (
          <p className="px-2.5 py-1.5 text-xs text-ink2">
            From the first {seen.sheet.gauging ? "gauging" : "measure"} on, the setup is marked as it stood when this
            part was cut.
          </p>
        )}
      </Panel>
      <div className="grid gap-2 md:min-h-88 md:flex-1 md:grid-cols-2">
        {isReadOnly ? null : (
          <Panel
            title="Measure"
            note="you choose with what"
            className={outlined(pointed, "part")}
            bodyClassName="flex flex-col overflow-y-auto"
          >
            <Measuring key={feature.name} {...common} features={features} feature={feature} onChoose={setChosen} />
            <Hands {...common} />
            <Verdict parts={parts} send={send} />
          </Panel>
        )}
        <div className="flex min-h-0 flex-col gap-2 overflow-y-auto">
          <div className="flex min-h-44 flex-1 flex-col">{registers}</div>
          {isReadOnly ? null : (
            <Panel title="Put right in wear" note="nothing is worked out for you" className="shrink-0">
              <Correct seen={seen} send={send} />
            </Panel>
          )}
          {isReadOnly || (!parts.saved && parts.judged.at(-1)?.verdict !== "good") ? null : (
            <Panel title="Keep what is proven" className="min-h-24 shrink" bodyClassName="overflow-y-auto">
              <Keep {...common} />
            </Panel>
          )}
        </div>
      </div>
    </div>
  );
}
