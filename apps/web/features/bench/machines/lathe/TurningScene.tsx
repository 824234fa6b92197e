import type { LatheSeen, TurningSeen } from "@probe-lane/core/bench";
import type { TurretTool } from "@probe-lane/core/exercises";
import type { Axis, AxisCounts } from "@probe-lane/core/registers";
import { inShopWords } from "@probe-lane/core/words";
import { useId } from "react";
import { AxisKey, frameOf, keyCenter, Rect, type Frame, type Jog } from "../../lane/drawing";
import { handWoundKeys, latheKeys } from "./keys";
import { tipPlace, toolOf, turningWindow } from "./view";

type Point = readonly [number, number];
const points = (frame: Frame, list: readonly Point[]): string =>
  list.map(([z, r]) => `${frame.px(z)},${frame.py(r)}`).join(" ");

const EDGE_MM = 11;
const along = (deg: number, length: number): Point => [
  length * Math.cos((deg * Math.PI) / 180),
  length * Math.sin((deg * Math.PI) / 180),
];
const ARC_STEPS = 8;

/**
 * An insert with its nose round: the circle touches the level and the upright through the imaginary tip at (0, 0), and
 * both edges. `leadDeg` is the direction of its leading edge from Z plus, `noseDeg` the angle between the edges.
 */
function roundedInsert(leadDeg: number, noseDeg: number, radius: number): Point[] {
  const [lead, trail] = [leadDeg, leadDeg - noseDeg];
  // where an edge leaves the circle: a quarter turn off its direction, on the outside
  const on = (deg: number): Point => [radius + along(deg, radius)[0], radius + along(deg, radius)[1]];
  const [from, to] = [lead + 90, trail + 270];
  const arc = Array.from({ length: ARC_STEPS + 1 }, (_, n) => on(to - ((to - from) * (ARC_STEPS - n)) / ARC_STEPS));
  const [first, last] = [arc[0] ?? [0, 0], arc.at(-1) ?? [0, 0]];
  const [a, b] = [along(lead, EDGE_MM), along(trail, EDGE_MM)];
  return [
    ...arc,
    [last[0] + b[0], last[1] + b[1]],
    [first[0] + a[0] + b[0], first[1] + a[1] + b[1]],
    [first[0] + a[0], first[1] + a[1]],
  ];
}

/**
 * A neutral insert: both edges lean away from the nose, so that one of them stands out toward the chuck. The tip is
 * level with the nose's lowest point, in its middle.
 */
const leaningInsert = (radius: number): Point[] => {
  const half = 17.5;
  const [right, left] = [90 - half, 90 + half];
  const on = (deg: number): Point => [along(deg, radius)[0], radius + along(deg, radius)[1]];
  const arc = Array.from({ length: ARC_STEPS + 1 }, (_, n) =>
    on(left + 90 + ((right + 270 - (left + 90)) * n) / ARC_STEPS),
  );
  const [first, last] = [arc[0] ?? [0, 0], arc.at(-1) ?? [0, 0]];
  const [a, b] = [along(left, 15), along(right, 15)];
  return [...arc, [last[0] + b[0], last[1] + b[1]], [first[0] + a[0], first[1] + a[1]]];
};

const inward = (list: readonly Point[]): Point[] => list.map(([z, r]) => [z, -r]);

/** Outlines of insert and holder from the tip, (Z, X as a radius) mm; X grows away from the axis. */
/** A point of 60° whose Z is sighted, and one whose Z is set by its side: the point trails that side. */
const bluntPoint: Point[] = [
  [0, 0],
  [5.2, 9],
  [-5.2, 9],
];
const sidedPoint = (sideMm: number): Point[] => {
  const shoulder = sideMm * Math.tan(Math.PI / 3);
  return [
    [sideMm, 0],
    [2 * sideMm, shoulder],
    [2 * sideMm, 9],
    [0, 9],
    [0, shoulder],
  ];
};

