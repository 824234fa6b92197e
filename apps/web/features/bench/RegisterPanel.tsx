import type { Command, Observation } from "@probe-lane/core/bench";
import { captureOffset, registerAxis, readRegister, type Axis, type MillRegisterId } from "@probe-lane/core/registers";
import { countsFromMm, formatCounts, formatMm, parseLengthMm } from "@probe-lane/core/units";
import { refusalWords, registerWords } from "@probe-lane/core/words";
import { useImperativeHandle, useRef, useState, type FormEvent, type Ref } from "react";
import { Button, FigureInput, Panel } from "../../ui";
import type { LinkView } from "./laneLink";

export interface RegisterPanelHandle { openCapture(axis: Axis): void; openTyping(): void }
type Mode = "capture" | "type";
type Where = "minus" | "plus";

const CHOICES: readonly MillRegisterId[] = ["G54.x", "G54.y", "G54.z", "H1", "HW1", "G55.x", "G55.y", "G55.z", "common.x", "common.y", "common.z"];

const faceWords = (axis: "x" | "y"): string => (axis === "x" ? "the left or right edge" : "the front or back edge");

/** What a capture would store, in the same arithmetic as the bench; null while a box is empty or unreadable. */
function preview(seen: Observation, machine: LinkView["shown"]["machine"], register: MillRegisterId, asMm: number | null): number | null {
  const { registers, modal } = seen;
  const axis = registerAxis(register);
  if (register === "H1" && seen.sheet.lengthCapture === "machine") return machine.z;
  if (asMm === null) return null;
  if (register.startsWith("H")) return null;
  return captureOffset(registers, register, machine[axis], countsFromMm(asMm), modal.workOffset, modal.lengthRow);
}

function useFigure() {
  const [text, setText] = useState("");
  const read = text.trim() === "" ? null : parseLengthMm(text);
  return { text, setText, mm: read?.ok ? read.value : null, problem: read && !read.ok ? refusalWords({ code: "text", problem: read.error }) : null };
}

