import type { Command, Observation } from "@probe-lane/core/bench";
import { memo, useState, type FormEvent, type Ref } from "react";
import { Button, KeyCap } from "../../../ui";
import { outlined, type BenchKit, type Control } from "./kit";

/** The typed block, what a machine wants before anything else, and the one button that is never anywhere else. */
export const StopBar = memo(function StopBar({
  seen,
  kit,
  send,
  blockRef,
  pointed,
}: {
  seen: Observation;
  kit: BenchKit;
  send(command: Command): void;
  blockRef: Ref<HTMLInputElement>;
  pointed: ReadonlySet<Control>;
}) {
  const [block, setBlock] = useState("");
  const run = (event: FormEvent) => {
    event.preventDefault();
    if (block.trim() === "") return;
    send({ type: "runBlock", text: block });
    setBlock("");
  };
  const typing = kit.block(seen);
  return (
    <form
      onSubmit={run}
      aria-label={"sample" in typing ? "Type a block" : "Wheels and stop"}
      className="flex shrink-0 flex-wrap items-center gap-2 rounded-panel border border-rule bg-panel px-3 py-2"
    >
      {"sample" in typing ? (
        <>
          <label htmlFor="block" className="text-xs text-ink2">
            Type a block <KeyCap>G</KeyCap>
          </label>
          <input
            id="block"
            ref={blockRef}
            value={block}
            onChange={(event) => setBlock(event.target.value)}
            autoComplete="off"
            spellCheck={false}
            placeholder={typing.sample}
            className={`figures w-28 min-w-0 flex-1 rounded-[3px] border border-ink3 bg-field px-2 py-1 placeholder:text-ink3 ${outlined(pointed, "block")}`}
          />
          <Button type="submit" keyCap="↵" className="!px-2" disabled={block.trim() === ""}>
            Run block
          </Button>
        </>
      ) : (
        <span className="min-w-0 flex-1 text-xs text-ink2">{typing.byHand}</span>
      )}
      {!seen.isHomed && "sample" in typing ? (
        <Button className={`!px-2 ${outlined(pointed, "home")}`} keyCap="H" onClick={() => send({ type: "home" })}>
          Reference return
        </Button>
      ) : null}
      <button
        type="button"
        onClick={() => send({ type: "reset" })}
        className="inline-flex items-center gap-1.5 rounded-[4px] border-2 border-[#b3150d] bg-[#ffd400] px-2.5 py-1 font-bold text-[#7d0d07]"
      >
        <span aria-hidden className="h-3 w-3 rounded-full bg-[#c4160c]" />
        Stop everything <kbd className="figures">Esc</kbd>
      </button>
    </form>
  );
});
