import type { MillSeen } from "@probe-lane/core/bench";
import type { Side } from "@probe-lane/core/lane";
import { edgeOf, type Surface } from "@probe-lane/core/exercises";
import { boxOf, turned, type Solid } from "@probe-lane/core/geometry";
import { scales, showLength, toMm } from "@probe-lane/core/units";
import type { Axis, AxisCounts } from "@probe-lane/core/registers";
import { useId, type ReactNode } from "react";
import { across, depth, placeOf, planWindow, solidsOf } from "./view";
import { AxisKey, clamp, frameOf, keyCenter, Rect, type Frame, type Jog, type ViewBox } from "../../lane/drawing";
import { millKeys } from "./keys";

const PlanLabel = ({
  x,
  y,
  children,
  anchor = "start",
  fill = "var(--jaw-ink)",
}: {
  x: number;
  y: number;
  children: ReactNode;
  anchor?: "start" | "middle" | "end";
  fill?: string;
}) => (
  <text x={x} y={y} fontSize="12" textAnchor={anchor} fill={fill}>
    {children}
  </text>
);

interface Fill {
  fill: string;
  stroke: string;
}
const FILLS: Record<Surface, Fill> = {
  table: { fill: "none", stroke: "none" },
  stock: { fill: "var(--stock)", stroke: "var(--stock-edge)" },
  boss: { fill: "var(--stock)", stroke: "var(--steel-dark)" },
  frontJaw: { fill: "var(--jaw)", stroke: "none" },
  backJaw: { fill: "var(--jaw)", stroke: "none" },
  stop: { fill: "var(--steel-dark)", stroke: "none" },
  plate: { fill: "var(--jaw)", stroke: "none" },
  setter: { fill: "var(--steel)", stroke: "var(--ink2)" },
  lampGauge: { fill: "var(--expected-soft)", stroke: "var(--expected)" },
};

const corners = (
  { x, y, halfX, halfY }: { x: number; y: number; halfX: number; halfY: number },
  angleDeg: number,
  frame: Frame,
): string =>
  (
    [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ] as const
  )
    .map(([sx, sy]) => {
      const at = turned(sx * halfX, sy * halfY, angleDeg);
      return `${frame.px(x + at.x)},${frame.py(y + at.y)}`;
    })
    .join(" ");

/** A solid seen from above: its outline, turned as it lies, and its hole. */
function PlanSolid({ frame, solid, look }: { frame: Frame; solid: Solid; look: Fill }) {
  const { plan, hole } = solid;
  const outline =
    plan.kind === "disc" ? (
      <circle
        cx={frame.px(plan.x)}
        cy={frame.py(plan.y)}
        r={plan.radiusMm * frame.scale}
        fill={look.fill}
        stroke={look.stroke}
      />
    ) : (
      <polygon fill={look.fill} stroke={look.stroke} points={corners(plan, plan.angleDeg, frame)} />
    );
  return (
    <>
      {outline}
      {hole?.kind === "rect" && plan.kind === "rect" ? (
        <polygon fill="var(--well)" stroke="var(--stock-edge)" points={corners(hole, plan.angleDeg, frame)} />
      ) : null}
      {hole?.kind === "round" ? (
        <circle
          cx={frame.px(hole.x)}
          cy={frame.py(hole.y)}
          r={hole.radiusMm * frame.scale}
          fill="var(--well)"
          stroke="var(--stock-edge)"
        />
      ) : null}
    </>
  );
}

