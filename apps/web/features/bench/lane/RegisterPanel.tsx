import type { Command, Observation } from "@probe-lane/core/bench";
import { offersOf, type Standing } from "@probe-lane/core/machines";
import { readRegister, type Axis, type RegisterId } from "@probe-lane/core/registers";
import { parseLengthMm, scales, showCounts, showLength, toCounts } from "@probe-lane/core/units";
import { refusalWords, registerName } from "@probe-lane/core/words";
import { memo, useImperativeHandle, useRef, useState, type FormEvent, type Ref } from "react";
import { Button, FigureInput, Panel, Select } from "../../../ui";
import type { OpenDialog } from "./act";
import type { BenchKit, Filled } from "./kit";
import type { LinkView } from "./laneLink";

export interface RegisterPanelHandle {
  openCapture(axis: Axis): void;
  openTyping(): void;
}
type Mode = "capture" | "type";
const MODES: Record<Mode, { words: string; cap: string }> = {
  capture: { words: "From where it stands", cap: "C" },
  type: { words: "Typed value", cap: "E" },
};

const NOTHING: Filled = { distance: "", edge: "", where: "" };
const INCH_MM = 25.4;

/** Where the machine stands, with the clicks that are still unanswered, as a capture reads it. */
const standing = (kit: BenchKit, { observation: seen, shown }: LinkView): Standing => ({
  registers: seen.registers,
  position: shown.machine,
  counterZ: shown.counter.z,
  workOffset: seen.modal.workOffset,
  lengthCounts: seen.lengthCounts,
  lengthCapture: seen.sheet.settings.lengthCapture,
  row: kit.registers.rowOf(seen),
});

/** What a capture would store, in the same arithmetic as the bench; null while a box is empty or unreadable. */
function captured(kit: BenchKit, view: LinkView, register: RegisterId, asMm: number | null): number | null {
  if (asMm === null) return null;
  const { kind, sheet } = view.observation;
  const stored = offersOf(kind).captured(standing(kit, view), register, toCounts(asMm, scales[sheet.unit]));
  return stored.ok ? stored.value : null;
}

/** Why a box cannot be read, in words; null while it is empty or can be. */
function problemOf(text: string, unit: Observation["sheet"]["unit"]): string | null {
  if (text.trim() === "") return null;
  const read = parseLengthMm(text, unit);
  return read.ok ? null : refusalWords({ code: "text", problem: read.error }, unit);
}

/** What can be set on this machine, by kinds of registers. */
const Offers = memo(function Offers({ kind, sheet }: Pick<Observation, "kind" | "sheet">) {
  return offersOf(kind)
    .registers(sheet)
    .map(({ name, ids }) => (
      <optgroup key={name} label={name}>
        {ids.map((id) => (
          <option key={id} value={id}>
            {registerName(id, kind)}
          </option>
        ))}
      </optgroup>
    ));
});

