import type { Command, JogSize, Observation } from "@probe-lane/core/bench";
import type { Axis } from "@probe-lane/core/registers";
import { thingWords } from "@probe-lane/core/words";
import { useState, type FormEvent, type Ref } from "react";
import { Button, KeyCap } from "../../ui";
import type { OpenDialog } from "./BenchDialogs";
import { jogSizeOrder, jogSizeWords } from "./keys";

/** How far a click goes, spindle, door, what is held, paper; and the typed block. */
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
  const { spindle, holds, paper } = seen;
  const cell = "flex flex-col gap-1.5 px-3 py-2";
  return (
    <section aria-label="What moves" className="grid shrink-0 grid-cols-[17.5rem_13rem_19rem_1fr] divide-x divide-rule rounded-panel border border-rule bg-panel">
      <div className={cell}>
        <span className="text-xs text-ink2">A click moves <b className="text-contact">{lastAxis.toUpperCase()}</b> and any axis by, mm</span>
        <div role="group" aria-label="Size of a click" className="flex w-fit rounded-[4px] border border-ink3">
          {jogSizeOrder.map((one) => (
            <button key={one} type="button" aria-pressed={size === one} onClick={() => setSize(one)}
              className={`figures whitespace-nowrap px-2 py-1 ${size === one ? "bg-ink font-bold text-panel" : "bg-field"}`}>{jogSizeWords[one]}</button>
          ))}
        </div>
        <span className="text-xs text-ink2"><KeyCap>[</KeyCap> coarser <KeyCap>]</KeyCap> finer · <KeyCap>Shift</KeyCap> ten clicks</span>
      </div>
      <div className={cell}>
        <span className="text-xs text-ink2">Spindle</span>
        <span className="flex items-baseline gap-1.5"><b className="figures text-xl leading-6">{spindle.isOn ? spindle.rpm : "still"}</b>{spindle.isOn ? <span>rev/min {spindle.direction}</span> : null}</span>
        <span className="flex gap-1.5">
          {spindle.isOn ? <Button keyCap="S" onClick={() => send({ type: "stopSpindle" })}>Stop it</Button> : <Button keyCap="S" onClick={() => open("speed")}>Start at …</Button>}
        </span>
      </div>
      <div className={cell}>
        <span className="truncate text-xs text-ink2">In the spindle: <b className="text-ink">{holds ? thingWords(holds) : "nothing"}</b></span>
        <span className="flex flex-wrap gap-1.5">
          <Button className="!px-2" keyCap="D" onClick={() => open("drawer")}>Drawer</Button>
          <Button className="!px-2" keyCap="O" onClick={() => send({ type: "setDoor", isOpen: !seen.isDoorOpen })}>{seen.isDoorOpen ? "Shut door" : "Open door"}</Button>
          {holds === "edgeFinder" ? <Button className="!px-2" keyCap="W" onClick={() => send({ type: "setWobbling" })}>Set wobbling</Button> : null}
          {holds === "tool1" || holds === "pointedTool" ? (
            <Button className="!px-2" keyCap="P" onClick={() => send({ type: paper ? "pullPaper" : "placePaper" })}>{paper ? "Pull paper" : "Place paper"}</Button>
          ) : null}
          {paper ? <Button className="!px-2" keyCap="Q" onClick={() => send({ type: "feelPaper" })}>Feel it</Button> : null}
          {seen.isBurrDressed ? null : <Button className="!px-2" keyCap="B" onClick={() => send({ type: "dressBurr" })}>Dress burr</Button>}
        </span>
      </div>
      <form onSubmit={run} className={cell} aria-label="Type a block">
        <label htmlFor="block" className="text-xs text-ink2">Type a block and run it <KeyCap>G</KeyCap></label>
        <span className="flex gap-2">
          <input id="block" ref={blockRef} value={block} onChange={(event) => setBlock(event.target.value)} autoComplete="off" spellCheck={false} placeholder="G0 G54 X0 Y0"
            className="figures min-w-0 flex-1 rounded-[3px] border border-ink3 bg-field px-2 py-1 text-base placeholder:text-ink3" />
          <Button type="submit" keyCap="↵" disabled={block.trim() === ""}>Run</Button>
        </span>
        <span className="flex items-center justify-between text-xs text-ink2">
          {seen.isHomed ? <span>reference return done</span> : <Button className="!py-0.5" keyCap="H" onClick={() => send({ type: "home" })}>Reference return</Button>}
          <button type="button" onClick={() => send({ type: "reset" })} className="inline-flex items-center gap-1.5 rounded-[4px] border-2 border-[#b3150d] bg-[#ffd400] px-2 py-0.5 font-bold text-[#7d0d07]">
            <span aria-hidden className="h-3 w-3 rounded-full bg-[#c4160c]" />Stop everything <kbd className="figures">Esc</kbd>
          </button>
        </span>
      </form>
    </section>
  );
}