/** What hangs in the spindle, seen from above: its tip, and the face mill's or drill's outline round it. */
function HeldFromAbove({ seen, frame, x, y }: { seen: MillSeen; frame: Frame; x: number; y: number }) {
  const widest = Math.max(
    ...seen.heldShape.rigid.filter(({ fromMm }) => fromMm < 12).map(({ radiusMm }) => radiusMm),
    seen.heldShape.tip?.radiusMm ?? 0,
    seen.heldShape.tipRadiusMm,
  );
  const radius = Math.max(3, frame.scale * Math.min(widest, 40));
  return (
    <g>
      {seen.holds === null ? null : (
        <circle
          cx={frame.px(x)}
          cy={frame.py(y)}
          r={radius}
          fill="var(--contact-soft)"
          fillOpacity="0.8"
          stroke="var(--contact)"
          strokeWidth="1.5"
        />
      )}
      {seen.holds === null ? (
        <circle
          cx={frame.px(x)}
          cy={frame.py(y)}
          r={30 * frame.scale}
          fill="none"
          stroke="var(--steel-dark)"
          strokeDasharray="3 3"
        />
      ) : null}
      <path
        d={`M${frame.px(x) - radius - 4} ${frame.py(y)}h${radius * 2 + 8}M${frame.px(x)} ${frame.py(y) - radius - 4}v${radius * 2 + 8}`}
        stroke="var(--contact)"
      />
    </g>
  );
}

function PlanLabels({ seen, frame }: { seen: MillSeen; frame: Frame }) {
  const { sheet, boxes } = seen;
  const { stock, frontJaw, backJaw, plate, stop } = boxes;
  const isFixed = (jaw: "front" | "back") => sheet.fixture.fixedJaw === jaw;
  const isLow = { x: edgeOf(sheet, "x")?.approach !== -1, y: edgeOf(sheet, "y")?.approach !== -1 };
  const size = sheet.partSizeMm
    .slice(0, 2)
    .map((mm) => showLength(mm, scales[sheet.unit], sheet.unit === "mm" ? 0 : 2))
    .join(" × ");
  return (
    <>
      {frontJaw ? (
        <PlanLabel x={frame.px(frontJaw.low.x) + 6} y={frame.py(frontJaw.low.y) - 6}>
          {isFixed("front") ? "fixed jaw" : "moving jaw"}
        </PlanLabel>
      ) : null}
      {backJaw ? (
        <PlanLabel x={frame.px(backJaw.low.x) + 6} y={frame.py(backJaw.high.y) + 16}>
          {isFixed("back") ? "fixed jaw" : "moving jaw"}
        </PlanLabel>
      ) : null}
      {plate ? (
        <PlanLabel x={frame.px(plate.low.x) + 6} y={frame.py(plate.low.y) - 6}>
          fixture plate
        </PlanLabel>
      ) : null}
      {stop ? (
        <PlanLabel
          x={frame.px(stop.low.x) - 4}
          y={frame.py((stop.low.y + stop.high.y) / 2) + 4}
          anchor="end"
          fill="var(--ink)"
        >
          stop
        </PlanLabel>
      ) : null}
      <PlanLabel
        x={isLow.x ? frame.px(stock.high.x) - 8 : frame.px(stock.low.x) + 8}
        y={isLow.y ? frame.py(stock.high.y) + 18 : frame.py(stock.low.y) - 8}
        anchor={isLow.x ? "end" : "start"}
        fill="var(--ink)"
      >
        {sheet.partName}, blank {size}
      </PlanLabel>
    </>
  );
}

