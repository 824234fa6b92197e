import type { Axis } from "@probe-lane/core/registers";
import type { Jog } from "./drawing";
import type { JogKey } from "./keys";
import { useHold } from "./useHold";

export const KEY_PX = 46;
/** Room that docked keys take at an edge of a view, px. */
export const DOCK_PX = KEY_PX + 12;

/** A key that stands at the edge of the drawing, at the end of the arrow of the axis that it moves. */
export function DockedKey({
  jogKey,
  x,
  y,
  isToward,
  isActive,
  isPointed,
  onJog,
  stopsAt,
}: {
  jogKey: JogKey;
  /** Where its middle stands in the view, px. */
  x: number;
  y: number;
  /** It leads to the part. */
  isToward: boolean;
  isActive: boolean;
  /** The coach speaks of it. */
  isPointed: boolean;
  onJog: Jog;
  stopsAt: string;
}) {
  const { axis, direction, cap, words } = jogKey;
  const { hold, release } = useHold((isTen, isRepeat) => onJog(axis, direction, isTen, isRepeat), stopsAt);
  const look = isToward ? "border-2 border-contact text-contact" : `border-ink3 ${isActive ? "text-contact" : ""}`;
  return (
    <button
      type="button"
      tabIndex={-1}
      aria-label={`${words}${isToward ? ", toward the part" : ""}`}
      title={`${words}. Held, it goes on, and stops at the first thing that is felt.`}
      style={{ left: x - KEY_PX / 2, top: y - KEY_PX / 2, width: KEY_PX, height: KEY_PX }}
      className={`absolute flex touch-none flex-col items-center justify-center rounded-[4px] border bg-panel leading-4 select-none ${look} ${isPointed ? "outline-3 outline-offset-2 outline-expected" : ""}`}
      onContextMenu={(event) => event.preventDefault()}
      onPointerDown={(event) => {
        event.preventDefault();
        event.currentTarget.setPointerCapture(event.pointerId);
        hold(event.shiftKey);
      }}
      // a press that no pointer made: somebody who works by voice or by a reader
      onClick={({ detail }) => {
        if (detail === 0) onJog(axis, direction, false, false);
      }}
      onPointerUp={release}
      onPointerCancel={release}
      onLostPointerCapture={release}
    >
      <b className="text-base">
        {axis.toUpperCase()}
        {direction > 0 ? "+" : "−"}
      </b>
      <kbd className="figures text-xs">{cap}</kbd>
    </button>
  );
}

export interface Travel {
  readonly axis: Axis;
  readonly mark?: string | undefined;
  /** Ends of the travel, where the axis stands, and what of it the part and the drawing take, mm. */
  readonly from: number;
  readonly to: number;
  readonly at: number;
  readonly part: readonly [number, number];
  readonly window: readonly [number, number];
}

/** The whole travel of every axis on a strip: where the machine stands, where the part is, what the drawing shows. */
export function TravelStrip({ travels }: { travels: readonly Travel[] }) {
  return (
    <div
      className="flex shrink-0 gap-5 border-t border-rule-soft px-3 py-1"
      role="img"
      aria-label={`Whole travel: ${travels.map(({ axis, from, to, at }) => `${axis.toUpperCase()} stands at ${Math.round((100 * (at - from)) / (to - from))} of 100`).join(", ")}`}
    >
      {travels.map(({ axis, mark, from, to, at, part, window }) => {
        const place = (mm: number) => `${Math.min(100, Math.max(0, (100 * (mm - from)) / (to - from)))}%`;
        const span = ([a, b]: readonly [number, number]) => {
          const [low, high] = [Math.max(from, Math.min(a, b)), Math.min(to, Math.max(a, b))];
          return { left: place(low), width: `${Math.max(0, (100 * (high - low)) / (to - from))}%` };
        };
        return (
          <div key={axis} className="flex min-w-0 flex-1 items-start gap-1.5">
            <b className="leading-4">
              {axis.toUpperCase()}
              {mark ? <span className="text-xs font-normal">{mark}</span> : null}
            </b>
            <div className="min-w-0 flex-1">
              <div className="relative h-4 border-b border-ink2">
                <span className="absolute bottom-0 h-2 bg-jaw" style={span(part)} />
                <span className="absolute bottom-0 h-3.5 border border-ink3" style={span(window)} />
                <span
                  className="absolute bottom-0 -translate-x-1/2 border-x-[5px] border-t-[9px] border-x-transparent border-t-contact"
                  style={{ left: place(at) }}
                />
              </div>
              <div className="figures flex justify-between text-xs leading-4 text-ink2">
                <span>{Math.round(from)}</span>
                <span>{Math.round(to)}</span>
              </div>
            </div>
          </div>
        );
      })}
    </div>
  );
}
