import type { Axis } from "@probe-lane/core/registers";
import type { JogKey } from "./keys";

/** A rectangle of a view, mm: across and up. */
export interface ViewBox {
  left: number;
  right: number;
  bottom: number;
  top: number;
}

export type Jog = (axis: Axis, direction: 1 | -1, isTen: boolean) => void;
export interface Frame {
  width: number;
  height: number;
  scale: number;
  px(u: number): number;
  py(v: number): number;
}

/** `isUpsideDown` draws what grows upward downward: a side that its operator stands at. */
export function frameOf(window: ViewBox, width: number, height: number, isUpsideDown = false): Frame {
  const scale = Math.min(width / (window.right - window.left), height / (window.top - window.bottom));
  const [midU, midV] = [(window.left + window.right) / 2, (window.bottom + window.top) / 2];
  return {
    width,
    height,
    scale,
    px: (u) => width / 2 + (u - midU) * scale,
    py: (v) => height / 2 - (isUpsideDown ? midV - v : v - midV) * scale,
  };
}

export function Rect({
  frame,
  u,
  v,
  fill,
  stroke = "none",
  dash,
  part,
}: {
  frame: Frame;
  u: readonly [number, number];
  v: readonly [number, number];
  fill: string;
  stroke?: string;
  dash?: string;
  /** Names the rectangle and its places in mm, for who measures the drawing. */
  part?: string;
}) {
  const [left, right] = [Math.min(frame.px(u[0]), frame.px(u[1])), Math.max(frame.px(u[0]), frame.px(u[1]))];
  const [top, bottom] = [Math.min(frame.py(v[0]), frame.py(v[1])), Math.max(frame.py(v[0]), frame.py(v[1]))];
  const named = part
    ? {
        "data-part": part,
        "data-u0": Math.min(...u),
        "data-u1": Math.max(...u),
        "data-v0": Math.min(...v),
        "data-v1": Math.max(...v),
      }
    : {};
  return (
    <rect
      x={left}
      y={top}
      width={right - left}
      height={bottom - top}
      fill={fill}
      stroke={stroke}
      strokeDasharray={dash}
      {...named}
    />
  );
}

/** A key that stands in the drawing at the thing it moves. */
export function AxisKey({
  x,
  y,
  jogKey: { cap, words },
  label,
  isActive,
  onPress,
}: {
  x: number;
  y: number;
  jogKey: JogKey;
  label: string;
  isActive: boolean;
  onPress(isTen: boolean): void;
}) {
  const width = cap.length > 1 ? 64 : 40;
  return (
    <g
      role="button"
      tabIndex={-1}
      aria-label={words}
      transform={`translate(${x - width / 2} ${y - 11})`}
      style={{ cursor: "pointer" }}
      onPointerDown={(event) => {
        event.preventDefault();
        onPress(event.shiftKey);
      }}
    >
      <rect
        width={width}
        height="22"
        rx="3"
        fill="var(--panel)"
        stroke={isActive ? "var(--contact)" : "var(--ink3)"}
        strokeWidth={isActive ? 2 : 1}
      />
      <text x={width / 2} y="15.5" textAnchor="middle" fontSize="12" fill={isActive ? "var(--contact)" : "var(--ink)"}>
        <tspan fontWeight="700">{label}</tspan> <tspan className="figures">{cap}</tspan>
      </text>
    </g>
  );
}

export const clamp = (value: number, low: number, high: number): number => Math.min(high, Math.max(low, value));

/** Keys round the spindle, pulled inside the frame when the spindle is outside of it. */
export function keyCenter(frame: Frame, u: number, v: number): { cx: number; cy: number; isOutside: boolean } {
  const [x, y] = [frame.px(u), frame.py(v)];
  const cx = clamp(x, 90, frame.width - 90);
  const cy = clamp(y, 46, frame.height - 46);
  const isOutside = x < 0 || x > frame.width || y < 0 || y > frame.height;
  return { cx, cy, isOutside };
}
