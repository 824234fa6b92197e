import type { Observation } from "@probe-lane/core/bench";
import type { AxisCounts } from "@probe-lane/core/registers";
import { useId, type CSSProperties } from "react";
import { across, daylight, placeOf, sensationOf } from "./benchView";

const SIZE = 196;
const MID = SIZE / 2;
/** How far the tip swings in the picture, and how wide the gap is drawn, for each step that an eye tells apart. */
const SWING = { wide: 16, large: 12, middling: 8, small: 5, slight: 3, shiver: 1.4, true: 0 } as const;
const GAP = { wide: 30, large: 22, middling: 14, small: 8, slight: 5, shiver: 3, true: 1 } as const;

/** On which side of the tip the blank lies in this view: -1 left, 1 right, 0 behind or in front of it. */
function partSide(seen: Observation, machine: AxisCounts): -1 | 0 | 1 {
  const { stock } = seen.boxes;
  const { x, y } = placeOf(seen, machine);
  const [a, b] = [across(seen.sight, stock.low.x, stock.low.y), across(seen.sight, stock.high.x, stock.high.y)];
  const at = across(seen.sight, x, y);
  if (at <= Math.min(a, b) + 0.5) return 1;
  return at >= Math.max(a, b) - 0.5 ? -1 : 0;
}

function FinderPicture({ seen, machine }: { seen: Observation; machine: AxisCounts }) {
  const { tip } = seen;
  if (!tip) return null;
  const { side: away, above } = daylight(seen, machine);
  const isBeside = above < 0 && away < 30;
  const side = partSide(seen, machine);
  const wobble = tip.kind === "running" ? tip.wobble : "true";
  const isFree = tip.kind === "running" && tip.wobble === "wide" || tip.kind === "still";
  const gap = isFree ? Math.min(60, 10 + Math.max(0, away) * 4) : GAP[wobble];
  const half = 26;
  const aside = tip.kind === "aside" ? 13 : 0;
  const face = side === 0 ? MID : MID + side * (half + gap);
  const swing: CSSProperties = { ["--swing" as string]: `${SWING[wobble]}px` };
  const isMoving = tip.kind === "running" && wobble !== "true";
  const partTop = 84;
  return (
    <g>
      {isBeside && side === 0 ? <rect x="0" y={partTop} width={SIZE} height={SIZE} fill="var(--stock)" stroke="var(--stock-edge)" /> : null}
      {isBeside && side === 1 ? <rect x={face} y={partTop} width={SIZE} height={SIZE} fill="var(--stock)" stroke="var(--stock-edge)" /> : null}
      {isBeside && side === -1 ? <rect x={face - SIZE} y={partTop} width={SIZE} height={SIZE} fill="var(--stock)" stroke="var(--stock-edge)" /> : null}
      {isBeside && !seen.isBurrDressed ? (
        <path d={side === 0 ? `M0 ${partTop}l8-4 8 4 8-5 8 5 8-4 8 4 8-5 8 5 8-4 8 4 8-5 8 5 8-4 8 4 8-5 8 5 8-4 8 4 8-5 8 5 8-4 8 4` : `M${face} ${partTop + 10}l${-side * 6}-6 2-7 ${side * 6} 0`} fill="none" stroke="var(--contact)" strokeWidth="2" />
      ) : null}
      <rect x={MID - 40} y="-4" width="80" height="56" fill="var(--steel)" stroke="var(--steel-dark)" />
      {tip.kind === "destroyed" ? (
        <path d="M70 90l22 9-8 14 20 5M118 84l10 18-14 6 6 16" stroke="var(--contact)" strokeWidth="3" fill="none" />
      ) : (
        <g transform={`translate(${aside} 0)`}>
          <g className={isMoving ? "wobbling" : undefined} style={swing}>
            {isMoving ? <rect x={MID - half - SWING[wobble]} y="54" width={half * 2 + SWING[wobble] * 2} height="92" fill="none" stroke="var(--contact)" strokeDasharray="3 3" opacity="0.5" /> : null}
            <rect x={MID - half} y="54" width={half * 2} height="92" rx="2" fill="var(--contact-soft)" stroke="var(--contact)" strokeWidth="2" />
          </g>
        </g>
      )}
      {tip.kind === "aside" ? <rect x={MID - half} y="54" width={half * 2} height="92" fill="none" stroke="var(--contact)" strokeDasharray="4 4" opacity="0.7" /> : null}
      <path d={`M${MID} 0V${SIZE}`} stroke="var(--ink2)" strokeDasharray="8 3 2 3" opacity="0.6" />
    </g>
  );
}