export function Plan({
  seen,
  machine,
  fit,
  lastAxis,
  onJog,
  width,
  height,
}: {
  seen: MillSeen;
  machine: AxisCounts;
  fit: "near" | "whole";
  lastAxis: Axis;
  onJog: Jog | null;
  width: number;
  height: number;
}) {
  const frame = frameOf(planWindow(seen, fit), width, height);
  const { stock } = seen.boxes;
  const { x, y } = placeOf(seen, machine);
  const { cx, cy, isOutside } = keyCenter(frame, x, y);
  const scale = scales[seen.sheet.unit];
  const isNear = fit === "near";
  const arm = 36;
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="group"
      aria-label={`Plan from above. The spindle axis stands ${isOutside ? "outside the view" : "in the view"}.`}
    >
      <rect width={width} height={height} fill="var(--well)" />
      {isNear ? null : (
        <Rect
          frame={frame}
          u={[toMm(seen.travelCounts.x[0], scale), 0]}
          v={[toMm(seen.travelCounts.y[0], scale), 0]}
          fill="none"
          stroke="var(--ink3)"
          dash="4 4"
        />
      )}
      {solidsOf(seen)
        .filter(({ name }) => name !== "table")
        .map(({ name, solid }) => (
          <PlanSolid key={name} frame={frame} solid={solid} look={FILLS[name]} />
        ))}
      <Rect
        frame={frame}
        u={[stock.low.x, stock.high.x]}
        v={[stock.low.y, stock.high.y]}
        fill="none"
        part="plan-stock"
      />
      {seen.isBurrDressed ? null : (
        <Rect
          frame={frame}
          u={[stock.low.x, stock.high.x]}
          v={[stock.low.y, stock.high.y]}
          fill="none"
          stroke="var(--contact)"
          dash="1 5"
        />
      )}
      {isNear ? (
        <PlanLabels seen={seen} frame={frame} />
      ) : (
        <PlanLabel x={8} y={16} fill="var(--ink2)">
          dashed: end of travel{seen.solids.setter ? " · round: setter" : ""}
        </PlanLabel>
      )}
      {isOutside ? (
        <OutsideMark frame={frame} x={x} y={y} window={planWindow(seen, fit)} />
      ) : (
        <HeldFromAbove seen={seen} frame={frame} x={x} y={y} />
      )}
      {onJog ? (
        <>
          <AxisKey
            x={cx - arm - 24}
            y={cy}
            jogKey={millKeys.ArrowLeft}
            label="X−"
            isActive={lastAxis === "x"}
            onPress={(ten) => onJog("x", -1, ten)}
          />
          <AxisKey
            x={cx + arm + 24}
            y={cy}
            jogKey={millKeys.ArrowRight}
            label="X+"
            isActive={lastAxis === "x"}
            onPress={(ten) => onJog("x", 1, ten)}
          />
          <AxisKey
            x={cx}
            y={cy - arm + 4}
            jogKey={millKeys.ArrowUp}
            label="Y+"
            isActive={lastAxis === "y"}
            onPress={(ten) => onJog("y", 1, ten)}
          />
          <AxisKey
            x={cx}
            y={cy + arm - 4}
            jogKey={millKeys.ArrowDown}
            label="Y−"
            isActive={lastAxis === "y"}
            onPress={(ten) => onJog("y", -1, ten)}
          />
        </>
      ) : null}
    </svg>
  );
}

/** Which way and how far the spindle is, when the near view does not reach it. */
function OutsideMark({ frame, x, y, window }: { frame: Frame; x: number; y: number; window: ViewBox }) {
  const far = (value: number, low: number, high: number, minus: string, plus: string) => {
    if (value < low) return `${Math.round(low - value)} mm ${minus}`;
    return value > high ? `${Math.round(value - high)} mm ${plus}` : null;
  };
  const words = [
    far(x, window.left, window.right, "left", "right"),
    far(y, window.bottom, window.top, "in front", "behind"),
  ]
    .filter(Boolean)
    .join(", ");
  return (
    <g>
      <rect
        x={frame.width / 2 - 112}
        y={frame.height / 2 - 2}
        width="224"
        height="40"
        rx="3"
        fill="var(--panel)"
        stroke="var(--contact)"
      />
      <text x={frame.width / 2} y={frame.height / 2 + 14} textAnchor="middle" fontSize="12" fill="var(--ink)">
        spindle is outside this view:
      </text>
      <text
        x={frame.width / 2}
        y={frame.height / 2 + 30}
        textAnchor="middle"
        fontSize="12"
        fontWeight="700"
        fill="var(--ink)"
      >
        {words}
      </text>
    </g>
  );
}

