import type { Command, JogSize, Observation } from "@probe-lane/core/bench";
import type { Axis } from "@probe-lane/core/registers";
import { inShopWords, taskWords, thingWords } from "@probe-lane/core/words";
import { useState, type FormEvent, type Ref } from "react";
import { Button, KeyCap } from "../../ui";
import { gapLabel } from "./benchView";
import type { OpenDialog } from "./dialogs";
import { toolOf, turretLabel } from "./turningView";
import { jogSizeOrder, jogSizeWords } from "./keys";

interface Act { readonly label: string; readonly keyCap?: string; readonly dialog?: OpenDialog; readonly command?: Command; readonly isMain?: boolean }

const felt = (seen: Observation) => seen.sheet.gaps.filter(({ kind }) => (kind === "paper" || kind === "feeler") && seen.sheet.instruments.includes(kind));
const hard = (seen: Observation) => seen.sheet.gaps.filter(({ kind }) => (kind === "block" || kind === "pin") && seen.sheet.instruments.includes(kind));

/** What hands can do with what is in the gap, or could be put there. */
function gapActs(seen: Observation): Act[] {
  const { holds, paper, block, sheet, lamp } = seen;
  const isSolid = holds === null || holds === "pointedTool" || holds.startsWith("tool");
  if (!isSolid) return [];
  const sheets = felt(seen);
  const blocks = hard(seen);
  const acts: Act[] = [];
  if (paper) acts.push({ label: `Pull ${gapLabel(seen, paper.id).split(" ")[0] ?? "paper"}`, keyCap: "P", command: { type: "pullPaper" } }, { label: "Feel it", keyCap: "Q", command: { type: "feelPaper" } });
  else if (sheets.length === 1 && sheets[0]) acts.push({ label: "Place paper", keyCap: "P", command: { type: "placePaper", id: sheets[0].id } });
  else if (sheets.length > 1) acts.push({ label: "Place …", keyCap: "P", dialog: "gap" });
  if (block) acts.push({ label: "Take block out", keyCap: "J", command: { type: "pullBlock" } });
  else if (blocks.length === 1 && blocks[0]) acts.push({ label: `Try ${gapLabel(seen, blocks[0].id)}`, keyCap: "J", command: { type: "tryBlock", id: blocks[0].id } });
  else if (blocks.length > 1) acts.push({ label: "Try a block …", keyCap: "J", dialog: "gap" });
  if (blocks.length > 0 && !seen.areBlocksWiped) acts.push({ label: "Wipe the blocks", command: { type: "wipeBlocks" } });
  if (sheet.instruments.includes("lampGauge")) acts.push(lamp ? { label: "Take the gauge away", command: { type: "takeLamp" } } : { label: "Stand the height gauge", command: { type: "standLamp" } });
  return acts;
}

/** What only this kind of lathe has: a library, a clamp, a cone. */
function machineActs(seen: Observation): Act[] {
  const { lathe, sheet } = seen;
  const tool = toolOf(seen);
  if (!lathe || !tool || !sheet.lathe) return [];
  const { control, gang, cone, start, axis, profile } = sheet.lathe;
  if (axis) return [{ label: "Axis height …", keyCap: "W", dialog: "axisHeight" }];
  if (profile) return [{ label: "Does it fit? …", keyCap: "W", dialog: "fit" }];
  if (start) return [{ label: "Switch off and on", keyCap: "Q", command: { type: "switchOff" } }];
  if (control === "readout") return [...(tool.kind === "threading" ? [{ label: "Sight the point over the edge", keyCap: "W", command: { type: "sightEdge" } as const }] : []), { label: "Recall …", keyCap: "Q", dialog: "recall" }];
  if (cone) return [{ label: "Run the cone’s pass", keyCap: "W", command: { type: "runCone", isHeld: false } }, { label: "Run it, hold halfway", keyCap: "Q", command: { type: "runCone", isHeld: true } }];
  if (!gang) return [];
  const feed: Act = { label: lathe.isFeedLow ? "Turn the feed up" : "Turn the feed down", keyCap: "Q", command: { type: "turnFeed", isLow: !lathe.isFeedLow } };
  if (lathe.loose !== null) return [{ label: "Slide it to the bar", keyCap: "W", command: { type: "slideTool" } }, { label: "Tighten the clamp …", keyCap: "B", dialog: "tighten" }, feed];
  return [...(gang.changed.includes(tool.number) ? [{ label: `Change tool ${tool.number} …`, keyCap: "W", dialog: "changeTool" } as const] : []), { label: "Loosen the clamp", keyCap: "B", command: { type: "loosenTool" } }, feed];
}