function SolidPicture({ seen, machine }: { seen: Observation; machine: AxisCounts }) {
  const { paper, resting, holds } = seen;
  const { side, above } = daylight(seen, machine);
  const floor = 132;
  const isOver = side <= 0 || paper !== null || resting !== null;
  const paperGap = { slides: 14, drags: 7, held: 5, pinched: 3, torn: 0 };
  const gap = paper ? paperGap[paper.feel] : resting || seen.isStopped ? 0 : isOver ? Math.min(70, 14 + Math.max(0, above) * 3) : 40;
  const tipY = floor - gap;
  return (
    <g>
      {isOver ? <rect x="0" y={floor} width={SIZE} height={SIZE} fill="var(--stock)" stroke="var(--stock-edge)" /> : null}
      {holds === "pointedTool"
        ? <path d={`M${MID} ${tipY}l-22-30v-200h44v200z`} fill="var(--contact-soft)" stroke="var(--contact)" strokeWidth="2" />
        : <rect x={MID - 34} y={tipY - 200} width="68" height="200" fill="var(--contact-soft)" stroke="var(--contact)" strokeWidth="2" />}
      {paper ? (
        <g className={paper.feel === "slides" || paper.feel === "drags" ? "tugging" : undefined}>
          <rect x="22" y={floor - 5} width="150" height="4" fill="var(--field)" stroke="var(--ink)" />
          {paper.feel === "pinched" || paper.feel === "held" ? <path d={`M172 ${floor - 3}l8-8m-8 8l8 5`} stroke="var(--ink)" fill="none" /> : <path d={`M174 ${floor - 3}h14m-5-4l5 4-5 4`} stroke="var(--ink)" fill="none" />}
        </g>
      ) : null}
      {resting ? <path d={`M${MID - 46} ${floor}h92`} stroke="var(--contact)" strokeWidth="4" /> : null}
    </g>
  );
}

/** The working point, magnified: what eye, ear and finger get, and no figure of the gap. */
export function Loupe({ seen, machine }: { seen: Observation; machine: AxisCounts }) {
  const clip = useId();
  const { strong, soft, isContact } = sensationOf(seen, machine);
  return (
    <figure className="flex flex-col items-center">
      <svg className="w-full max-w-[196px]" viewBox={`0 0 ${SIZE} ${SIZE}`} aria-hidden>
        <clipPath id={clip}><circle cx={MID} cy={MID} r={MID - 3} /></clipPath>
        <circle cx={MID} cy={MID} r={MID - 3} fill="var(--field)" />
        <g clipPath={`url(#${clip})`}>
          {seen.holds === "edgeFinder" ? <FinderPicture seen={seen} machine={machine} /> : null}
          {seen.holds === "tool1" || seen.holds === "pointedTool" ? <SolidPicture seen={seen} machine={machine} /> : null}
          {seen.holds === null ? <rect x={MID - 46} y="-4" width="92" height="60" fill="var(--steel)" stroke="var(--steel-dark)" /> : null}
        </g>
        <circle cx={MID} cy={MID} r={MID - 3} fill="none" stroke="var(--ink)" strokeWidth="2.5" />
      </svg>
      <figcaption role="status" aria-live="polite" className="mt-1 min-h-11 text-center">
        <b data-testid="sensation" className={`block text-[15px] ${isContact ? "text-contact" : ""}`}>{strong}</b>
        <span className="text-xs text-ink2">{soft}</span>
      </figcaption>
    </figure>
  );
}
