import type { Command, Observation } from "@probe-lane/core/bench";
import { gateWords, schoolWords, thingWords } from "@probe-lane/core/words";
import { useState, type FormEvent } from "react";
import { Button, Dialog, FigureInput, KeyCap, Notice } from "../../ui";
import { jogKeys, keyVerbs, verbKeys } from "./keys";

export type OpenDialog = "drawer" | "speed" | "keys" | "handIn" | "sheet" | null;
interface Props { seen: Observation; send(command: Command): void; onClose(): void }

function Drawer({ seen, send, onClose }: Props) {
  const act = (command: Command) => {
    send(command);
    onClose();
  };
  const things = [
    { thing: "edgeFinder" as const, note: `tip ⌀ ${seen.sheet.tipDiameterMm.toFixed(3)}, rated 400 to 1200 rev/min`, digit: "1" },
    { thing: "tool1" as const, note: `end mill ⌀ ${seen.sheet.tool1DiameterMm}, in its holder`, digit: "2" },
    { thing: "pointedTool" as const, note: "shows by eye where the axis stands", digit: "3" },
  ];
  return (
    <div className="flex flex-col gap-2">
      <p className="text-ink2">In the spindle: <b className="text-ink">{seen.holds ? thingWords(seen.holds) : "nothing"}</b>. Spindle still and door open before your hands go in.</p>
      {things.map(({ thing, note }) => (
        <Button key={thing} disabled={seen.holds !== null} className="justify-between py-2" onClick={() => act({ type: "load", thing })}>
          <span>Load the {thingWords(thing)}</span><span className="text-xs font-normal text-ink2">{note}</span>
        </Button>
      ))}
      <Button autoFocus={seen.holds !== null} disabled={seen.holds === null} className="py-2" onClick={() => act({ type: "unload" })}>
        {seen.holds ? `Take the ${thingWords(seen.holds)} out` : "Nothing to take out"}
      </Button>
    </div>
  );
}

function Speed({ seen, send, onClose }: Props) {
  const [text, setText] = useState("");
  const [direction, setDirection] = useState<"forward" | "reverse">("forward");
  const isReadable = text.trim() === "" || /^\d{1,5}$/.test(text.trim());
  const start = (event: FormEvent) => {
    event.preventDefault();
    if (!isReadable) return;
    send({ type: "startSpindle", direction, ...(text.trim() === "" ? {} : { rpm: Number(text) }) });
    onClose();
  };
  return (
    <form onSubmit={start} className="flex flex-col gap-3">
      <p className="text-ink2">A spindle started without a speed comes up at the one it remembers. {seen.holds === "edgeFinder" ? "The edge finder is rated 400 to 1200 rev/min." : ""}</p>
      <label className="font-bold">Speed <FigureInput autoFocus aria-label="Speed in rev/min" className="mx-1 w-24" inputMode="numeric" value={text} onChange={(event) => setText(event.target.value)} /> rev/min</label>
      <label className="font-bold">Direction{" "}
        <select value={direction} onChange={(event) => setDirection(event.target.value as "forward" | "reverse")} className="rounded-[3px] border border-ink3 bg-field px-1 py-0.5 font-normal">
          <option value="forward">forward</option><option value="reverse">reverse</option>
        </select>
      </label>
      {isReadable ? null : <p role="alert">A speed is a whole number such as 600.</p>}
      <p className="flex gap-2"><Button look="act" type="submit" disabled={!isReadable}>{text.trim() === "" ? "Start without stating a speed" : `Start at ${text.trim()}`}</Button><Button onClick={onClose}>Leave it</Button></p>
    </form>
  );
}

function KeyMap() {
  return (
    <div className="grid gap-x-8 gap-y-1 sm:grid-cols-2">
      {Object.values(jogKeys).map(({ cap, words }) => <p key={cap}><KeyCap>{cap}</KeyCap> {words}</p>)}
      <p><KeyCap>Shift</KeyCap> with these: ten clicks</p>
      <p><KeyCap>[</KeyCap> <KeyCap>]</KeyCap> coarser or finer clicks</p>
      {keyVerbs.map((verb) => <p key={verb}><KeyCap>{verbKeys[verb].key === "Escape" ? "Esc" : verbKeys[verb].key.toUpperCase()}</KeyCap> {verbKeys[verb].words}</p>)}
      <p><KeyCap>Esc</KeyCap> in a box: leave it</p>
    </div>
  );
}