function outlineOf(tool: TurretTool): { insert: Point[]; holder: Point[] } {
  switch (tool.kind) {
    case "turning":
      return {
        insert: roundedInsert(95, 80, tool.noseRadiusMm),
        holder: [
          [1, 9],
          [1, 60],
          [22, 60],
          [22, 6],
          [12, 5],
        ],
      };
    case "profiling":
      return {
        insert: roundedInsert(93, 35, tool.noseRadiusMm),
        holder: [
          [0, 9],
          [0, 60],
          [20, 60],
          [20, 17],
          [9, 10],
        ],
      };
    case "grooving":
    case "parting": {
      const w = tool.bladeMm ?? 3;
      return {
        insert: [
          [0, 0],
          [w, 0],
          [w, 4],
          [0, 4],
        ],
        holder: [
          [0.3, 4],
          [w - 0.3, 4],
          [w - 0.3, 26],
          [w + 8, 30],
          [w + 8, 60],
          [-6, 60],
          [-6, 30],
          [0.3, 26],
        ],
      };
    }
    case "threading":
      return {
        insert: tool.sideMm === undefined ? bluntPoint : sidedPoint(tool.sideMm),
        holder: [
          [-6, 9],
          [6, 9],
          [12, 16],
          [12, 60],
          [-8, 60],
          [-8, 16],
        ],
      };
    case "boring":
      return {
        insert: inward(roundedInsert(95, 80, tool.noseRadiusMm)),
        holder: [
          [0.6, -1.5],
          [70, -1.5],
          [70, -12],
          [-0.4, -12],
        ],
      };
    case "endMill": {
      const r = (tool.bladeMm ?? 4) / 2;
      return {
        insert: [
          [-r, 0],
          [r, 0],
          [r, 9],
          [-r, 9],
        ],
        holder: [
          [-r - 2, 9],
          [r + 2, 9],
          [r + 4, 14],
          [r + 4, 60],
          [-r - 4, 60],
          [-r - 4, 14],
        ],
      };
    }
    case "neutral":
      return {
        insert: leaningInsert(tool.noseRadiusMm),
        holder: [
          [-9, 16],
          [-9, 60],
          [11, 60],
          [11, 18],
          [5, 12],
          [-5, 12],
        ],
      };
    case "drill":
      return {
        insert: [
          [0, 0],
          [3.6, 6],
          [3.6, -6],
        ],
        holder: [
          [3.6, 6],
          [70, 6],
          [70, -6],
          [3.6, -6],
        ],
      };
  }
}

