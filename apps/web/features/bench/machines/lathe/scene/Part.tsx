import type { LatheSeen, TurningSeen } from "@probe-lane/core/bench";
import { CHUCK_MM } from "@probe-lane/core/machines";
import type { TurretTool } from "@probe-lane/core/exercises";
import { useId } from "react";
import { Rect, type Frame } from "../../../lane/drawing";
import { type Point, outlineOf } from "./inserts";

export const points = (frame: Frame, list: readonly Point[]): string =>
  list.map(([z, r]) => `${frame.px(z)},${frame.py(r)}`).join(" ");

/** A tool at its tip, its nose rounded as its radius is. */
export function TurretToolShape({ frame, tool, z, r }: { frame: Frame; tool: TurretTool; z: number; r: number }) {
  const { insert, holder } = outlineOf(tool);
  const at = (list: readonly Point[]) =>
    points(
      frame,
      list.map(([dz, dr]): Point => [z + dz, r + dr]),
    );
  return (
    <g data-testid="turret-tool">
      <polygon points={at(holder)} fill="var(--steel)" stroke="var(--ink)" />
      <polygon
        points={at(insert)}
        fill="var(--contact-soft)"
        stroke="var(--contact)"
        strokeWidth="1.5"
        strokeLinejoin="round"
      />
      <circle cx={frame.px(z)} cy={frame.py(r)} r="2.5" fill="var(--contact)" />
    </g>
  );
}

/**
 * The turned cone as one slope, from the treads that it is kept as: both its ends and both sides of the axis; null
 * where there is none.
 */
export function slopeOf({ outer }: LatheSeen): Point[] | null {
  const treads = outer.filter(({ isCone }) => isCone);
  const [first, last] = [treads[0], treads.at(-1)];
  if (!first || !last) return null;
  return [
    [first.fromMm, first.radiusMm],
    [last.toMm, last.radiusMm],
    [last.toMm, -last.radiusMm],
    [first.fromMm, -first.radiusMm],
  ];
}

/** Steps of a jaw, from the bar outward: how far each reaches from the chuck's face, and how high it is, mm. */
const STEPS = [
  { length: 18, height: 9 },
  { length: 12, height: 8 },
  { length: 6, height: 7 },
] as const;
const CHUCK = { faceMm: CHUCK_MM.bodyBehind, depthMm: 42, roomMm: CHUCK_MM.body, serrationMm: 1.5 } as const;

/** Chuck body with its slots, and a stepped jaw above and below that bites with serrations. */
function Chuck({ frame, jawMm, widest }: { frame: Frame; jawMm: number; widest: number }) {
  const face = jawMm - CHUCK.faceMm;
  const jaw = (side: 1 | -1) => {
    const corners: Point[] = [[face - 10, side * widest]];
    let height = widest;
    corners.push([jawMm, side * widest]);
    for (const step of STEPS) {
      corners.push([face + step.length, side * height]);
      height += step.height;
      corners.push([face + step.length, side * height]);
    }
    corners.push([face - 10, side * height]);
    return points(frame, corners);
  };
  const teeth = Math.floor(CHUCK.faceMm / CHUCK.serrationMm);
  const bite = (side: 1 | -1) =>
    Array.from({ length: teeth }, (_, i) => {
      const z = jawMm - i * CHUCK.serrationMm;
      const y = frame.py(side * widest);
      const half = ((CHUCK.serrationMm / 2) * frame.scale) | 0;
      return `M${frame.px(z)} ${y}l${-half} ${side * -2.5}l${-half} ${side * 2.5}`;
    }).join("");
  return (
    <>
      <Rect
        frame={frame}
        u={[face - CHUCK.depthMm, face]}
        v={[-60, widest + CHUCK.roomMm]}
        fill="var(--steel)"
        stroke="var(--ink)"
      />
      {[0.35, 0.7].map((share) => (
        <path
          key={share}
          d={`M${frame.px(face - CHUCK.depthMm * share)} ${frame.py(widest + CHUCK.roomMm)}V${frame.py(-60)}`}
          stroke="var(--ink3)"
        />
      ))}
      {([1, -1] as const).map((side) => (
        <g key={side}>
          <polygon points={jaw(side)} fill="var(--jaw)" stroke="var(--ink)" />
          <path d={bite(side)} fill="none" stroke="var(--ink)" />
        </g>
      ))}
    </>
  );
}

