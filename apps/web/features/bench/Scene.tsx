import type { Observation, Side } from "@probe-lane/core/bench";
import type { Axis, AxisCounts } from "@probe-lane/core/registers";
import { useId, type ReactNode } from "react";
import { across, depth, placeOf, planWindow, type ViewBox } from "./benchView";
import { jogKeys } from "./keys";

type Jog = (axis: Axis, direction: 1 | -1, isTen: boolean) => void;
interface Frame { width: number; height: number; scale: number; px(u: number): number; py(v: number): number }

function frameOf(window: ViewBox, width: number, height: number): Frame {
  const scale = Math.min(width / (window.right - window.left), height / (window.top - window.bottom));
  const [midU, midV] = [(window.left + window.right) / 2, (window.bottom + window.top) / 2];
  return { width, height, scale, px: (u) => width / 2 + (u - midU) * scale, py: (v) => height / 2 - (v - midV) * scale };
}

function Rect({ frame, u, v, fill, stroke = "none", dash, part }: {
  frame: Frame; u: [number, number]; v: [number, number]; fill: string; stroke?: string; dash?: string;
  /** Names the rectangle and its places in mm, for who measures the drawing. */
  part?: string;
}) {
  const [left, right] = [Math.min(frame.px(u[0]), frame.px(u[1])), Math.max(frame.px(u[0]), frame.px(u[1]))];
  const [top, bottom] = [Math.min(frame.py(v[0]), frame.py(v[1])), Math.max(frame.py(v[0]), frame.py(v[1]))];
  const named = part ? { "data-part": part, "data-u0": Math.min(...u), "data-u1": Math.max(...u), "data-v0": Math.min(...v), "data-v1": Math.max(...v) } : {};
  return <rect x={left} y={top} width={right - left} height={bottom - top} fill={fill} stroke={stroke} strokeDasharray={dash} {...named} />;
}

/** A key that stands in the drawing at the thing it moves. */
function AxisKey({ x, y, keyName, label, isActive, onPress }: {
  x: number; y: number; keyName: string; label: string; isActive: boolean; onPress(isTen: boolean): void;
}) {
  const cap = jogKeys[keyName]?.cap ?? "";
  const width = cap.length > 1 ? 64 : 40;
  return (
    <g role="button" tabIndex={-1} aria-label={jogKeys[keyName]?.words} transform={`translate(${x - width / 2} ${y - 11})`} style={{ cursor: "pointer" }}
      onPointerDown={(event) => { event.preventDefault(); onPress(event.shiftKey); }}>
      <rect width={width} height="22" rx="3" fill="var(--panel)" stroke={isActive ? "var(--contact)" : "var(--ink3)"} strokeWidth={isActive ? 2 : 1} />
      <text x={width / 2} y="15.5" textAnchor="middle" fontSize="12" fill={isActive ? "var(--contact)" : "var(--ink)"}>
        <tspan fontWeight="700">{label}</tspan> <tspan className="figures">{cap}</tspan>
      </text>
    </g>
  );
}

const clamp = (value: number, low: number, high: number): number => Math.min(high, Math.max(low, value));

/** Keys round the spindle, pulled inside the frame when the spindle is outside of it. */
function keyCenter(frame: Frame, u: number, v: number): { cx: number; cy: number; isOutside: boolean } {
  const [x, y] = [frame.px(u), frame.py(v)];
  const cx = clamp(x, 84, frame.width - 84);
  const cy = clamp(y, 46, frame.height - 46);
  const isOutside = x < 0 || x > frame.width || y < 0 || y > frame.height;
  return { cx, cy, isOutside };
}

const PlanLabel = ({ x, y, children, anchor = "start", fill = "var(--jaw-ink)" }: { x: number; y: number; children: ReactNode; anchor?: "start" | "middle" | "end"; fill?: string }) => (
  <text x={x} y={y} fontSize="12" textAnchor={anchor} fill={fill}>{children}</text>
);