/** Registers as they stand, and one sentence that sets one of them; nothing is filled in beforehand. */
export function RegisterPanel({
  view,
  kit,
  send,
  isReadOnly,
  open,
  isPointed = false,
  ref,
}: {
  view: LinkView;
  kit: BenchKit;
  send(command: Command): void;
  isReadOnly: boolean;
  open(dialog: OpenDialog): void;
  /** The coach speaks of setting a register. */
  isPointed?: boolean;
  ref: Ref<RegisterPanelHandle>;
}) {
  const seen = view.observation;
  const { unit } = seen.sheet;
  const scale = scales[unit];
  const { Table, Sentence, codes } = kit.registers;
  // one quiet line until it is needed
  const [mode, setMode] = useState<Mode | null>(null);
  const [register, setRegister] = useState<RegisterId>(() => kit.registers.first(seen));
  const [filled, setFilled] = useState(NOTHING);
  const [how, setHow] = useState<"set" | "add">("set");
  const [typed, setTyped] = useState("");
  const firstBox = useRef<HTMLInputElement>(null);
  const typedBox = useRef<HTMLInputElement>(null);
  const act = useRef<HTMLButtonElement>(null);
  useImperativeHandle(ref, () => ({
    openCapture: (axis) => {
      setMode("capture");
      setRegister(kit.registers.forAxis(seen, axis));
      setTimeout(() => (firstBox.current ?? act.current)?.focus());
    },
    openTyping: () => {
      setMode("type");
      setTimeout(() => typedBox.current?.focus());
    },
  }));
  const held = readRegister(seen.registers, register);
  const called = (id: RegisterId) => registerName(id, seen.kind);
  const isCode = codes?.is(register) ?? false;
  const asMm = kit.registers.asMm(seen, register, filled);
  const read = typed.trim() === "" ? null : parseLengthMm(typed, unit);
  const typedMm = read?.ok ? read.value : null;
  const typedCounts = (mm: number): number =>
    // a code is a whole number and no length, in whatever unit the box reads
    isCode
      ? Math.round(mm / (unit === "mm" ? 1 : INCH_MM)) * scale.countsPerUnit
      : (how === "add" ? held : 0) + toCounts(mm, scale);
  // before the reference return nobody knows where it stands, and a preview would tell
  const stored = seen.isHomed ? captured(kit, view, register, asMm) : null;
  const typedTo = typedMm === null ? null : typedCounts(typedMm);
  const target = mode === "type" ? typedTo : stored;
  const shown = (counts: number) =>
    isCode ? String(Math.round(counts / scale.countsPerUnit)) : showCounts(counts, scale);
  const guard =
    view.lastOutcome?.kind === "refused" && view.lastOutcome.refusal.code === "registerGuard" && view.message
      ? view.lastOutcome.refusal
      : null;
  const problem = problemOf(filled.distance, unit) ?? problemOf(filled.edge, unit) ?? problemOf(typed, unit);
  const clear = () => {
    setFilled(NOTHING);
    setTyped("");
    setMode(null);
    (document.activeElement as HTMLElement | null)?.blur();
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (mode === "capture") {
      if (stored === null) return;
      send({ type: "captureRegister", register, asText: showLength(asMm ?? 0, scale) });
      clear();
    } else {
      send({ type: "typeRegister", register, text: typed, how, isConfirmed: false });
      if (typedTo !== null && Math.abs(typedTo - held) <= seen.guardCounts) clear();
    }
  };
  const confirm = () => {
    send({ type: "typeRegister", register, text: typed, how, isConfirmed: true });
    clear();
  };
  return (
    <Panel
      title="Registers"
      note={
        <span className="flex items-center gap-2">
          {seen.lastUndo && !isReadOnly ? (
            <Button look="quiet" className="!py-0 text-xs" keyCap="U" onClick={() => send({ type: "undoRegister" })}>
              take back {called(seen.lastUndo.register)}
            </Button>
          ) : null}
          <Button look="quiet" className="!py-0 text-xs" onClick={() => open("exchange")}>
            In and out
          </Button>
        </span>
      }
      className="flex-1"
      bodyClassName="flex flex-col"
    >
      <div
        className={`min-h-0 flex-1 overflow-y-auto ${isReadOnly ? "" : "[&_[data-register]]:cursor-pointer [&_[data-register]:hover]:underline"}`}
        onClick={(event) => {
          // a figure that is pressed is the one to be set
          const id = (event.target as HTMLElement).closest<HTMLElement>("[data-register]")?.dataset["register"];
          if (id === undefined || isReadOnly) return;
          setRegister(id as RegisterId);
          setMode((now) => now ?? "capture");
          setTimeout(() => (firstBox.current ?? typedBox.current ?? act.current)?.focus());
        }}
      >
        <Table seen={view.steady} />
      </div>
      {isReadOnly ? null : (
        <form
          onSubmit={submit}
          className={`flex shrink-0 flex-col gap-1.5 border-t border-rule bg-contact-soft p-2 ${isPointed ? "outline-3 -outline-offset-3 outline-expected" : ""}`}
          aria-label="Set a register"
        >
          <div className="flex flex-wrap items-center gap-1.5 text-xs">
            {(["capture", "type"] as const).map((one) => (
              <label
                key={one}
                className={`cursor-pointer rounded-[3px] border px-2 py-0.5 has-focus-visible:outline-2 has-focus-visible:outline-expected ${mode === one ? "border-ink bg-ink font-bold text-panel" : "border-ink3 bg-panel"}`}
              >
                <input
                  type="radio"
                  name="register-mode"
                  className="sr-only"
                  checked={mode === one}
                  onChange={() => {
                    setMode(one);
                    setTimeout(() => (one === "type" ? typedBox : firstBox).current?.focus());
                  }}
                />
                {MODES[one].words} <kbd className="figures">{MODES[one].cap}</kbd>
              </label>
            ))}
            <label className={mode === null ? "sr-only" : "ml-auto"}>
              register{" "}
              <Select
                aria-label="Register"
                value={register}
                onChange={(event) => setRegister(event.target.value as RegisterId)}
                className="figures"
              >
                <Offers kind={seen.kind} sheet={seen.sheet} />
              </Select>
            </label>
          </div>
          {mode === null ? null : mode === "type" ? (
            <div className="leading-8">
              <Select aria-label="How" value={how} onChange={(event) => setHow(event.target.value as "set" | "add")}>
                <option value="set">Set {called(register)} to</option>
                <option value="add">Add to {called(register)}</option>
              </Select>{" "}
              <FigureInput
                ref={typedBox}
                aria-label="Value to type"
                className="w-28"
                value={typed}
                onChange={(event) => setTyped(event.target.value)}
              />{" "}
              {codes && isCode ? (
                <codes.Picker chosen={typed.trim()} onChoose={setTyped} />
              ) : (
                <>{unit === "mm" ? "mm" : "in"}</>
              )}
            </div>
          ) : (
            <Sentence
              seen={seen}
              register={register}
              filled={filled}
              fill={(change) => setFilled((now) => ({ ...now, ...change }))}
              firstBox={firstBox}
            />
          )}
          {mode === null ? null : (
            <p className="flex flex-wrap items-center gap-2">
              <Button
                look="act"
                type="submit"
                ref={act}
                disabled={target === null && !(mode === "type" && typed !== "")}
              >
                Set {called(register)}
              </Button>
              <span className="figures">
                {shown(held)} → <b>{target === null ? "…" : shown(target)}</b>
              </span>
              <Button look="quiet" className="ml-auto !py-0 text-xs" onClick={clear}>
                Not now
              </Button>
            </p>
          )}
          {mode === "capture" && !seen.isHomed ? (
            <p className="text-xs">
              Nothing can be taken from where it stands before the reference return: no position means anything yet.
            </p>
          ) : null}
          {problem ? (
            <p role="alert" className="text-xs">
              {problem}
            </p>
          ) : null}
          {guard ? (
            <p className="flex flex-wrap items-center gap-2 border-t border-rule pt-2" role="alert">
              <span>{refusalWords(guard, unit)}</span>
              <Button autoFocus onClick={confirm}>
                Yes, set it
              </Button>
            </p>
          ) : null}
        </form>
      )}
    </Panel>
  );
}
