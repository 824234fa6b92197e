import type { Axis } from "@probe-lane/core/registers";
import { scaleFor, type Pads, type ViewBox } from "./camera";

export type Jog = (axis: Axis, direction: 1 | -1, isTen: boolean, isRepeat: boolean) => void;
export interface Frame {
  width: number;
  height: number;
  scale: number;
  px(u: number): number;
  py(v: number): number;
}

const NO_PADS: Pads = { left: 0, right: 0, top: 0, bottom: 0 };

/**
 * A window drawn in the middle of what the pads leave free. `isUpsideDown` draws what grows upward downward: a side
 * that its operator stands at. Two views share a scale, px for each mm, where it is given.
 */
export function frameOf(
  window: ViewBox,
  width: number,
  height: number,
  {
    isUpsideDown = false,
    pads = NO_PADS,
    scale = scaleFor(window, width, height, pads),
  }: { isUpsideDown?: boolean; pads?: Pads; scale?: number } = {},
): Frame {
  const [midU, midV] = [(window.left + window.right) / 2, (window.bottom + window.top) / 2];
  const [midX, midY] = [(pads.left + width - pads.right) / 2, (pads.top + height - pads.bottom) / 2];
  return {
    width,
    height,
    scale,
    px: (u) => midX + (u - midU) * scale,
    py: (v) => midY - (isUpsideDown ? midV - v : v - midV) * scale,
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

export const clamp = (value: number, low: number, high: number): number => Math.min(high, Math.max(low, value));