/** A tool at its tip, its nose rounded as its radius is. */
function TurretToolShape({ frame, tool, z, r }: { frame: Frame; tool: TurretTool; z: number; r: number }) {
  const { insert, holder } = outlineOf(tool);
  const at = (list: readonly Point[]) =>
    points(
      frame,
      list.map(([dz, dr]): Point => [z + dz, r + dr]),
    );
  return (
    <g data-testid="turret-tool">
      <polygon points={at(holder)} fill="var(--steel)" stroke="var(--steel-dark)" />
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
function slopeOf({ outer }: LatheSeen): Point[] | null {
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

/** Stock and chuck in section: sawn skin rough, turned bands smooth, as they were cut. */
function Part({ frame, lathe, hatch, isBar }: { frame: Frame; lathe: LatheSeen; hatch: string; isBar: boolean }) {
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
          <Rect frame={frame} u={[tip.jawMm - 60, tip.jawMm - 18]} v={[-60, widest + 34]} fill="var(--steel-dark)" />
          <Rect frame={frame} u={[tip.jawMm - 18, tip.jawMm]} v={[widest, widest + 24]} fill="var(--jaw)" />
          <Rect frame={frame} u={[tip.jawMm - 18, tip.jawMm]} v={[-60, -widest]} fill="var(--jaw)" />
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
      <path d={`M${frame.px(tip.faceMm)} ${frame.py(endRadius)}V${frame.py(-endRadius)}`} stroke="var(--stock-edge)" />
    </>
  );
}

/**
 * Half section of chuck, part and tool to scale, the axis of rotation level. X is drawn as a radius and counted as a
 * diameter, and the drawing says so.
 */
export function TurningScene({
  seen,
  machine,
  fit,
  lastAxis,
  onJog,
  width,
  height,
}: {
  seen: TurningSeen;
  machine: AxisCounts;
  fit: "near" | "whole";
  lastAxis: Axis;
  onJog: Jog | null;
  width: number;
  height: number;
}) {
  const hatch = useId();
  const { lathe } = seen;
  const tool = toolOf(seen);
  if (!tool) return null;
  // a post stands on its operator's side
  const isNear = seen.kind === "readout";
  const up = isNear ? -1 : 1;
  const frame = frameOf(turningWindow(seen, fit), width, height, isNear);
  const { radiusMm, zMm } = tipPlace(seen, machine);
  const { cx, cy, isOutside } = keyCenter(frame, zMm, radiusMm);
  const { tip, arm } = lathe;
  const isBar = seen.kind === "gang";
  // beside the tip on the sides that insert and holder leave free: toward the chuck, and toward the axis
  const [outward, toward] = isNear ? (["ArrowDown", "ArrowUp"] as const) : (["ArrowUp", "ArrowDown"] as const);
  const bothSidesOff = isNear ? -6 : 14;
  const keys = [
    ["ArrowLeft", -66, 0],
    ["ArrowRight", 66, up * 24],
    [outward, -44, -up * 36],
    [toward, 0, up * 40],
  ] as const;
  const right = zMm - tip.faceMm;
  const out = radiusMm - tip.partRadiusMm;
  return (
    <svg
      width={width}
      height={height}
      role={onJog ? "group" : "img"}
      aria-label={`Half section from the front: chuck on the left, part, ${tool.kind} tool`}
    >
      <defs>
        <pattern id={hatch} width="5" height="5" patternUnits="userSpaceOnUse">
          <path d="M0 5L5 0" stroke="var(--stock-edge)" />
        </pattern>
      </defs>
      <rect width={width} height={height} fill="var(--well)" />
      <Part frame={frame} lathe={lathe} hatch={hatch} isBar={isBar} />
      <path d={`M0 ${frame.py(0)}H${width}`} stroke="var(--expected)" strokeDasharray="14 4 3 4" />
      <text x={width - 8} y={frame.py(0) - 5} textAnchor="end" fontSize="12" fill="var(--expected)">
        axis, X 0
      </text>
      <text
        x={frame.px(tip.jawMm) - 8}
        y={frame.py(tip.partRadiusMm + (isBar ? 19 : 10))}
        textAnchor="end"
        fontSize="12"
        fill={isBar ? "var(--ink2)" : "var(--jaw-ink)"}
      >
        {isBar ? "guide bush" : "jaw"}
      </text>
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
      <TurretToolShape frame={frame} tool={tool} z={zMm} r={radiusMm} />
      {lathe.neighbors.length > 0 ? (
        <SlideFromTheEnd
          seen={seen}
          x={width - END.width - 8}
          y={height - END.height - 8}
          shiftMm={radiusMm - tip.radiusMm}
        />
      ) : null}
      {!isOutside && radiusMm > 1 ? (
        <g>
          <path
            d={`M${frame.px(zMm)} ${frame.py(radiusMm)}V${frame.py(-Math.min(radiusMm, 13))}`}
            stroke="var(--contact)"
            strokeDasharray="2 4"
          />
          <text
            x={isBar ? width - 8 : frame.px(zMm)}
            y={isBar ? frame.py(0) + 15 : Math.min(height - 8, frame.py(-Math.min(radiusMm, 13)) + bothSidesOff)}
            textAnchor={isBar || frame.px(zMm) > width - 90 ? "end" : "middle"}
            fontSize="12"
            fill="var(--contact)"
          >
            ⌀: both sides count
          </text>
        </g>
      ) : null}
      <text
        x={isNear ? frame.px(tip.jawMm) + 10 : 8}
        y={16}
        fontSize="12"
        fill="var(--ink2)"
        stroke="var(--well)"
        strokeWidth="4"
        paintOrder="stroke"
      >
        {inShopWords(seen.isDoorOpen ? "door open" : "door shut", seen.kind)} ·{" "}
        {isBar ? "hatched: bar as it came" : "hatched: sawn"} · heavy line: turned
      </text>
      {isOutside ? (
        <g>
          <rect
            x={width / 2 - 120}
            y={height / 2 - 22}
            width="240"
            height="44"
            rx="4"
            fill="var(--panel)"
            stroke="var(--contact)"
          />
          <text x={width / 2} y={height / 2 - 4} textAnchor="middle" fontSize="12" fill="var(--ink)">
            tip is outside this view:
          </text>
          <text x={width / 2} y={height / 2 + 13} textAnchor="middle" fontSize="13" fontWeight="700" fill="var(--ink)">
            {Math.round(Math.abs(right))} mm {right >= 0 ? "before" : "behind"} the face, {Math.round(Math.abs(out))} mm{" "}
            {out >= 0 ? "out" : "in"}
          </text>
        </g>
      ) : null}
      {onJog ? (
        <>
          {keys.map(([name, x, y]) => {
            const jogKey = (isNear ? handWoundKeys : latheKeys)[name];
            return (
              <AxisKey
                key={name}
                x={cx + x}
                y={Math.min(Math.max(cy + y, 34), height - 14)}
                jogKey={jogKey}
                label={`${jogKey.axis.toUpperCase()}${jogKey.direction > 0 ? "+" : "−"}`}
                isActive={lastAxis === jogKey.axis}
                onPress={(isTen) => onJog(jogKey.axis, jogKey.direction, isTen)}
              />
            );
          })}
        </>
      ) : null}
    </svg>
  );
}

/** A chip that curls off the edge; torn ones come off in crumbs. */
function chipAt(x: number, y: number, isTorn: boolean): string {
  if (isTorn) return `M${x - 6} ${y - 7}l3 2M${x - 13} ${y - 3}l3-2M${x - 10} ${y - 14}l2 3M${x - 18} ${y - 10}l3 1`;
  return `M${x - 2} ${y - 2}c-4-12-16-12-16-3c0 6 9 6 9 0c0-9-16-12-22-3`;
}

/** The cone as the drawing has it, before it is turned. */
function ConeLine({
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

const END = { width: 228, height: 150, pitch: 42, pxPerMm: 2.2, barX: 22 } as const;

/**
 * The gang slide seen along the bar: every tool side by side, how far each stands out, and which of them is over the
 * bar.
 */
function SlideFromTheEnd({ seen, x, y, shiftMm }: { seen: TurningSeen; x: number; y: number; shiftMm: number }) {
  const { lathe, sheet } = seen;
  const here = sheet.lathe.tools.findIndex(({ number }) => number === lathe.station);
  const bar = (sheet.lathe.stock.diameterMm / 2) * END.pxPerMm;
  // in this small view a slide that is far out stands at its edge
  const level = (radiusMm: number) => END.height - 24 - bar - Math.min(radiusMm * END.pxPerMm, END.height - 70);
  const nearest = Math.min(...lathe.neighbors.map(({ radiusMm }) => radiusMm + shiftMm));
  const lift = Math.max(0, nearest * END.pxPerMm - 40);
  return (
    <g
      transform={`translate(${x} ${y})`}
      role="img"
      aria-label={`Slide seen along the bar: ${lathe.neighbors.map(({ number, radiusMm }) => `tool ${number} ${Math.round(radiusMm + shiftMm)} mm from the axis`).join(", ")}`}
    >
      <rect width={END.width} height={END.height} rx="4" fill="var(--panel)" stroke="var(--rule)" />
      <text x="8" y="15" fontSize="12" fill="var(--ink2)">
        seen along the bar
      </text>
      {lathe.neighbors.map(({ number, radiusMm }, place) => {
        const tipY = level(radiusMm + shiftMm - lift / END.pxPerMm);
        const toolX = END.barX + here * END.pitch + (place - here) * END.pitch;
        const isHere = number === lathe.station;
        return (
          <g key={number}>
            <rect
              x={toolX - 9}
              y={24}
              width="18"
              height={Math.max(4, tipY - 34)}
              fill="var(--steel)"
              stroke="var(--steel-dark)"
            />
            <path
              d={`M${toolX - 6} ${Math.max(28, tipY - 10)}L${toolX} ${tipY}L${toolX + 6} ${Math.max(28, tipY - 10)}Z`}
              fill={isHere ? "var(--contact)" : "var(--contact-soft)"}
              stroke="var(--contact)"
            />
            <text x={toolX} y="36" textAnchor="middle" fontSize="12" fontWeight={isHere ? 700 : 400} fill="var(--ink)">
              {number}
            </text>
          </g>
        );
      })}
      <circle
        cx={END.barX + here * END.pitch}
        cy={END.height - 14 - bar}
        r={bar}
        fill="var(--stock)"
        stroke="var(--stock-edge)"
        strokeWidth="1.5"
      />
      {lift > 0 ? (
        <text x={END.width - 8} y={END.height - 8} textAnchor="end" fontSize="12" fill="var(--ink2)">
          slide {Math.round(nearest)} mm out
        </text>
      ) : null}
    </g>
  );
}

/** How far round the loupe reaches, mm of the part. */
const LOUPE_MM = 3;

/** The tip under a glass: its nose at true radius, the surface near it, and what is held in between. */
export function TurningLoupe({ seen, machine }: { seen: TurningSeen; machine: AxisCounts }) {
  const { lathe } = seen;
  const tool = toolOf(seen);
  if (!tool) return null;
  const size = 184;
  const frame = frameOf(
    { left: -LOUPE_MM, right: LOUPE_MM, bottom: -LOUPE_MM, top: LOUPE_MM },
    size,
    size,
    seen.kind === "readout",
  );
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