/** Stock and chuck in section: sawn skin rough, turned bands smooth, as they were cut. */
export function Part({
  frame,
  lathe,
  hatch,
  isBar,
}: {
  frame: Frame;
  lathe: LatheSeen;
  hatch: string;
  isBar: boolean;
}) {
  const { outer, bore, tip } = lathe;
  const widest = Math.max(tip.partRadiusMm, 5);
  const slope = slopeOf(lathe);
  const endRadius = lathe.outer.findLast(({ radiusMm }) => radiusMm > 0)?.radiusMm ?? widest;
  return (
    <>
      {isBar ? (
        <>
          <Rect
            frame={frame}
            u={[tip.jawMm - 60, tip.jawMm - 14]}
            v={[-widest - 16, widest + 16]}
            fill="var(--steel-dark)"
          />
          <Rect frame={frame} u={[tip.jawMm - 14, tip.jawMm]} v={[-widest - 7, widest + 7]} fill="var(--jaw)" />
        </>
      ) : (
        <>
          <Chuck frame={frame} jawMm={tip.jawMm} widest={widest} />
        </>
      )}
      <Rect frame={frame} u={[tip.jawMm - 18, tip.jawMm]} v={[-widest, widest]} fill="var(--stock)" />
      {slope ? (
        <polygon points={points(frame, slope)} fill="var(--stock)" stroke="var(--expected)" strokeWidth="2" />
      ) : null}
      {outer
        .filter(({ isCone }) => !isCone)
        .map(({ fromMm, toMm, radiusMm, isTurned }) => (
          <g key={`${fromMm} ${toMm}`}>
            <Rect
              frame={frame}
              u={[fromMm, toMm]}
              v={[-radiusMm, radiusMm]}
              fill="var(--stock)"
              part={isTurned ? "turned" : "sawn"}
            />
            {isTurned ? null : (
              <>
                <Rect frame={frame} u={[fromMm, toMm]} v={[radiusMm - 1.6, radiusMm]} fill={`url(#${hatch})`} />
                <Rect frame={frame} u={[fromMm, toMm]} v={[-radiusMm, -radiusMm + 1.6]} fill={`url(#${hatch})`} />
              </>
            )}
            <path
              d={`M${frame.px(fromMm)} ${frame.py(radiusMm)}H${frame.px(toMm)}M${frame.px(fromMm)} ${frame.py(-radiusMm)}H${frame.px(toMm)}`}
              stroke={isTurned ? "var(--expected)" : "var(--stock-edge)"}
              strokeWidth={isTurned ? 2.5 : 1}
              strokeDasharray={isTurned ? undefined : "3 2"}
            />
          </g>
        ))}
      {bore.map(({ fromMm, toMm, radiusMm, isTurned }) => (
        <Rect
          key={`b${fromMm}`}
          frame={frame}
          u={[fromMm, toMm]}
          v={[-radiusMm, radiusMm]}
          fill="var(--well)"
          stroke={isTurned ? "var(--expected)" : "var(--stock-edge)"}
          part="bore"
        />
      ))}
      <Cut frame={frame} lathe={lathe} />
      <path d={`M${frame.px(tip.faceMm)} ${frame.py(endRadius)}V${frame.py(-endRadius)}`} stroke="var(--stock-edge)" />
    </>
  );
}

/** Distance of the lines with which a cut face is hatched, px. */
const HATCH_PX = 11;

/** Above the axis the part is cut, and hatched as a section is. */
function Cut({ frame, lathe: { outer, bore } }: { frame: Frame; lathe: LatheSeen }) {
  const id = useId();
  return (
    <g aria-hidden>
      <defs>
        <pattern id={id} width={HATCH_PX} height={HATCH_PX} patternUnits="userSpaceOnUse">
          <path d={`M0 ${HATCH_PX}L${HATCH_PX} 0`} stroke="var(--stock-edge)" strokeOpacity="0.55" strokeWidth="0.9" />
        </pattern>
      </defs>
      {outer.map(({ fromMm, toMm, radiusMm }) => {
        const hole = bore.find((one) => one.fromMm < toMm && one.toMm > fromMm)?.radiusMm ?? 0;
        return radiusMm > hole ? (
          <Rect key={fromMm} frame={frame} u={[fromMm, toMm]} v={[hole, radiusMm]} fill={`url(#${id})`} />
        ) : null;
      })}
    </g>
  );
}

/** A chip that curls off the edge; torn ones come off in crumbs. */
export function chipAt(x: number, y: number, isTorn: boolean): string {
  if (isTorn) return `M${x - 6} ${y - 7}l3 2M${x - 13} ${y - 3}l3-2M${x - 10} ${y - 14}l2 3M${x - 18} ${y - 10}l3 1`;
  return `M${x - 2} ${y - 2}c-4-12-16-12-16-3c0 6 9 6 9 0c0-9-16-12-22-3`;
}

/** The cone as the drawing has it, before it is turned. */
export function ConeLine({
  frame,
  cone,
  faceMm,
}: {
  frame: Frame;
  cone: NonNullable<TurningSeen["sheet"]["lathe"]["cone"]>;
  faceMm: number;
}) {
  const at = (zMm: number): Point => [
    faceMm + zMm,
    cone.diameterMm / 2 - (zMm - cone.atMm) * Math.tan((cone.angleDeg * Math.PI) / 180),
  ];
  const [near, far] = [at(cone.atMm), at(cone.atMm - cone.lengthMm)];
  return (
    <g stroke="var(--expected)" fill="var(--expected)">
      <path
        d={`M${frame.px(near[0])} ${frame.py(near[1])}L${frame.px(far[0])} ${frame.py(far[1])}`}
        strokeWidth="2"
        strokeDasharray="7 4"
      />
      <text x={frame.px(near[0]) + 8} y={frame.py(near[1] / 2)} fontSize="12" stroke="none">
        cone of the drawing, {cone.angleDeg}°
      </text>
    </g>
  );
}
