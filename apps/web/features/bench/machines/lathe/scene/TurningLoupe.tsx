import type { TurningSeen } from "@probe-lane/core/bench";
import type { AxisCounts } from "@probe-lane/core/registers";
import { frameOf, Rect } from "../../../lane/drawing";
import { tipPlace, toolOf } from "../view";
import { type Point, outlineOf } from "./inserts";
import { points, slopeOf } from "./Part";

/** How far round the loupe reaches, mm of the part. */
const LOUPE_MM = 3;

/** The tip under a glass: its nose at true radius, the surface near it, and what is held in between. */
export function TurningLoupe({ seen, machine }: { seen: TurningSeen; machine: AxisCounts }) {
  const { lathe } = seen;
  const tool = toolOf(seen);
  if (!tool) return null;
  const size = 184;
  const frame = frameOf({ left: -LOUPE_MM, right: LOUPE_MM, bottom: -LOUPE_MM, top: LOUPE_MM }, size, size, {
    isUpsideDown: seen.kind === "readout",
  });
  const { radiusMm, zMm } = tipPlace(seen, machine);
  const slope = slopeOf(lathe)?.map(([z, r]): Point => [z - zMm, (r < 0 ? -60 : r) - radiusMm]);
  const steps = lathe.outer
    .filter(({ isCone }) => !isCone)
    .map(({ fromMm, toMm, radiusMm: r }) => ({
      u: [fromMm - zMm, toMm - zMm] as const,
      v: [-60 - radiusMm, r - radiusMm] as const,
      key: fromMm,
    }));
  const holes = lathe.bore.map(({ fromMm, toMm, radiusMm: r }) => ({
    u: [fromMm - zMm, toMm - zMm] as const,
    v: [-60, r - radiusMm] as const,
    key: fromMm,
  }));
  const body = outlineOf(tool).insert;
  return (
    <svg viewBox={`0 0 ${size} ${size}`} className="w-full" role="img" aria-label="The tip under a glass">
      <defs>
        <clipPath id="turning-glass">
          <circle cx={size / 2} cy={size / 2} r={size / 2 - 3} />
        </clipPath>
      </defs>
      <circle cx={size / 2} cy={size / 2} r={size / 2 - 2} fill="var(--field)" stroke="var(--ink)" strokeWidth="2.5" />
      <g clipPath="url(#turning-glass)">
        {steps.map(({ u, v, key }) => (
          <Rect key={key} frame={frame} u={u} v={v} fill="var(--stock)" stroke="var(--stock-edge)" />
        ))}
        {slope ? <polygon points={points(frame, slope)} fill="var(--stock)" stroke="var(--stock-edge)" /> : null}
        {holes.map(({ u, v, key }) => (
          <Rect key={`h${key}`} frame={frame} u={u} v={v} fill="var(--field)" stroke="var(--stock-edge)" />
        ))}
        {lathe.gap ? (
          <Rect
            frame={frame}
            {...(lathe.gap.on === "face"
              ? { u: [-0.32, 0] as const, v: [-2.4, 2.4] as const }
              : { u: [-2.4, 2.4] as const, v: [-0.32, 0] as const })}
            fill="var(--expected-soft)"
            stroke="var(--expected)"
          />
        ) : null}
        {lathe.block ? (
          <Rect frame={frame} u={[-3, 0]} v={[-1.6, 1.6]} fill="var(--expected-soft)" stroke="var(--expected)" />
        ) : null}
        <polygon
          points={points(frame, body)}
          fill="var(--contact-soft)"
          stroke="var(--contact)"
          strokeWidth="1.5"
          strokeLinejoin="round"
        />
        <path d={`M${size / 2 - 8} ${size / 2}h16M${size / 2} ${size / 2 - 8}v16`} stroke="var(--ink)" />
      </g>
    </svg>
  );
}