export function Plan({ seen, machine, fit, lastAxis, onJog, width, height }: {
  seen: Observation; machine: AxisCounts; fit: "near" | "whole"; lastAxis: Axis; onJog: Jog | null; width: number; height: number;
}) {
  const frame = frameOf(planWindow(seen, fit), width, height);
  const { stock, frontJaw, backJaw } = seen.boxes;
  const { x, y } = placeOf(seen, machine);
  const { sheet } = seen;
  const { cx, cy, isOutside } = keyCenter(frame, x, y);
  const radius = Math.max(3, frame.scale * (seen.holds === "edgeFinder" ? sheet.tipDiameterMm / 2 : seen.holds === "tool1" ? sheet.tool1DiameterMm / 2 : 1));
  const isFixed = (jaw: "front" | "back") => sheet.vise.fixedJaw === jaw;
  const isNear = fit === "near";
  const arm = 36;
  return (
    <svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} role="group" aria-label={`Plan from above. The spindle axis stands ${isOutside ? "outside the view" : "in the view"}.`}>
      <rect width={width} height={height} fill="var(--well)" />
      {isNear ? null : <Rect frame={frame} u={[seen.travelCounts.x[0] / 1000, 0]} v={[seen.travelCounts.y[0] / 1000, 0]} fill="none" stroke="var(--ink3)" dash="4 4" />}
      <Rect frame={frame} u={[frontJaw.low.x, frontJaw.high.x]} v={[frontJaw.low.y, frontJaw.high.y]} fill="var(--jaw)" />
      <Rect frame={frame} u={[backJaw.low.x, backJaw.high.x]} v={[backJaw.low.y, backJaw.high.y]} fill="var(--jaw)" />
      <Rect frame={frame} u={[stock.low.x, stock.high.x]} v={[stock.low.y, stock.high.y]} fill="var(--stock)" stroke="var(--stock-edge)" part="plan-stock" />
      {seen.isBurrDressed ? null : <Rect frame={frame} u={[stock.low.x, stock.high.x]} v={[stock.low.y, stock.high.y]} fill="none" stroke="var(--contact)" dash="1 5" />}
      {isNear ? (
        <>
          <PlanLabel x={frame.px(frontJaw.low.x) + 6} y={frame.py(frontJaw.low.y) - 6}>{isFixed("front") ? "fixed jaw" : "moving jaw"}</PlanLabel>
          <PlanLabel x={frame.px(backJaw.low.x) + 6} y={frame.py(backJaw.high.y) + 16}>{isFixed("back") ? "fixed jaw" : "moving jaw"}</PlanLabel>
          <PlanLabel x={sheet.edges.x.approach === 1 ? frame.px(stock.high.x) - 8 : frame.px(stock.low.x) + 8} y={sheet.edges.y.approach === 1 ? frame.py(stock.high.y) + 18 : frame.py(stock.low.y) - 8}
            anchor={sheet.edges.x.approach === 1 ? "end" : "start"} fill="var(--ink)">
            {sheet.partName}, blank {sheet.partSizeMm[0]} × {sheet.partSizeMm[1]}
          </PlanLabel>
        </>
      ) : <PlanLabel x={8} y={16} fill="var(--ink2)">dashed: end of travel</PlanLabel>}
      {isOutside ? null : (
        <g>
          {seen.holds === null ? <circle cx={cx} cy={cy} r={12} fill="none" stroke="var(--steel-dark)" strokeDasharray="3 3" /> : null}
          <circle cx={frame.px(x)} cy={frame.py(y)} r={radius} fill="var(--contact-soft)" fillOpacity="0.8" stroke="var(--contact)" strokeWidth="1.5" />
          <path d={`M${frame.px(x) - radius - 4} ${frame.py(y)}h${radius * 2 + 8}M${frame.px(x)} ${frame.py(y) - radius - 4}v${radius * 2 + 8}`} stroke="var(--contact)" />
        </g>
      )}
      {isOutside ? <OutsideMark frame={frame} x={x} y={y} window={planWindow(seen, fit)} /> : null}
      {onJog ? (
        <>
          <AxisKey x={cx - arm - 24} y={cy} keyName="ArrowLeft" label="X−" isActive={lastAxis === "x"} onPress={(ten) => onJog("x", -1, ten)} />
          <AxisKey x={cx + arm + 24} y={cy} keyName="ArrowRight" label="X+" isActive={lastAxis === "x"} onPress={(ten) => onJog("x", 1, ten)} />
          <AxisKey x={cx} y={cy - arm + 4} keyName="ArrowUp" label="Y+" isActive={lastAxis === "y"} onPress={(ten) => onJog("y", 1, ten)} />
          <AxisKey x={cx} y={cy + arm - 4} keyName="ArrowDown" label="Y−" isActive={lastAxis === "y"} onPress={(ten) => onJog("y", -1, ten)} />
        </>
      ) : null}
    </svg>
  );
}

