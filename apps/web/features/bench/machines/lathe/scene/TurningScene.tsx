import type { TurningSeen } from "@probe-lane/core/bench";
import { useId } from "react";
import { Rect, type Frame } from "../../../lane/drawing";
import { useWays, Ways } from "../../../lane/ways";
import { Witness } from "../../../lane/Witness";
import { ownZero, toolOf } from "../view";
import { ConeLine, Part, TurretToolShape, chipAt } from "./Part";

/** Drawn smaller than this, px a mm, a jaw has no room for its name. */
const NAMED_FROM = 2.4;

/**
 * Half section of chuck, part and tool to scale, the axis of rotation level. X is drawn as a radius and counted as a
 * diameter, and the drawing says so.
 */
export function TurningScene({
  seen,
  tip: { radiusMm, zMm },
  frame,
  keys,
  struck,
}: {
  seen: TurningSeen;
  /** Where something was struck; null where nothing was. */
  struck: { readonly radiusMm: number; readonly zMm: number } | null;
  /** Where the tip stands, mm. */
  tip: { readonly radiusMm: number; readonly zMm: number };
  frame: Frame;
  /** Where the axis arrows end, px; none where nobody works. */
  keys: { readonly left: number; readonly right: number; readonly up: number; readonly down: number } | null;
}) {
  const hatch = useId();
  const { lathe } = seen;
  const strokes = useWays(seen, "lathe");
  const tool = toolOf(seen);
  if (!tool) return null;
  const { width, height } = frame;
  // words beside the tip stand where there is room for them
  const isLate = frame.px(zMm) > width - 140;
  const { tip, arm } = lathe;
  const isBar = seen.kind === "gang";
  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label={`Half section from the front: chuck on the left, part, ${tool.kind} tool`}
    >
      <defs>
        <pattern id={hatch} width="5" height="5" patternUnits="userSpaceOnUse">
          <path d="M0 5L5 0" stroke="var(--stock-edge)" />
        </pattern>
      </defs>
      <rect width={width} height={height} fill="var(--well)" />
      <Part frame={frame} lathe={lathe} hatch={hatch} isBar={isBar} />
      <Ways
        strokes={strokes}
        called={lathe.row === null ? null : lathe.station}
        at={(place, stroke) => {
          const zero = stroke.frame === seen.modal.workOffset ? ownZero(seen) : null;
          const [x = 0, z = 0] = place;
          return zero && [frame.px(zero.zMm + z), frame.py(zero.radiusMm + x / 2)];
        }}
      />
      <path d={`M0 ${frame.py(0)}H${width}`} stroke="var(--expected)" strokeDasharray="14 4 3 4" />
      <text x={width - 8} y={frame.py(0) - 5} textAnchor="end" fontSize="12" fill="var(--expected)">
        axis, X 0
      </text>
      {frame.scale > NAMED_FROM ? (
        <text
          x={frame.px(tip.jawMm) - 8}
          y={frame.py(tip.partRadiusMm + (isBar ? 19 : 3))}
          textAnchor="end"
          fontSize="12"
          fill={isBar ? "var(--ink2)" : "var(--jaw-ink)"}
        >
          {isBar ? "guide bush" : "jaw"}
        </text>
      ) : null}
      {arm ? (
        <g>
          <path
            d={`M${frame.px(arm.zMm - 5)} ${frame.py(arm.radiusMm - 5)}V0`}
            stroke="var(--steel-dark)"
            strokeWidth="7"
          />
          <Rect
            frame={frame}
            u={[arm.zMm - 10, arm.zMm]}
            v={[arm.radiusMm - 10, arm.radiusMm]}
            fill="var(--expected-soft)"
            stroke="var(--expected)"
            part="arm"
          />
          <text x={frame.px(arm.zMm) + 6} y={frame.py(arm.radiusMm - 12)} fontSize="12" fill="var(--expected)">
            setter arm
          </text>
        </g>
      ) : null}
      {seen.sheet.lathe.cone && lathe.cone === null ? (
        <ConeLine frame={frame} cone={seen.sheet.lathe.cone} faceMm={tip.faceMm} />
      ) : null}
      {lathe.heard === "cuts" || lathe.heard === "chatters" ? (
        <path
          d={chipAt(frame.px(zMm), frame.py(radiusMm), lathe.heard === "chatters")}
          fill="none"
          stroke="var(--contact)"
          strokeWidth="2"
          data-part="chip"
        />
      ) : null}
      {keys ? (
        <path
          d={`M${frame.px(zMm)} ${frame.py(radiusMm)}H${keys.left}M${frame.px(zMm)} ${frame.py(radiusMm)}H${keys.right}M${frame.px(zMm)} ${frame.py(radiusMm)}V${keys.up}M${frame.px(zMm)} ${frame.py(radiusMm)}V${keys.down}`}
          stroke="var(--ink3)"
          fill="none"
        />
      ) : null}
      {struck ? <Witness x={frame.px(struck.zMm)} y={frame.py(struck.radiusMm)} /> : null}
      <TurretToolShape frame={frame} tool={tool} z={zMm} r={radiusMm} />
      {radiusMm > 1 ? (
        <g>
          <path
            d={`M${frame.px(zMm)} ${frame.py(radiusMm)}V${frame.py(-Math.min(radiusMm, 13))}`}
            stroke="var(--contact)"
            strokeDasharray="2 4"
          />
          <text
            x={frame.px(zMm) + (isLate ? -8 : 8)}
            textAnchor={isLate ? "end" : "start"}
            y={(frame.py(radiusMm) + frame.py(0)) / 2}
            fontSize="12"
            fill="var(--contact)"
            stroke="var(--stock)"
            strokeWidth="3.5"
            paintOrder="stroke"
          >
            ⌀: both sides count
          </text>
        </g>
      ) : null}
    </svg>
  );
}
