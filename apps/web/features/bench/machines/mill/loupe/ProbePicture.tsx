import type { MillSeen } from "@probe-lane/core/bench";
import type { AxisCounts } from "@probe-lane/core/registers";
import { daylight } from "../view";
import { MID, partSide, SIZE } from "./lens";

/** The probe's ball and stem beside what is near, its lamp on or off. */
export function ProbePicture({
  seen,
  machine,
  isTriggered,
}: {
  seen: MillSeen;
  machine: AxisCounts;
  isTriggered: boolean;
}) {
  const { side: away, above } = daylight(seen, machine);
  const side = partSide(seen, machine);
  const isBeside = above < 0 && away < 30;
  const gap = isTriggered ? 0 : Math.min(50, 8 + Math.max(0, away) * 4);
  const face = MID + side * (20 + gap);
  const floor = isTriggered && !isBeside ? 150 : 150 + Math.min(40, Math.max(6, above * 3));
  return (
    <g>
      {isBeside && side !== 0 ? (
        <rect
          x={side === 1 ? face : face - SIZE}
          y="70"
          width={SIZE}
          height={SIZE}
          fill="var(--stock)"
          stroke="var(--stock-edge)"
        />
      ) : null}
      {isBeside && side === 0 ? (
        <rect x="0" y="70" width={SIZE} height={SIZE} fill="var(--stock)" stroke="var(--stock-edge)" />
      ) : null}
      {isBeside || seen.below === null ? null : (
        <rect x="0" y={floor} width={SIZE} height={SIZE} fill="var(--stock)" stroke="var(--stock-edge)" />
      )}
      <rect x={MID - 36} y="-4" width="72" height="44" fill="var(--steel)" stroke="var(--steel-dark)" />
      <rect x={MID - 7} y="40" width="14" height="76" fill="var(--steel)" stroke="var(--steel-dark)" />
      <circle cx={MID} cy="130" r="20" fill="var(--contact-soft)" stroke="var(--contact)" strokeWidth="2" />
      <circle
        cx={MID + 22}
        cy="18"
        r="7"
        fill={isTriggered ? "var(--contact)" : "var(--field)"}
        stroke="var(--ink)"
        strokeWidth="1.5"
      />
      <path d={`M${MID} 0V${SIZE}`} stroke="var(--ink2)" strokeDasharray="8 3 2 3" opacity="0.6" />
    </g>
  );
}