function HandIn({ seen, send, onClose }: Props) {
  const open = seen.gates.filter(({ name, isPassed }) => !isPassed && name !== "handIn");
  return (
    <div className="flex flex-col gap-3">
      <p>After handing in the lane is ruled and cannot be worked on any more. A new attempt gets a new part.</p>
      {open.length > 0 ? <Notice kind="stop">Still shut: {open.map(({ name }) => gateWords[name]).join(", ")}.</Notice> : null}
      <p className="flex gap-2">
        <Button look="act" autoFocus onClick={() => { send({ type: "handIn" }); onClose(); }}>Hand in</Button><Button onClick={onClose}>Go on working</Button>
      </p>
    </div>
  );
}

function Sheet({ seen }: { seen: Observation }) {
  const { sheet } = seen;
  const row = (name: string, value: string) => <div className="flex justify-between border-t border-rule-soft py-1"><dt className="text-ink2">{name}</dt><dd className="figures">{value}</dd></div>;
  const [width, depth] = [180, 110];
  const isLow = { x: sheet.edges.x.approach === 1, y: sheet.edges.y.approach === 1 };
  const corner = { x: isLow.x ? 30 : 30 + width, y: isLow.y ? 20 + depth : 20 };
  const inset = { x: (isLow.x ? -1 : 1) * sheet.edges.x.edgeWorkMm, y: (isLow.y ? 1 : -1) * sheet.edges.y.edgeWorkMm };
  const zero = { x: corner.x - inset.x * 5, y: corner.y - inset.y * 5 };
  return (
    <div className="flex flex-col gap-3">
      <p>{sheet.story}</p>
      <svg viewBox="0 0 250 160" className="mx-auto w-72" role="img" aria-label="Where the drawing has its zero">
        <rect x="30" y="20" width={width} height={depth} fill="var(--stock)" stroke="var(--stock-edge)" />
        <path d={`M${zero.x - 24} ${zero.y}h48M${zero.x} ${zero.y - 24}v48`} stroke="var(--expected)" strokeWidth="2" strokeDasharray="8 3 2 3" />
        <text x={isLow.x ? zero.x + 10 : zero.x - 10} y={isLow.y ? zero.y - 10 : zero.y + 22} textAnchor={isLow.x ? "start" : "end"} fontSize="13" fill="var(--expected)">X0 Y0 of the drawing</text>
      </svg>
      <dl>
        {row(`${isLow.x ? "left" : "right"} edge of the blank is`, `X ${sheet.edges.x.edgeWorkMm.toFixed(3)}`)}
        {row(`${isLow.y ? "front" : "back"} edge of the blank is`, `Y ${sheet.edges.y.edgeWorkMm.toFixed(3)}`)}
        {row("top of the blank is", `Z ${sheet.facingAllowanceMm.toFixed(3)}${sheet.facingAllowanceMm > 0 ? ", still to be faced" : ""}`)}
        {row("blank", `${sheet.partSizeMm.join(" × ")} mm`)}
        {row("edge finder tip", `⌀ ${sheet.tipDiameterMm.toFixed(3)}`)}
        {row("paper", sheet.paperMm.toFixed(3))}
      </dl>
      <p className="text-xs text-ink2">Tool 1 may be set either way: {sheet.allowedSchools.map((school) => schoolWords[school]).join("; or ")}. This bench stores the machine Z as it stands when a length is taken.</p>
    </div>
  );
}

const TITLES: Record<Exclude<OpenDialog, null>, string> = {
  drawer: "Instrument drawer", speed: "Start the spindle", keys: "Keys of the bench", handIn: "Hand in this lane?", sheet: "Exercise sheet",
};

export function BenchDialogs({ open, ...props }: Props & { open: OpenDialog }) {
  return (
    <Dialog title={open ? TITLES[open] : ""} isOpen={open !== null} onClose={props.onClose} width={open === "keys" ? "max-w-2xl" : "max-w-md"}>
      {open === "drawer" ? <Drawer {...props} /> : null}
      {open === "speed" ? <Speed {...props} /> : null}
      {open === "keys" ? <KeyMap /> : null}
      {open === "handIn" ? <HandIn {...props} /> : null}
      {open === "sheet" ? <Sheet seen={props.seen} /> : null}
    </Dialog>
  );
}
