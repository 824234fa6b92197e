import { memo } from "react";
import type { Command, Observation } from "@probe-lane/core/bench";
import type { JogSize } from "@probe-lane/core/lane";
import { inShopWords } from "@probe-lane/core/words";
import { Button, KeyCap } from "../../../ui";
import { keyCapOf, type OpenDialog } from "./act";
import { outlined, type BenchKit, type Control } from "./kit";
import { jogSizeOrder, jogSizeWords } from "./keys";

/** How far a click goes, spindle, door, what is held and what it can do. */
export const Controls = memo(function Controls({
  seen,
  kit,
  send,
  size,
  setSize,
  isTen,
  setTen,
  open,
  pointed,
}: {
  seen: Observation;
  kit: BenchKit;
  send(command: Command): void;
  size: JogSize;
  setSize(size: JogSize): void;
  isTen: boolean;
  setTen(isTen: boolean): void;
  open(dialog: OpenDialog): void;
  pointed: ReadonlySet<Control>;
}) {
  const { spindle, sheet } = seen;
  const { what, besides } = kit.held(seen);
  return (
    <section
      aria-label="What moves"
      className="flex shrink-0 flex-col divide-y divide-rule-soft rounded-panel border border-rule bg-panel"
    >
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1.5 px-3 py-1.5">
        <span className="flex items-center gap-1.5 text-xs text-ink2">
          a click
          <span
            role="group"
            aria-label="Size of a click"
            className={`flex rounded-[4px] border border-ink3 text-base text-ink ${outlined(pointed, "size")}`}
          >
            {jogSizeOrder.map((one) => (
              <button
                key={one}
                type="button"
                aria-pressed={size === one}
                onClick={() => setSize(one)}
                className={`figures min-h-7 px-2 whitespace-nowrap ${size === one ? "bg-ink font-bold text-panel" : "bg-field"}`}
              >
                {jogSizeWords[sheet.unit][one]}
              </button>
            ))}
          </span>
          <KeyCap>[</KeyCap>
          <KeyCap>]</KeyCap>
        </span>
        <Button
          className={`!px-2 ${isTen ? "!border-ink !bg-ink !text-panel" : ""}`}
          aria-pressed={isTen}
          onClick={() => setTen(!isTen)}
        >
          ten clicks <KeyCap>Shift</KeyCap>
        </Button>
        <Button
          className={`ml-auto !px-2 ${outlined(pointed, "door")}`}
          keyCap="O"
          onClick={() => send({ type: "setDoor", isOpen: !seen.isDoorOpen })}
        >
          {inShopWords(seen.isDoorOpen ? "Shut door" : "Open door", seen.kind)}
        </Button>
      </div>
      <div className="flex flex-wrap items-center gap-1.5 px-3 py-1.5">
        <span className="mr-1 flex items-baseline gap-1.5">
          <b className="figures text-lg leading-6">{spindle.isOn ? spindle.rpm : "still"}</b>
          <span className="text-xs text-ink2">{spindle.isOn ? `rev/min ${spindle.direction}` : "spindle"}</span>
        </span>
        {spindle.isOn ? (
          <Button
            className={`!px-2 ${outlined(pointed, "spindle")}`}
            keyCap="S"
            onClick={() => send({ type: "stopSpindle" })}
          >
            Stop it
          </Button>
        ) : (
          <Button className={`!px-2 ${outlined(pointed, "spindle")}`} keyCap="S" onClick={() => open("speed")}>
            Start at …
          </Button>
        )}
        <span className="ml-2 max-w-64 truncate text-xs text-ink2" title={`${kit.carrier.where}: ${what}`}>
          <span className="sr-only">{kit.carrier.where}: </span>
          <b className="text-sm text-ink" data-testid="held">
            {what}
          </b>
          {besides}
        </span>
        <Button className={`!px-2 ${outlined(pointed, "drawer")}`} keyCap="D" onClick={() => open("drawer")}>
          {kit.carrier.opens}
        </Button>
        {kit.acts(seen).map(({ label, on, dialog, command }) => (
          <Button
            key={label}
            className={`!px-2 ${on ? outlined(pointed, `act ${on}`) : ""}`}
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
          <Button className={`!px-2 ${outlined(pointed, "measure")}`} keyCap="Y" onClick={() => open("measure")}>
            Measure …
          </Button>
        ) : null}
        <Button className={`!px-2 ${outlined(pointed, "check")}`} keyCap="X" onClick={() => open("check")}>
          Check …
        </Button>
      </div>
    </section>
  );
});