/** The outline of what the spindle holds from the side, over the tip: cutter or instrument, holder, nose. */
function HeldFromBeside({ seen, frame, at, tipZ }: { seen: MillSeen; frame: Frame; at: number; tipZ: number }) {
  const { rigid, tip } = seen.heldShape;
  const parts = [
    ...rigid.map((part, place) => ({ ...part, isHolder: seen.holds === null || place >= rigid.length - 2 })),
    ...(tip ? [{ ...tip, isHolder: false }] : []),
  ];
  return (
    <g data-part="tool" data-length={seen.heldLengthMm}>
      {parts.map(({ radiusMm, fromMm, toMm: top, isHolder }, place) => (
        <Rect
          key={place}
          frame={frame}
          u={[at - radiusMm, at + radiusMm]}
          v={[tipZ + fromMm, tipZ + top]}
          fill={
            isHolder
              ? radiusMm > 25
                ? "var(--steel-dark)"
                : "var(--steel)"
              : radiusMm > 15 && seen.holds !== null
                ? "var(--steel)"
                : "var(--contact)"
          }
          stroke="var(--ink2)"
        />
      ))}
      {seen.holds === "pointedTool" ? (
        <path
          d={`M${frame.px(at)} ${frame.py(tipZ)}L${frame.px(at - 4)} ${frame.py(tipZ + 5)}H${frame.px(at + 4)}Z`}
          fill="var(--contact)"
        />
      ) : null}
      <path d={`M${frame.px(at)} ${frame.py(tipZ) + 8}V0`} stroke="var(--contact)" strokeDasharray="8 3 2 3" />
    </g>
  );
}

