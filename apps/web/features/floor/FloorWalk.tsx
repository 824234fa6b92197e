import type { FloorEntry, FloorRegister, FloorState } from "@probe-lane/core/floor";
import { useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import { Button, FigureInput } from "../../ui";
import { typedShelf } from "./floorQueue";
import { exerciseFor, lengthsOf } from "./show";
import { entriesOf, linesOf, pressed, type LineId, type Typed, type WalkLine } from "./walk";
import { Given } from "./Working";

const KEYS = ["7", "8", "9", "erase", "4", "5", "6", "±", "1", "2", "3", "clear", "0", "00", ".", "next line"] as const;

/** A register as it stands on the ribbon: short. */
const shortName = ({ label }: FloorRegister): string => label.replace(/^G54 | length$/g, "").replace(/^tool /, "T");

const nextName = (next: FloorRegister | undefined): string => (next ? shortName(next) : "the sign-off");

/**
 * The registers of a lane one by one, on a screen each, with figures and keys for oily hands; `finish` stands after the
 * last one.
 */
export function FloorWalk({
  laneId,
  state,
  write,
  finish,
}: {
  laneId: string;
  state: FloorState;
  write(...entries: FloorEntry[]): void;
  finish: ReactNode;
}) {
  const { registers } = state.exercise;
  const open = registers.findIndex(({ id }) => state.registers[id] === undefined);
  const [at, setAt] = useState(open === -1 ? registers.length : open);
  const shelf = useMemo(() => typedShelf<Readonly<Record<string, Typed>>>(laneId), [laneId]);
  const [typed, setTyped] = useState(() => shelf.read() ?? {});
  useEffect(() => shelf.write(typed), [shelf, typed]);
  const register = registers[at];
  // whoever has gone on finds the next screen from its top, with its first line ready
  const top = useRef<HTMLDivElement>(null);
  const [hasMoved, setHasMoved] = useState(false);
  const go = (to: number) => {
    setAt(to);
    setHasMoved(true);
  };
  useEffect(() => {
    if (hasMoved) top.current?.scrollIntoView({ block: "start" });
  }, [at, hasMoved]);
  return (
    <div ref={top} className="flex flex-col gap-3">
      <nav aria-label="Registers" className="-mx-4 flex overflow-x-auto border-y border-rule bg-well px-2">
        {[...registers, null].map((one, index) => {
          const isSet = one === null ? state.signature.state === "given" : state.registers[one.id] !== undefined;
          return (
            <button
              key={one?.id ?? "finish"}
              type="button"
              aria-current={index === at ? "step" : undefined}
              aria-label={one === null ? "Sign-off and hand-in" : `${one.label}${isSet ? ", set" : ""}`}
              onClick={() => go(index)}
              className={`min-h-12 min-w-11 flex-1 border-t-[3px] px-1 text-xs whitespace-nowrap ${index === at ? "border-contact font-bold text-contact" : isSet ? "border-ink" : "border-transparent text-ink2"}`}
            >
              {one === null ? "Sign" : shortName(one)}
              <span aria-hidden className="block leading-3">
                {isSet ? "✓" : "·"}
              </span>
            </button>
          );
        })}
      </nav>
      {register ? (
        <RegisterScreen
          key={register.id}
          state={state}
          register={register}
          place={`${at + 1} of ${registers.length}`}
          next={nextName(registers[at + 1])}
          isReady={hasMoved}
          typed={typed[register.id] ?? {}}
          onType={(line, text) =>
            setTyped((held) => ({ ...held, [register.id]: { ...held[register.id], [line]: text } }))
          }
          onEnter={(entries) => {
            write(...entries);
            setTyped(({ [register.id]: _entered, ...rest }) => rest);
            go(at + 1);
          }}
        />
      ) : (
        finish
      )}
    </div>
  );
}

function RegisterScreen({
  state,
  register,
  place,
  next,
  isReady,
  typed,
  onType,
  onEnter,
}: {
  state: FloorState;
  register: FloorRegister;
  place: string;
  next: string;
  /** Its first line has the keys at once. */
  isReady: boolean;
  typed: Typed;
  onType(line: LineId, text: string): void;
  onEnter(entries: FloorEntry[]): void;
}) {
  const { exercise } = state;
  const lines = linesOf(exercise, register);
  const held = state.registers[register.id];
  // the control is asked after last: it shows the sum, or something else
  const [isOther, setIsOther] = useState(lines.length === 0);
  const shows: WalkLine = { id: "shows", label: "the control shows", offers: [] };
  const all = isOther ? [...lines, shows] : lines;
  const [active, setActive] = useState<LineId>(all[0]?.id ?? "shows");
  const boxes = useRef(new Map<LineId, HTMLInputElement>());
  useEffect(() => {
    if (isReady) boxes.current.values().next().value?.focus({ preventScroll: true });
  }, [isReady]);
  const go = (line: LineId | undefined) => {
    if (line === undefined) return;
    setActive(line);
    boxes.current.get(line)?.focus();
  };
  const after = (line: LineId) => all[all.findIndex(({ id }) => id === line) + 1]?.id;
  const press = (key: (typeof KEYS)[number]) =>
    key === "next line" ? go(after(active) ?? all[0]?.id) : onType(active, pressed(typed[active] ?? "", key));
  const outcome = entriesOf(state, register, isOther ? typed : { ...typed, shows: typed.sum ?? "" });
  const problem = "problem" in outcome ? outcome.problem : null;
  const { show } = lengthsOf(exerciseFor(exercise, register));
  return (
    <section aria-label={register.label} className="flex flex-col gap-3">
      <div>
        <p className="flex items-baseline justify-between">
          <b className="text-3xl leading-9">{register.label}</b>
          <span className="text-xs text-ink2">{place}</span>
        </p>
        <Given exercise={exercise} register={register} />
        {held ? (
          <p className="mt-1">
            Entered: <b className="figures">{show(held.mm)}</b>. What you write here takes its place.
          </p>
        ) : null}
      </div>
      <div className="rounded-panel border border-rule bg-panel">
        {all.map(({ id, label, offers }) => (
          <label
            key={id}
            className={`flex items-center gap-2 border-b border-rule-soft px-3 py-1.5 last:border-b-0 ${id === "sum" ? "border-y-2 border-y-ink bg-well font-bold" : ""}`}
          >
            <span className="w-24 shrink-0 leading-5">{label}</span>
            <span className="flex min-w-0 flex-1 flex-col gap-1.5">
              <FigureInput
                ref={(box) => {
                  if (box) boxes.current.set(id, box);
                  else boxes.current.delete(id);
                }}
                inputMode="none"
                aria-label={label}
                className={`min-h-12 w-full text-right text-3xl text-ink ${id === active ? "border-2 !border-expected" : "border-transparent"}`}
                value={typed[id] ?? ""}
                onFocus={() => setActive(id)}
                onChange={({ target }) => onType(id, target.value)}
              />
              {offers.length > 0 ? (
                <span className="flex justify-end gap-2">
                  {offers.map((text) => (
                    <Button
                      key={text}
                      aria-label={`${label} ${text}`}
                      aria-pressed={typed[id] === text}
                      className={`figures min-h-11 flex-1 justify-center text-lg ${typed[id] === text ? "border-2 !border-expected !bg-expected-soft" : ""}`}
                      onClick={() => {
                        const isTaken = typed[id] === text;
                        onType(id, isTaken ? "" : text);
                        go(isTaken ? id : after(id));
                      }}
                    >
                      {text}
                    </Button>
                  ))}
                </span>
              ) : null}
            </span>
          </label>
        ))}
      </div>
      <div role="group" aria-label="Figures" className="grid grid-cols-4 gap-2">
        {KEYS.map((key) => (
          <Button
            key={key}
            className={`min-h-13 justify-center ${/^[\d.±]/.test(key) ? "figures text-2xl" : "text-sm !whitespace-normal"}`}
            // the box keeps its focus
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => press(key)}
          >
            {key}
          </Button>
        ))}
      </div>
      <Button
        look="act"
        className="min-h-14 justify-center text-lg !whitespace-normal"
        disabled={problem !== null}
        aria-describedby="walk-problem"
        onClick={() => "entries" in outcome && onEnter(outcome.entries)}
      >
        {isOther ? `Enter it, then on to ${next}` : `The control shows the same: on to ${next}`}
      </Button>
      <p id="walk-problem" role="status" className="min-h-5 text-ink2">
        {problem ?? ""}
      </p>
      {lines.length > 0 ? (
        <Button
          className="min-h-11 justify-center"
          onClick={() => {
            setIsOther(!isOther);
            setActive(isOther ? "sum" : "shows");
          }}
        >
          {isOther ? "It shows the same as my sum" : "The control shows another figure"}
        </Button>
      ) : null}
    </section>
  );
}
