import {
  floorPartInstruments,
  partFeatureOf,
  type FloorEntry,
  type FloorRegister,
  type FloorState,
  type PartRead,
} from "@probe-lane/core/floor";
import { partFeatureWords, partInstrumentWords, partReadWords } from "@probe-lane/core/words";
import { X } from "lucide-react";
import { useState, type FormEvent } from "react";
import { Button, FigureInput, Panel } from "../../ui";
import { exerciseFor, lengthsOf } from "./show";

type Instrument = (typeof floorPartInstruments)[number];
const EMPTY = { target: "", measured: "", celsius: "" };
const SELECT = "block min-h-11 w-full rounded-[3px] border border-ink3 bg-field px-2 text-base text-ink";

/** Registers that some size of a part tells. */
const told = ({ exercise }: FloorState): readonly FloorRegister[] =>
  exercise.registers.filter((register) => partFeatureOf(register) !== null);

/** The first part of the real machine, feature by feature: what each tells of its register, and what to type. */
export function MeasuredPart({ state, write }: { state: FloorState; write(...entries: FloorEntry[]): void }) {
  const registers = told(state);
  const [chosen, setChosen] = useState(registers[0]?.id ?? "");
  const [by, setBy] = useState<Instrument>("micrometer");
  const [form, setForm] = useState(EMPTY);
  const [problem, setProblem] = useState<string | null>(null);
  const register = registers.find(({ id }) => id === chosen) ?? registers[0];
  const feature = register && partFeatureOf(register);
  if (!register || !feature) return null;
  const { read } = lengthsOf(state.exercise);
  const set = (name: keyof typeof EMPTY) => (event: { target: { value: string } }) => {
    setForm((held) => ({ ...held, [name]: event.target.value }));
    setProblem(null);
  };
  const take = (event: FormEvent) => {
    event.preventDefault();
    const [target, measured] = [read(form.target), read(form.measured)];
    const celsius = form.celsius.trim() === "" ? undefined : Number(form.celsius.replace(",", "."));
    if ("problem" in target) return setProblem(target.problem);
    if ("problem" in measured) return setProblem(measured.problem);
    if (celsius !== undefined && !(celsius >= -20 && celsius <= 150))
      return setProblem("A temperature is a number from −20 to 150 °C; leave it empty where the part is cool.");
    write({
      type: "partMeasured",
      register: register.id,
      by,
      targetMm: target.mm,
      measuredMm: measured.mm,
      ...(celsius === undefined ? {} : { celsius }),
    });
    setForm(EMPTY);
  };
  const field = (name: keyof typeof EMPTY, label: string) => (
    <label className="min-w-24 flex-1 text-xs text-ink2">
      {label}
      <FigureInput className="min-h-11 w-full text-base text-ink" value={form[name]} onChange={set(name)} />
    </label>
  );
  return (
    <Panel title="First part, measured" bodyClassName="flex flex-col gap-3 p-3">
      <p className="text-ink2">
        Spindle stopped, all motion ended, the part out or clean. Of {register.label}: {partFeatureWords[feature]}.
      </p>
      <form onSubmit={take} aria-label="First part" className="flex flex-wrap items-end gap-2">
        <label className="min-w-32 flex-1 text-xs text-ink2">
          tells of
          <select className={SELECT} value={register.id} onChange={({ target }) => setChosen(target.value)}>
            {registers.map(({ id, label }) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
          </select>
        </label>
        <label className="min-w-32 flex-1 text-xs text-ink2">
          with the
          <select className={SELECT} value={by} onChange={({ target }) => setBy(target.value as Instrument)}>
            {floorPartInstruments.map((name) => (
              <option key={name} value={name}>
                {partInstrumentWords[name]}
              </option>
            ))}
          </select>
        </label>
        {field("target", "wanted")}
        {field("measured", "measured")}
        {field("celsius", "part at °C, if warm")}
        <Button type="submit" className="min-h-11" disabled={form.target.trim() === "" || form.measured.trim() === ""}>
          Add it
        </Button>
        {problem ? (
          <p role="alert" className="w-full text-xs">
            {problem}
          </p>
        ) : null}
      </form>
      <PartReads
        state={state}
        act={(one) => ({ words: "Strike", entry: { type: "struck", entry: one.id } })}
        write={write}
      />
    </Panel>
  );
}

/** What was measured of the part, a line for each feature, with something to do to it. */
export function PartReads({
  state,
  act,
  write,
}: {
  state: FloorState;
  act(one: PartRead): { readonly words: string; readonly entry: FloorEntry } | null;
  write(...entries: FloorEntry[]): void;
}) {
  if (state.parts.length === 0) return null;
  return (
    <ul aria-label="What the part tells">
      {state.parts.map((one) => {
        const register = state.exercise.registers.find(({ id }) => id === one.register);
        const doing = act(one);
        if (!register) return null;
        const { show } = lengthsOf(exerciseFor(state.exercise, register));
        return (
          <li key={one.id} className="flex items-center gap-2 border-b border-rule-soft py-1">
            <span className="flex-1">
              {partReadWords(register, one, show)}{" "}
              <span className="text-xs text-ink2">{partInstrumentWords[one.by]}</span>
            </span>
            {doing ? (
              <Button
                look={doing.words === "Strike" ? "quiet" : "plain"}
                className="min-h-11 min-w-11 justify-center"
                aria-label={`${doing.words} ${register.label} ${show(one.measuredMm)}`}
                onClick={() => write(doing.entry)}
              >
                {doing.words === "Strike" ? <X size={16} aria-hidden /> : doing.words}
              </Button>
            ) : null}
          </li>
        );
      })}
    </ul>
  );
}