/** What hands can do at a lathe: something into the gap or out of it, the chuck a quarter on, the arm down or away. */
function turningActs(seen: Observation): Act[] {
  const { lathe, sheet } = seen;
  if (!lathe) return [];
  const hasThin = felt(seen).length > 0 || sheet.instruments.includes("straightEdge");
  const [only, ...others] = hard(seen);
  const acts: Act[] = [];
  if (lathe.gap) acts.push({ label: "Pull it out", keyCap: "P", command: { type: "pullGap" } });
  else if (hasThin) acts.push({ label: "Hold … at the part", keyCap: "P", dialog: "turningGap" });
  if (lathe.block) acts.push({ label: "Take it out", keyCap: "J", command: { type: "pullGap" } });
  else if (only && others.length === 0) acts.push({ label: `Try ${gapLabel(seen, only.id)} at the face`, keyCap: "J", command: { type: "tryGap", id: only.id, on: "face" } });
  else if (only) acts.push({ label: "Try … in the gap", keyCap: "J", dialog: "turningGap" });
  if (only && !seen.areBlocksWiped) acts.push({ label: "Wipe the blocks", command: { type: "wipeBlocks" } });
  if (sheet.lathe?.arm) acts.push({ label: lathe.arm ? "Fold the arm away" : "Swing the arm down", keyCap: "W", command: { type: "swingArm", isDown: lathe.arm === null } });
  const tool = toolOf(seen);
  if (tool?.kind === "drill" && sheet.instruments.includes("indicator")) acts.push({ label: "Carry the indicator round it", ...(sheet.lathe?.arm ? {} : { keyCap: "W" }), command: { type: "sweep" } });
  if (tool && sheet.lathe?.control !== "gang" && sheet.lathe?.targets.height.includes(tool.number)) acts.push({ label: "Shim the holder …", keyCap: "Q", dialog: "shims" });
  acts.push(...machineActs(seen));
  if (sheet.lathe?.control !== "gang") acts.push({ label: "Turn the chuck by hand", keyCap: "B", command: { type: "turnChuck" } });
  return acts;
}

/** What the instrument in the spindle can be asked or made to do. */
export function instrumentActs(seen: Observation): Act[] {
  if (seen.lathe) return turningActs(seen);
  const { holds, sheet, tip } = seen;
  const acts: Act[] = [];
  if (holds === "edgeFinder") acts.push({ label: "Set wobbling", keyCap: "W", command: { type: "setWobbling" } });
  if (holds === "taster") acts.push({ label: tip?.kind === "dial" && tip.isTrued ? "True it again" : "True the ball", keyCap: "W", command: { type: "trueTaster" } }, { label: "Turn by hand", command: { type: "turnSpindle" } });
  if (holds === "probe") acts.push({ label: "Ask the probe …", keyCap: "W", dialog: "probe" });
  if (holds === "indicator") acts.push({ label: "Carry it round", keyCap: "W", command: { type: "sweep" } });
  acts.push(...gapActs(seen));
  if (sheet.instruments.includes("plungerSetter") && holds?.startsWith("tool")) acts.push({ label: "Ask the setter …", dialog: "setter" });
  if (sheet.instruments.includes("beamSetter") && holds?.startsWith("tool")) {
    acts.push({ label: "Ask the beam …", dialog: "beam" });
    if (!seen.isTipBlown) acts.push({ label: "Blow the tip clean", command: { type: "blowTip" } });
  }
  return acts;
}

/** What is still to be done before the first touch; alone it is a button, several are a list. */
export function readyActs({ sheet, tasksDone, isBurrDressed }: Observation): Act[] {
  const open = sheet.tasks.filter((task) => !tasksDone.includes(task) && !(task === "dressBurr" && isBurrDressed));
  const [only] = open;
  if (!only) return sheet.fixture.kind === "plate" ? [{ label: "Tap the part …", keyCap: "B", dialog: "ready" }] : [];
  if (sheet.tasks.length === 1) return [{ label: taskWords[only].act, keyCap: "B", command: only === "dressBurr" ? { type: "dressBurr" } : { type: "doTask", task: only } }];
  return [{ label: `Get ready … (${open.length} open)`, keyCap: "B", dialog: "ready" }];
}

const canMeasure = ({ sheet }: Observation): boolean => sheet.instruments.some((name) => name === "caliper" || name === "micrometer" || name === "rule" || name === "presetter" || name === "boreGauge");

