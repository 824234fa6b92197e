import type { MillSeen } from "@probe-lane/core/bench";
import { toolNumber } from "@probe-lane/core/instruments";
import { useId, type CSSProperties } from "react";
import type { Frame } from "../../../lane/drawing";
import { turnSeconds, useTurning } from "../../../lane/useTurning";

/** How far a tip that was kicked aside is drawn beside its axis, px at the least. */
const ASIDE_PX = 5;

/** What hangs in the spindle, seen from above: its body, its tip in it, and how it turns. */
export function HeldFromAbove({ seen, frame, x, y }: { seen: MillSeen; frame: Frame; x: number; y: number }) {
  const turning = useTurning(seen.spindle);
  const { heldShape, holds, tip, spindle } = seen;
  const [cx, cy] = [frame.px(x), frame.py(y)];
  const radii = heldShape.rigid.map(({ radiusMm }) => radiusMm);
  const body = Math.max(...heldShape.rigid.filter(({ fromMm }) => fromMm < 60).map(({ radiusMm }) => radiusMm), 0);
  const tipPx = Math.max(3, heldShape.tipRadiusMm * frame.scale);
  const aside = tip?.kind === "aside" ? Math.max(ASIDE_PX, 1.2 * frame.scale) : 0;
  const style = {
    ["--turn" as string]: `${turnSeconds(spindle.rpm)}s`,
    transformOrigin: `${cx}px ${cy}px`,
  } as CSSProperties;
  return (
    <g>
      <circle
        cx={cx}
        cy={cy}
        r={Math.max(...radii) * frame.scale}
        fill="none"
        stroke="var(--ink3)"
        strokeDasharray="10 3 2 3"
      />
      {holds === null ? null : (
        <circle cx={cx} cy={cy} r={body * frame.scale} fill="var(--steel)" fillOpacity="0.35" stroke="var(--ink2)" />
      )}
      <g
        className={turning === "turning" ? `turning ${spindle.direction === "reverse" ? "backwards" : ""}` : turning}
        style={style}
        data-part="turning"
        data-turning={turning}
      >
        <path
          d={`M${cx - body * frame.scale} ${cy}h${Math.max(4, body * frame.scale * 0.3)}M${cx + body * frame.scale} ${cy}h${-Math.max(4, body * frame.scale * 0.3)}`}
          stroke="var(--ink)"
          strokeWidth="2"
        />
        {turning === "still" ? null : (
          <path
            d={`M${cx - tipPx - 8} ${cy}a${tipPx + 8} ${tipPx + 8} 0 0 1 ${2 * tipPx + 16} 0`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth="1.5"
            strokeDasharray={`${(tipPx + 8) * 2} 400`}
          />
        )}
      </g>
      {holds === null ? null : (
        <circle
          cx={cx + aside}
          cy={cy}
          r={tipPx}
          fill="var(--contact-soft)"
          stroke="var(--contact)"
          strokeWidth="2"
          data-part="tip"
        />
      )}
      <path d={`M${cx - 4} ${cy}h8M${cx} ${cy - 4}v8`} stroke="var(--contact)" />
    </g>
  );
}

interface Part {
  readonly radiusMm: number;
  readonly fromMm: number;
  readonly toMm: number;
}

/** How much of a cutter counts as its working end, mm. */
const TIP_MM = 4;

/** The outline of what the spindle holds from the side, over the tip: cutter or instrument, holder, nose. */
export function HeldFromBeside({ seen, frame, at, tipZ }: { seen: MillSeen; frame: Frame; at: number; tipZ: number }) {
  const clip = useId();
  const turning = useTurning(seen.spindle);
  const { holds, heldShape, tip: tipSeen, spindle } = seen;
  const { rigid, tip } = heldShape;
  const x = (mm: number) => frame.px(at + mm);
  const y = (mm: number) => frame.py(tipZ + mm);
  const nose = rigid.at(-1);
  const holder = holds === null ? undefined : rigid.at(-2);
  const bodies = rigid.slice(0, holds === null ? -1 : -2);
  const kind = seen.sheet.tools.find(({ number }) => number === toolNumber(holds))?.kind;
  const isBroken = tipSeen?.kind === "destroyed";
  const aside = tipSeen?.kind === "aside" ? Math.max(ASIDE_PX, 1.2 * frame.scale) : 0;
  const box = ({ radiusMm: r, fromMm, toMm }: Part, chamfer = 0): string =>
    `M${x(-r)} ${y(toMm)}H${x(r)}V${y(fromMm + chamfer)}L${x(r - chamfer)} ${y(fromMm)}H${x(-r + chamfer)}L${x(-r)} ${y(fromMm + chamfer)}Z`;
  const style = (r: number) =>
    ({
      ["--turn" as string]: `${turnSeconds(spindle.rpm)}s`,
      ["--across" as string]: `${2 * r * frame.scale}px`,
    }) as CSSProperties;
  const turningLines = ({ radiusMm: r, fromMm, toMm }: Part, key: string) => (
    <g key={key}>
      <clipPath id={`${clip}${key}`}>
        <path d={box({ radiusMm: r, fromMm, toMm })} />
      </clipPath>
      <g clipPath={`url(#${clip}${key})`}>
        <path
          className={
            turning === "still" ? "" : `sliding ${turning} ${spindle.direction === "reverse" ? "backwards" : ""}`
          }
          style={style(r)}
          d={[-3, -1.9, -1, 0.1, 1, 2.1].map((share) => `M${x(r * share)} ${y(fromMm)}V${y(toMm)}`).join("")}
          stroke="var(--ink)"
          strokeWidth="1.2"
          opacity="0.6"
        />
      </g>
    </g>
  );
  const working: Part[] = tip
    ? [tip]
    : bodies.slice(0, 1).map((one) => ({ ...one, toMm: Math.min(one.toMm, one.fromMm + TIP_MM) }));
  return (
    <g data-part="tool" data-length={seen.heldLengthMm} stroke="var(--ink)" strokeWidth="1">
      {nose ? (
        <>
          <path d={box(nose, 4)} fill="var(--steel)" />
          <path
            d={`M${x(-nose.radiusMm * 0.62)} ${y(nose.fromMm)}v${-7}h${9}v7M${x(nose.radiusMm * 0.62)} ${y(nose.fromMm)}v${-7}h${-9}v7`}
            fill="var(--steel-dark)"
          />
          {turningLines(nose, "n")}
        </>
      ) : null}
      {holder ? (
        <>
          <path d={box(holder, 3)} fill="var(--steel)" />
          <path
            d={`M${x(-holder.radiusMm)} ${y(holder.fromMm + 14)}H${x(holder.radiusMm)}M${x(-holder.radiusMm)} ${y(holder.fromMm + 12)}H${x(holder.radiusMm)}`}
          />
          {turningLines({ ...holder, toMm: Math.min(holder.toMm, holder.fromMm + 30) }, "h")}
        </>
      ) : null}
      {bodies.map((part, place) => (
        <path key={place} d={box(part)} fill="var(--stock)" />
      ))}
      {bodies[0] && holds?.startsWith("tool") && kind !== "faceMill"
        ? turningLines(bodies.at(-1) ?? bodies[0], "c")
        : null}
      <g transform={`translate(${aside} 0)`} stroke="var(--contact)" strokeWidth="1.5" fill="var(--contact-soft)">
        {isBroken ? (
          <path
            d={`M${x(-3)} ${y(9)}l${3 * frame.scale} ${2 * frame.scale}L${x(5)} ${y(1)}L${x(7)} ${y(2)}L${x(3)} ${y(9)}Z`}
          />
        ) : (
          working.map((part, place) => <path key={place} d={box(part)} data-part="tip-side" />)
        )}
        {kind === "drill" || kind === "spotDrill" || holds === "pointedTool" ? (
          <path
            d={`M${x(0)} ${y(0)}L${x(-(bodies.at(-1)?.radiusMm ?? 4))} ${y(bodies.at(-1)?.fromMm ?? 4)}H${x(bodies.at(-1)?.radiusMm ?? 4)}Z`}
          />
        ) : null}
      </g>
      <path
        d={`M${x(0)} ${y(0) + 10}V0`}
        stroke="var(--contact)"
        strokeDasharray="12 3 2 3"
        fill="none"
        transform={`translate(0 0)`}
      />
    </g>
  );
}