/** Registers as they stand, and one sentence that sets one of them; nothing is filled in beforehand. */
export function RegisterPanel({ view, send, isReadOnly, ref }: {
  view: LinkView; send(command: Command): void; isReadOnly: boolean; ref: Ref<RegisterPanelHandle>;
}) {
  const seen = view.observation;
  const [mode, setMode] = useState<Mode>("capture");
  const [register, setRegister] = useState<MillRegisterId>("G54.x");
  const [where, setWhere] = useState<Where | "">("");
  const [how, setHow] = useState<"set" | "add">("set");
  const distance = useFigure();
  const edge = useFigure();
  const typed = useFigure();
  const firstBox = useRef<HTMLInputElement>(null);
  const typedBox = useRef<HTMLInputElement>(null);
  const act = useRef<HTMLButtonElement>(null);
  useImperativeHandle(ref, () => ({
    openCapture: (axis) => {
      setMode("capture");
      setRegister(axis === "z" ? "H1" : `G54.${axis}`);
      setTimeout(() => (firstBox.current ?? act.current)?.focus());
    },
    openTyping: () => {
      setMode("type");
      setTimeout(() => typedBox.current?.focus());
    },
  }));
  const axis = registerAxis(register);
  const isLength = register.startsWith("H");
  const isEdge = !isLength && axis !== "z";
  const held = readRegister(seen.registers, register);
  const needsSide = isEdge && distance.mm !== 0;
  const asMm = isLength ? 0 : distance.mm === null || edge.mm === null || (needsSide && where === "") ? null
    : edge.mm + (isEdge ? (where === "minus" ? -distance.mm : distance.mm) : distance.mm);
  const captured = mode === "capture" ? preview(seen, view.shown.machine, register, asMm) : null;
  const target = mode === "capture" ? captured : typed.mm === null ? null : (how === "add" ? held : 0) + countsFromMm(typed.mm);
  const guard = view.lastOutcome?.kind === "refused" && view.lastOutcome.refusal.code === "registerGuard" && view.message ? view.lastOutcome.refusal : null;
  const clear = () => {
    distance.setText("");
    edge.setText("");
    typed.setText("");
    setWhere("");
    (document.activeElement as HTMLElement | null)?.blur();
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (mode === "capture") {
      if (captured === null) return;
      send({ type: "captureRegister", register, asText: formatMm(asMm ?? 0) });
      clear();
    } else {
      send({ type: "typeRegister", register, text: typed.text, how, isConfirmed: false });
      if (typed.mm !== null && Math.abs((target ?? 0) - held) <= seen.guardCounts) clear();
    }
  };
  const confirm = () => {
    send({ type: "typeRegister", register, text: typed.text, how, isConfirmed: true });
    clear();
  };
  return (
    <Panel title="Registers" note={seen.lastUndo && !isReadOnly ? <Button look="quiet" className="!py-0 text-xs" keyCap="U" onClick={() => send({ type: "undoRegister" })}>take back {registerWords(seen.lastUndo.register)}</Button> : null} className="flex-1" bodyClassName="flex flex-col overflow-y-auto">
      <RegisterTable seen={seen} />
      {isReadOnly ? null : (
        <form onSubmit={submit} className="mt-auto flex flex-col gap-2 border-t border-rule bg-contact-soft p-2.5" aria-label="Set a register">
          <div className="flex flex-wrap items-center gap-1.5 text-xs">
            {(["capture", "type"] as const).map((one) => (
              <label key={one} className={`cursor-pointer rounded-[3px] border px-2 py-0.5 has-focus-visible:outline-2 has-focus-visible:outline-expected ${mode === one ? "border-ink bg-ink font-bold text-panel" : "border-ink3 bg-panel"}`}>
                <input type="radio" name="register-mode" className="sr-only" checked={mode === one} onChange={() => setMode(one)} />
                {one === "capture" ? "From where it stands" : "Typed value"} <kbd className="figures">{one === "capture" ? "C" : "E"}</kbd>
              </label>
            ))}
            <label className="ml-auto">register{" "}
              <select aria-label="Register" value={register} onChange={(event) => setRegister(event.target.value as MillRegisterId)} className="figures rounded-[3px] border border-ink3 bg-field px-1 py-0.5">
                {CHOICES.map((id) => <option key={id} value={id}>{registerWords(id)}</option>)}
              </select>
            </label>
          </div>
          {mode === "type" ? (
            <p className="leading-8">
              <select aria-label="How" value={how} onChange={(event) => setHow(event.target.value as "set" | "add")} className="rounded-[3px] border border-ink3 bg-field px-1 py-0.5">
                <option value="set">Set {registerWords(register)} to</option>
                <option value="add">Add to {registerWords(register)}</option>
              </select>{" "}
              <FigureInput ref={typedBox} aria-label="Value to type" className="w-28" value={typed.text} onChange={(event) => typed.setText(event.target.value)} /> mm
            </p>
          ) : isLength ? (
            <p>Store the machine Z as it stands as <b>{registerWords(register)}</b>. What lies between the tip and the datum is yours to take off afterwards.</p>
          ) : isEdge ? (
            <p className="leading-8">
              The spindle axis stands <FigureInput ref={firstBox} aria-label="Distance from the spindle axis to the edge" className="w-20" value={distance.text} onChange={(event) => distance.setText(event.target.value)} /> to the{" "}
              <select aria-label="Side" value={where} onChange={(event) => setWhere(event.target.value as Where)} className="rounded-[3px] border border-ink3 bg-field px-1 py-0.5">
                <option value="">which side</option><option value="minus">minus side</option><option value="plus">plus side</option>
              </select>{" "}
              of {faceWords(axis)}, and that edge is {axis.toUpperCase()}{" "}
              <FigureInput aria-label="Work coordinate of the edge" className="w-20" value={edge.text} onChange={(event) => edge.setText(event.target.value)} />
            </p>
          ) : (
            <p className="leading-8">
              The tip stands <FigureInput ref={firstBox} aria-label="Height of the tip over the surface" className="w-20" value={distance.text} onChange={(event) => distance.setText(event.target.value)} /> above a surface that is Z{" "}
              <FigureInput aria-label="Work coordinate of the surface" className="w-20" value={edge.text} onChange={(event) => edge.setText(event.target.value)} />
            </p>
          )}
          <p className="flex flex-wrap items-center gap-2">
            <Button look="act" type="submit" ref={act} disabled={target === null && !(mode === "type" && typed.text !== "")}>Set {registerWords(register)}</Button>
            <span className="figures">{formatCounts(held)} → <b>{target === null ? "…" : formatCounts(target)}</b></span>
          </p>
          {distance.problem ?? edge.problem ?? typed.problem ? <p role="alert" className="text-xs">{distance.problem ?? edge.problem ?? typed.problem}</p> : null}
          {guard ? (
            <p className="flex flex-wrap items-center gap-2 border-t border-rule pt-2" role="alert">
              <span>{refusalWords(guard)}</span><Button autoFocus onClick={confirm}>Yes, set it</Button>
            </p>
          ) : null}
        </form>
      )}
    </Panel>
  );
}