export function Elevation({
  seen,
  machine,
  fit,
  lastAxis,
  onJog,
  width,
  height,
}: {
  seen: MillSeen;
  machine: AxisCounts;
  fit: "near" | "whole";
  lastAxis: Axis;
  onJog: Jog | null;
  width: number;
  height: number;
}) {
  const clip = useId();
  const { sight, sheet } = seen;
  const { stock, table, frontJaw } = seen.boxes;
  const { x, y, tipZ } = placeOf(seen, machine);
  const u = (px: number, py: number) => across(sight, px, py);
  const span = ({ low, high }: typeof stock): [number, number] => [u(low.x, low.y), u(high.x, high.y)];
  const isAlongX = sight === "front" || sight === "back";
  const plan = planWindow(seen, fit);
  const halfWidth = (plan.right - plan.left) / 2;
  const middle = isAlongX ? u((plan.left + plan.right) / 2, 0) : u(0, (plan.bottom + plan.top) / 2);
  const top = fit === "near" ? stock.high.z + 62 : 20;
  const bottom = fit === "near" ? stock.low.z - 26 : table.high.z - 20;
  const frame = frameOf({ left: middle - halfWidth, right: middle + halfWidth, bottom, top }, width, height);
  const at = u(x, y);
  const { cx } = keyCenter(frame, at, tipZ);
  const far = ({ low, high }: typeof stock) => depth(sight, (low.x + high.x) / 2, (low.y + high.y) / 2);
  const solids = solidsOf(seen)
    .filter(({ name }) => name !== "table")
    .map(({ name, solid }) => ({ name, solid, box: boxOf(solid) }))
    .sort((a, b) => far(b.box) - far(a.box));
  const toolDepth = depth(sight, x, y);
  const isToolFar = toolDepth > far(stock) + 1;
  const [stockU0, stockU1] = span(stock).sort((a, b) => a - b);
  const parallel = 12;
  const { hole } = seen.solids.stock;
  const holeHalf = hole?.kind === "rect" ? (isAlongX ? hole.halfX : hole.halfY) : (hole?.radiusMm ?? 0);
  const tool = <HeldFromBeside seen={seen} frame={frame} at={at} tipZ={tipZ} />;
  const drawSolid = ({ name, box }: (typeof solids)[number]) => (
    <g key={name}>
      <Rect
        frame={frame}
        u={span(box)}
        v={[box.low.z, box.high.z]}
        fill={FILLS[name].fill}
        stroke={name === "frontJaw" || name === "backJaw" ? "var(--steel-dark)" : FILLS[name].stroke}
        {...(name === "stock" ? { part: "elevation-stock" } : {})}
      />
      {name === "setter" || name === "lampGauge" ? (
        <Rect
          frame={frame}
          u={[
            (u(box.low.x, box.low.y) + u(box.high.x, box.high.y)) / 2 - 4,
            (u(box.low.x, box.low.y) + u(box.high.x, box.high.y)) / 2 + 4,
          ]}
          v={[box.high.z, box.high.z + (name === "setter" ? 3 : 2)]}
          fill="var(--expected)"
        />
      ) : null}
      {name === "stock" && sheet.facingAllowanceMm > 0 ? (
        <Rect
          frame={frame}
          u={span(box)}
          v={[box.high.z - sheet.facingAllowanceMm, box.high.z]}
          fill="var(--stock-edge)"
        />
      ) : null}
      {name === "stock" && hole ? (
        <Rect
          frame={frame}
          u={[u(hole.x, hole.y) - holeHalf, u(hole.x, hole.y) + holeHalf]}
          v={[box.low.z, box.high.z]}
          fill="none"
          stroke="var(--ink2)"
          dash="6 4"
        />
      ) : null}
    </g>
  );
  const [behind, before] = [
    solids.filter(({ box, name }) => name !== "stock" && far(box) >= far(stock)),
    solids.filter(({ box, name }) => name !== "stock" && far(box) < far(stock)),
  ];
  const body = solids.filter(({ name }) => name === "stock");
  const isAbove = frame.py(tipZ) < -4;
  const keysX = clamp(cx + 76, 60, width - 34);
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="group"
      aria-label={`Elevation seen from the ${sight}.`}
    >
      <clipPath id={clip}>
        <rect width={width} height={height} />
      </clipPath>
      <rect width={width} height={height} fill="var(--well)" />
      <g clipPath={`url(#${clip})`}>
        <Rect frame={frame} u={[middle - 2000, middle + 2000]} v={[table.low.z, table.high.z]} fill="var(--steel)" />
        {behind.map(drawSolid)}
        {isToolFar ? tool : null}
        {frontJaw
          ? [stockU0 + 10, stockU1 - 10 - parallel].map((left) => (
              <Rect
                key={left}
                frame={frame}
                u={[left, left + parallel]}
                v={[frontJaw.low.z, stock.low.z]}
                fill="var(--steel)"
                stroke="var(--steel-dark)"
              />
            ))
          : null}
        {body.map(drawSolid)}
        {before.map(drawSolid)}
        {isToolFar ? null : tool}
      </g>
      <text x={8} y={16} fontSize="12" fill="var(--ink2)" stroke="var(--well)" strokeWidth="4" paintOrder="stroke">
        {seen.isDoorOpen ? "door open" : "door shut"}
        {sheet.facingAllowanceMm > 0 ? " · dark skin: still to be faced" : ""}
      </text>
      {isAbove ? (
        <text x={clamp(cx, 90, width - 90)} y={34} textAnchor="middle" fontSize="12" fill="var(--contact)">
          tip is {Math.round(tipZ - top)} mm above this view
        </text>
      ) : null}
      {onJog ? (
        <>
          <AxisKey
            x={keysX}
            y={60}
            jogKey={millKeys.PageUp}
            label="Z+"
            isActive={lastAxis === "z"}
            onPress={(ten) => onJog("z", 1, ten)}
          />
          <AxisKey
            x={keysX}
            y={88}
            jogKey={millKeys.PageDown}
            label="Z−"
            isActive={lastAxis === "z"}
            onPress={(ten) => onJog("z", -1, ten)}
          />
        </>
      ) : null}
    </svg>
  );
}

export const sideWords: Record<Side, string> = {
  front: "from the front",
  back: "from the back",
  left: "from the left",
  right: "from the right",
};
