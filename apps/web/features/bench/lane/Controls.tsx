import type { Command, Observation } from "@probe-lane/core/bench";
import type { JogSize } from "@probe-lane/core/lane";
import type { Axis } from "@probe-lane/core/registers";
import { inShopWords } from "@probe-lane/core/words";
import { useState, type FormEvent, type Ref } from "react";
import { Button, KeyCap } from "../../../ui";
import { keyCapOf, type OpenDialog } from "./act";
import type { BenchKit } from "./kit";
import { jogSizeOrder, jogSizeWords } from "./keys";

/** How far a click goes, spindle, door, what is held and what it can do; and the typed block. */
export function Controls({
  seen,
  kit,
  send,
  size,
  setSize,
  lastAxis,
  open,
  blockRef,
}: {
  seen: Observation;
  kit: BenchKit;
  send(command: Command): void;
  size: JogSize;
  setSize(size: JogSize): void;
  lastAxis: Axis;
  open(dialog: OpenDialog): void;
  blockRef: Ref<HTMLInputElement>;
}) {
  const [block, setBlock] = useState("");
  const run = (event: FormEvent) => {
    event.preventDefault();
    if (block.trim() === "") return;
    send({ type: "runBlock", text: block });
    setBlock("");
  };
  const { spindle, sheet } = seen;
  const cell = "flex flex-col gap-1.5 px-3 py-2";
  const { what, besides } = kit.held(seen);
  const typing = kit.block(seen);
  return (
    <section
      aria-label="What moves"
      className="grid shrink-0 grid-cols-[17rem_9.5rem_1fr_19rem] divide-x divide-rule rounded-panel border border-rule bg-panel xl:grid-cols-[17.5rem_11rem_1fr_26rem]"
    >
      <div className={cell}>
        <span className="text-xs text-ink2">
          A click moves <b className="text-contact">{lastAxis.toUpperCase()}</b> and any axis by
        </span>
        <div role="group" aria-label="Size of a click" className="flex w-fit rounded-[4px] border border-ink3">
          {jogSizeOrder.map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={size === one}
              onClick={() => setSize(one)}
              className={`figures whitespace-nowrap px-2 py-1 ${size === one ? "bg-ink font-bold text-panel" : "bg-field"}`}
            >
              {jogSizeWords[sheet.unit][one]}
            </button>
          ))}
        </div>
        <span className="text-xs text-ink2">
          <KeyCap>[</KeyCap> coarser <KeyCap>]</KeyCap> finer · <KeyCap>Shift</KeyCap> ten clicks
        </span>
      </div>
      <div className={cell}>
        <span className="text-xs text-ink2">Spindle</span>
        <span className="flex items-baseline gap-1.5">
          <b className="figures text-xl leading-6">{spindle.isOn ? spindle.rpm : "still"}</b>
          {spindle.isOn ? <span className="text-xs">rev/min {spindle.direction}</span> : null}
        </span>
        <span className="flex gap-1.5">
          {spindle.isOn ? (
            <Button keyCap="S" onClick={() => send({ type: "stopSpindle" })}>
              Stop it
            </Button>
          ) : (
            <Button keyCap="S" onClick={() => open("speed")}>
              Start at …
            </Button>
          )}
        </span>
      </div>
      <div className={cell}>
        <span className="truncate text-xs text-ink2">
          {kit.carrier.where}:{" "}
          <b className="text-ink" data-testid="held">
            {what}
          </b>
          {besides}
        </span>
        <span className="flex flex-wrap gap-1.5">
          <Button className="!px-2" keyCap="D" onClick={() => open("drawer")}>
            {kit.carrier.opens}
          </Button>
          <Button className="!px-2" keyCap="O" onClick={() => send({ type: "setDoor", isOpen: !seen.isDoorOpen })}>
            {inShopWords(seen.isDoorOpen ? "Shut door" : "Open door", seen.kind)}
          </Button>
          {kit.acts(seen).map(({ label, on, dialog, command }) => (
            <Button
              key={label}
              className="!px-2"
              {...(on ? { keyCap: keyCapOf(on) } : {})}
              onClick={() => {
                if (dialog) return open(dialog);
                return command ? send(command) : undefined;
              }}
            >
              {label}
            </Button>
          ))}
          {kit.canMeasure(seen) ? (
            <Button className="!px-2" keyCap="Y" onClick={() => open("measure")}>
              Measure …
            </Button>
          ) : null}
          <Button className="!px-2" keyCap="X" onClick={() => open("check")}>
            Check …
          </Button>
        </span>
      </div>
      <form onSubmit={run} className={cell} aria-label={"sample" in typing ? "Type a block" : "Wheels and stop"}>
        {"sample" in typing ? (
          <>
            <label htmlFor="block" className="text-xs text-ink2">
              Type a block and run it <KeyCap>G</KeyCap>
            </label>
            <span className="flex gap-2">
              <input
                id="block"
                ref={blockRef}
                value={block}
                onChange={(event) => setBlock(event.target.value)}
                autoComplete="off"
                spellCheck={false}
                placeholder={typing.sample}
                className="figures min-w-0 flex-1 rounded-[3px] border border-ink3 bg-field px-2 py-1 text-base placeholder:text-ink3"
              />
              <Button type="submit" keyCap="↵" disabled={block.trim() === ""}>
                Run
              </Button>
            </span>
          </>
        ) : (
          <span className="text-xs text-ink2">{typing.byHand}</span>
        )}
        <span className="flex items-center justify-between text-xs text-ink2">
          <BesideStop seen={seen} isTyped={"sample" in typing} send={send} />
          <button
            type="button"
            onClick={() => send({ type: "reset" })}
            className="inline-flex items-center gap-1.5 rounded-[4px] border-2 border-[#b3150d] bg-[#ffd400] px-2 py-0.5 font-bold text-[#7d0d07]"
          >
            <span aria-hidden className="h-3 w-3 rounded-full bg-[#c4160c]" />
            Stop everything <kbd className="figures">Esc</kbd>
          </button>
        </span>
      </form>
    </section>
  );
}

/** What a machine wants before anything else: a reset after it stopped itself, a reference return before it is home. */
function BesideStop({
  seen: { isStopped, isHomed },
  isTyped,
  send,
}: {
  seen: Pick<Observation, "isStopped" | "isHomed">;
  isTyped: boolean;
  send(command: Command): void;
}) {
  if (isStopped)
    return (
      <Button className="!py-0.5" onClick={() => send({ type: "reset" })}>
        Reset the machine
      </Button>
    );
  if (!isTyped) return <span />;
  if (isHomed) return <span>reference return done</span>;
  return (
    <Button className="!py-0.5" keyCap="H" onClick={() => send({ type: "home" })}>
      Reference return
    </Button>
  );
}