function RegisterTable({ seen }: { seen: Observation }) {
  const { registers, modal } = seen;
  const rows = Object.entries(registers.work).filter(([name, row]) => name === modal.workOffset || row.x !== 0 || row.y !== 0 || row.z !== 0);
  const { common } = registers;
  const isCommonZero = common.x === 0 && common.y === 0 && common.z === 0;
  const cell = "figures py-1 pr-2.5 text-right";
  return (
    <>
      <table className="w-full">
        <thead><tr className="text-right text-xs text-ink2"><th /><th className="pr-2.5 font-normal">X</th><th className="pr-2.5 font-normal">Y</th><th className="pr-2.5 font-normal">Z</th></tr></thead>
        <tbody>
          {rows.map(([name, row]) => (
            <tr key={name} className="border-t border-rule-soft">
              <th scope="row" className="figures pl-2.5 text-left">{name}{name === modal.workOffset ? <span className="font-sans text-xs font-normal text-ink2"> in use</span> : null}</th>
              {(["x", "y", "z"] as const).map((axis) => <td key={axis} data-testid={`${name}.${axis}`} className={cell}>{formatCounts(row[axis])}</td>)}
            </tr>
          ))}
          {isCommonZero ? null : (
            <tr className="border-t border-rule-soft"><th scope="row" className="pl-2.5 text-left">common</th>{(["x", "y", "z"] as const).map((axis) => <td key={axis} className={cell}>{formatCounts(common[axis])}</td>)}</tr>
          )}
        </tbody>
      </table>
      <p className="px-2.5 pb-1 text-xs text-ink2">other work offsets{isCommonZero ? " and common" : ""}: all zero</p>
      <table className="w-full border-t border-rule-soft">
        <thead><tr className="text-right text-xs text-ink2"><th className="pl-2.5 text-left font-normal">Tool</th><th className="pr-2.5 font-normal">Length</th><th className="pr-2.5 font-normal">Wear</th></tr></thead>
        <tbody>
          <tr className="border-t border-rule-soft">
            <th scope="row" className="pl-2.5 text-left font-normal"><b>H1</b> tool 1, end mill ⌀ {seen.sheet.tool1DiameterMm}</th>
            <td data-testid="H1" className={cell}>{formatCounts(registers.lengthGeometry[1] ?? 0)}</td><td className={cell}>{formatCounts(registers.lengthWear[1] ?? 0)}</td>
          </tr>
        </tbody>
      </table>
    </>
  );
}