/** Which way and how far the spindle is, when the near view does not reach it. */
function OutsideMark({ frame, x, y, window }: { frame: Frame; x: number; y: number; window: ViewBox }) {
  const far = (value: number, low: number, high: number, minus: string, plus: string) =>
    value < low ? `${Math.round(low - value)} mm ${minus}` : value > high ? `${Math.round(value - high)} mm ${plus}` : null;
  const words = [far(x, window.left, window.right, "left", "right"), far(y, window.bottom, window.top, "in front", "behind")].filter(Boolean).join(", ");
  return (
    <g>
      <rect x={frame.width / 2 - 112} y={frame.height / 2 - 2} width="224" height="40" rx="3" fill="var(--panel)" stroke="var(--contact)" />
      <text x={frame.width / 2} y={frame.height / 2 + 14} textAnchor="middle" fontSize="12" fill="var(--ink)">spindle is outside this view:</text>
      <text x={frame.width / 2} y={frame.height / 2 + 30} textAnchor="middle" fontSize="12" fontWeight="700" fill="var(--ink)">{words}</text>
    </g>
  );
}

interface Silhouette { from: number; to: number; radius: number; fill: string }

/** The outline of what the spindle holds, heights above the tip. */
function silhouette(seen: Observation): Silhouette[] {
  const length = seen.heldLengthMm;
  const holder = (from: number): Silhouette => ({ from, to: length, radius: 20, fill: "var(--steel)" });
  const nose: Silhouette = { from: length, to: length + 120, radius: 30, fill: "var(--steel-dark)" };
  switch (seen.holds) {
    case "edgeFinder": return [
      { from: 0, to: 10, radius: seen.sheet.tipDiameterMm / 2, fill: "var(--contact)" }, { from: 10, to: 55, radius: 10, fill: "var(--steel)" }, holder(55), nose,
    ];
    case "tool1": return [{ from: 0, to: 32, radius: seen.sheet.tool1DiameterMm / 2, fill: "var(--contact)" }, holder(32), nose];
    case "pointedTool": return [{ from: 4, to: 45, radius: 4, fill: "var(--contact)" }, holder(45), nose];
    case null: return [nose];
  }
}