/** How far a click goes, spindle, door, what is held and what it can do; and the typed block. */
export function Controls({ seen, send, size, setSize, lastAxis, open, blockRef }: {
  seen: Observation; send(command: Command): void; size: JogSize; setSize(size: JogSize): void; lastAxis: Axis; open(dialog: OpenDialog): void;
  blockRef: Ref<HTMLInputElement>;
}) {
  const [block, setBlock] = useState("");
  const run = (event: FormEvent) => {
    event.preventDefault();
    if (block.trim() === "") return;
    send({ type: "runBlock", text: block });
    setBlock("");
  };
  const { spindle, holds, sheet, modal } = seen;
  const cell = "flex flex-col gap-1.5 px-3 py-2";
  const acts = [...instrumentActs(seen), ...readyActs(seen)];
  const tool = toolOf(seen);
  const control = sheet.lathe?.control;
  const believes = sheet.tools.length > 1 && modal.tool !== null ? ` · control: T${modal.tool}` : "";
  return (
    <section aria-label="What moves" className="grid shrink-0 grid-cols-[17rem_9.5rem_1fr_19rem] divide-x divide-rule rounded-panel border border-rule bg-panel xl:grid-cols-[17.5rem_11rem_1fr_26rem]">
      <div className={cell}>
        <span className="text-xs text-ink2">A click moves <b className="text-contact">{lastAxis.toUpperCase()}</b> and any axis by</span>
        <div role="group" aria-label="Size of a click" className="flex w-fit rounded-[4px] border border-ink3">
          {jogSizeOrder.map((one) => (
            <button key={one} type="button" aria-pressed={size === one} onClick={() => setSize(one)}
              className={`figures whitespace-nowrap px-2 py-1 ${size === one ? "bg-ink font-bold text-panel" : "bg-field"}`}>{jogSizeWords[sheet.unit][one]}</button>
          ))}
        </div>
        <span className="text-xs text-ink2"><KeyCap>[</KeyCap> coarser <KeyCap>]</KeyCap> finer · <KeyCap>Shift</KeyCap> ten clicks</span>
      </div>
      <div className={cell}>
        <span className="text-xs text-ink2">Spindle</span>
        <span className="flex items-baseline gap-1.5"><b className="figures text-xl leading-6">{spindle.isOn ? spindle.rpm : "still"}</b>{spindle.isOn ? <span className="text-xs">rev/min {spindle.direction}</span> : null}</span>
        <span className="flex gap-1.5">
          {spindle.isOn ? <Button keyCap="S" onClick={() => send({ type: "stopSpindle" })}>Stop it</Button> : <Button keyCap="S" onClick={() => open("speed")}>Start at …</Button>}
        </span>
      </div>
      <div className={cell}>
        {tool ? <span className="truncate text-xs text-ink2">{control === "readout" ? "On the post" : control === "gang" ? "Over the bar" : "In the working position"}: <b className="text-ink" data-testid="held">{turretLabel(tool)}</b></span> : <span className="truncate text-xs text-ink2">In the spindle: <b className="text-ink" data-testid="held">{holds === null ? "nothing, bare nose" : seen.isLoadedByChanger ? "what the changer brought: look at it" : thingWords(holds)}</b>{believes}</span>}
        <span className="flex flex-wrap gap-1.5">
          <Button className="!px-2" keyCap="D" onClick={() => open("drawer")}>{!tool ? "Drawer" : control === "readout" ? "Tool post …" : control === "gang" ? "Gang slide …" : "Turret …"}</Button>
          <Button className="!px-2" keyCap="O" onClick={() => send({ type: "setDoor", isOpen: !seen.isDoorOpen })}>{inShopWords(seen.isDoorOpen ? "Shut door" : "Open door", control)}</Button>
          {acts.map(({ label, keyCap, dialog, command }) => (
            <Button key={label} className="!px-2" {...(keyCap ? { keyCap } : {})} onClick={() => (dialog ? open(dialog) : command ? send(command) : undefined)}>{label}</Button>
          ))}
          {canMeasure(seen) ? <Button className="!px-2" keyCap="Y" onClick={() => open("measure")}>Measure …</Button> : null}
          <Button className="!px-2" keyCap="X" onClick={() => open("check")}>Check …</Button>
        </span>
      </div>
      <form onSubmit={run} className={cell} aria-label={control === "readout" ? "Wheels and stop" : "Type a block"}>
        {control === "readout" ? <span className="text-xs text-ink2">Wheels of this lathe, clockwise: cross slide X−, toward the axis; carriage Z+, away from the chuck. Nothing moves but by hand.</span> : <label htmlFor="block" className="text-xs text-ink2">Type a block and run it <KeyCap>G</KeyCap></label>}
        {control === "readout" ? null : <span className="flex gap-2">
          <input id="block" ref={blockRef} value={block} onChange={(event) => setBlock(event.target.value)} autoComplete="off" spellCheck={false} placeholder={sheet.lathe?.start ? "G50 X… Z…" : tool ? "T0101 or G0 X60 Z5" : "G0 G54 X0 Y0"}
            className="figures min-w-0 flex-1 rounded-[3px] border border-ink3 bg-field px-2 py-1 text-base placeholder:text-ink3" />
          <Button type="submit" keyCap="↵" disabled={block.trim() === ""}>Run</Button>
        </span>}
        <span className="flex items-center justify-between text-xs text-ink2">
          {control === "readout" ? <span /> : seen.isHomed ? <span>reference return done</span> : <Button className="!py-0.5" keyCap="H" onClick={() => send({ type: "home" })}>Reference return</Button>}
          <button type="button" onClick={() => send({ type: "reset" })} className="inline-flex items-center gap-1.5 rounded-[4px] border-2 border-[#b3150d] bg-[#ffd400] px-2 py-0.5 font-bold text-[#7d0d07]">
            <span aria-hidden className="h-3 w-3 rounded-full bg-[#c4160c]" />Stop everything <kbd className="figures">Esc</kbd>
          </button>
        </span>
      </form>
    </section>
  );
}
