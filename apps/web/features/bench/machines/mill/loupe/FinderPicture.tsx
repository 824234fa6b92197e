import type { MillSeen } from "@probe-lane/core/bench";
import type { AxisCounts } from "@probe-lane/core/registers";
import type { CSSProperties } from "react";
import { daylight } from "../view";
import { MID, partSide, SIZE } from "./lens";

/** How far the tip swings in the picture, and how wide the gap is drawn, for each step that an eye tells apart. */
const SWING = { wide: 16, large: 12, middling: 8, small: 5, slight: 3, shiver: 1.4, true: 0 } as const;
const GAP = { wide: 30, large: 22, middling: 14, small: 8, slight: 5, shiver: 3, true: 1 } as const;

/** The edge finder's tip beside the face: wobble that the part takes away, then the kick. */
export function FinderPicture({ seen, machine }: { seen: MillSeen; machine: AxisCounts }) {
  const { tip } = seen;
  if (!tip) return null;
  const { side: away, above } = daylight(seen, machine);
  const isBeside = above < 0 && away < 30;
  const side = partSide(seen, machine);
  const wobble = tip.kind === "running" ? tip.wobble : "true";
  const isFree = (tip.kind === "running" && tip.wobble === "wide") || tip.kind === "still";
  const gap = isFree ? Math.min(60, 10 + Math.max(0, away) * 4) : GAP[wobble];
  const half = 26;
  const aside = tip.kind === "aside" ? 13 : 0;
  const face = side === 0 ? MID : MID + side * (half + gap);
  const swing: CSSProperties = { ["--swing" as string]: `${SWING[wobble]}px` };
  const isMoving = tip.kind === "running" && wobble !== "true";
  const partTop = 84;
  return (
    <g>
      {isBeside && side === 0 ? (
        <rect x="0" y={partTop} width={SIZE} height={SIZE} fill="var(--stock)" stroke="var(--stock-edge)" />
      ) : null}
      {isBeside && side === 1 ? (
        <rect x={face} y={partTop} width={SIZE} height={SIZE} fill="var(--stock)" stroke="var(--stock-edge)" />
      ) : null}
      {isBeside && side === -1 ? (
        <rect x={face - SIZE} y={partTop} width={SIZE} height={SIZE} fill="var(--stock)" stroke="var(--stock-edge)" />
      ) : null}
      {isBeside && !seen.isBurrDressed ? (
        <path
          d={
            side === 0
              ? `M0 ${partTop}l8-4 8 4 8-5 8 5 8-4 8 4 8-5 8 5 8-4 8 4 8-5 8 5 8-4 8 4 8-5 8 5 8-4 8 4 8-5 8 5 8-4 8 4`
              : `M${face} ${partTop + 10}l${-side * 6}-6 2-7 ${side * 6} 0`
          }
          fill="none"
          stroke="var(--contact)"
          strokeWidth="2"
        />
      ) : null}
      <rect x={MID - 40} y="-4" width="80" height="56" fill="var(--steel)" stroke="var(--steel-dark)" />
      {tip.kind === "destroyed" ? (
        <path d="M70 90l22 9-8 14 20 5M118 84l10 18-14 6 6 16" stroke="var(--contact)" strokeWidth="3" fill="none" />
      ) : (
        <g transform={`translate(${aside} 0)`}>
          <g className={isMoving ? "wobbling" : undefined} style={swing}>
            {isMoving ? (
              <rect
                x={MID - half - SWING[wobble]}
                y="54"
                width={half * 2 + SWING[wobble] * 2}
                height="92"
                fill="none"
                stroke="var(--contact)"
                strokeDasharray="3 3"
                opacity="0.5"
              />
            ) : null}
            <rect
              x={MID - half}
              y="54"
              width={half * 2}
              height="92"
              rx="2"
              fill="var(--contact-soft)"
              stroke="var(--contact)"
              strokeWidth="2"
            />
          </g>
        </g>
      )}
      {tip.kind === "aside" ? (
        <rect
          x={MID - half}
          y="54"
          width={half * 2}
          height="92"
          fill="none"
          stroke="var(--contact)"
          strokeDasharray="4 4"
          opacity="0.7"
        />
      ) : null}
      <path d={`M${MID} 0V${SIZE}`} stroke="var(--ink2)" strokeDasharray="8 3 2 3" opacity="0.6" />
    </g>
  );
}