export function Elevation({ seen, machine, fit, lastAxis, onJog, width, height }: {
  seen: Observation; machine: AxisCounts; fit: "near" | "whole"; lastAxis: Axis; onJog: Jog | null; width: number; height: number;
}) {
  const clip = useId();
  const { sight, sheet } = seen;
  const { stock, frontJaw, backJaw, table } = seen.boxes;
  const { x, y, tipZ } = placeOf(seen, machine);
  const u = (px: number, py: number) => across(sight, px, py);
  const span = (low: { x: number; y: number }, high: { x: number; y: number }): [number, number] => [u(low.x, low.y), u(high.x, high.y)];
  const isAlongX = sight === "front" || sight === "back";
  const plan = planWindow(seen, fit);
  const halfWidth = (plan.right - plan.left) / 2;
  const middle = isAlongX ? u((plan.left + plan.right) / 2, 0) : u(0, (plan.bottom + plan.top) / 2);
  const top = fit === "near" ? stock.high.z + 62 : 20;
  const bottom = fit === "near" ? stock.low.z - 26 : table.high.z - 20;
  const frame = frameOf({ left: middle - halfWidth, right: middle + halfWidth, bottom, top }, width, height);
  const at = u(x, y);
  const { cx } = keyCenter(frame, at, tipZ);
  const shape = silhouette(seen);
  const toolDepth = depth(sight, x, y);
  const jaws = [frontJaw, backJaw].map((jaw) => ({ jaw, far: depth(sight, (jaw.low.x + jaw.high.x) / 2, (jaw.low.y + jaw.high.y) / 2) }))
    .sort((a, b) => b.far - a.far);
  const [farJaw, nearJaw] = jaws;
  const drawJaw = (jaw: typeof frontJaw) => <Rect frame={frame} u={span(jaw.low, jaw.high)} v={[jaw.low.z, jaw.high.z]} fill="var(--jaw)" stroke="var(--steel-dark)" />;
  const stockDepth = depth(sight, (stock.low.x + stock.high.x) / 2, (stock.low.y + stock.high.y) / 2);
  const isToolFar = toolDepth > stockDepth + 1;
  const [stockU0, stockU1] = span(stock.low, stock.high).sort((a, b) => a - b);
  const parallel = 12;
  const tool = (
    <g data-part="tool" data-length={seen.heldLengthMm}>
      {shape.map(({ from, to, radius, fill }) => (
        <Rect key={from} frame={frame} u={[at - radius, at + radius]} v={[tipZ + from, tipZ + to]} fill={fill} stroke="var(--ink2)" />
      ))}
      {seen.holds === "pointedTool" ? (
        <path d={`M${frame.px(at)} ${frame.py(tipZ)}L${frame.px(at - 4)} ${frame.py(tipZ + 5)}H${frame.px(at + 4)}Z`} fill="var(--contact)" />
      ) : null}
      <path d={`M${frame.px(at)} ${frame.py(tipZ) + 8}V0`} stroke="var(--contact)" strokeDasharray="8 3 2 3" />
    </g>
  );
  const isAbove = frame.py(tipZ) < -4;
  const keysX = clamp(cx + 76, 60, width - 34);
  return (
    <svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} role="group" aria-label={`Elevation seen from the ${sight}.`}>
      <clipPath id={clip}><rect width={width} height={height} /></clipPath>
      <rect width={width} height={height} fill="var(--well)" />
      <g clipPath={`url(#${clip})`}>
        <Rect frame={frame} u={[middle - 2000, middle + 2000]} v={[table.low.z, table.high.z]} fill="var(--steel)" />
        {farJaw ? drawJaw(farJaw.jaw) : null}
        {isToolFar ? tool : null}
        {[stockU0 + 10, stockU1 - 10 - parallel].map((left) => (
          <Rect key={left} frame={frame} u={[left, left + parallel]} v={[frontJaw.low.z, stock.low.z]} fill="var(--steel)" stroke="var(--steel-dark)" />
        ))}
        <Rect frame={frame} u={[stockU0, stockU1]} v={[stock.low.z, stock.high.z]} fill="var(--stock)" stroke="var(--stock-edge)" part="elevation-stock" />
        {sheet.facingAllowanceMm > 0 ? (
          <Rect frame={frame} u={[stockU0, stockU1]} v={[stock.high.z - sheet.facingAllowanceMm, stock.high.z]} fill="var(--stock-edge)" />
        ) : null}
        {nearJaw ? drawJaw(nearJaw.jaw) : null}
        {isToolFar ? null : tool}
      </g>
      <text x={8} y={16} fontSize="12" fill="var(--ink2)" stroke="var(--well)" strokeWidth="4" paintOrder="stroke">{seen.isDoorOpen ? "door open" : "door shut"}{sheet.facingAllowanceMm > 0 ? " · dark skin: still to be faced" : ""}</text>
      {isAbove ? <text x={clamp(cx, 90, width - 90)} y={34} textAnchor="middle" fontSize="12" fill="var(--contact)">tip is {Math.round(tipZ - top)} mm above this view</text> : null}
      {onJog ? (
        <>
          <AxisKey x={keysX} y={60} keyName="PageUp" label="Z+" isActive={lastAxis === "z"} onPress={(ten) => onJog("z", 1, ten)} />
          <AxisKey x={keysX} y={88} keyName="PageDown" label="Z−" isActive={lastAxis === "z"} onPress={(ten) => onJog("z", -1, ten)} />
        </>
      ) : null}
    </svg>
  );
}

export const sideWords: Record<Side, string> = { front: "from the front", back: "from the back", left: "from the left", right: "from the right" };
