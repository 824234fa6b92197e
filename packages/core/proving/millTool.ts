import { type Cylinder } from "./solids";

/** A milling tool as it is: upright cylinders from the tip up. mm. */
export interface MillTool {
  readonly length: number;
  readonly diameter: number;
  readonly shape: "flat" | "ball" | "drill";
  /** Of a drill: the whole angle of its point, degrees. */
  readonly pointAngle?: number;
  readonly fluteLength: number;
  readonly shankDiameter: number;
  readonly holder: { readonly diameter: number; readonly length: number };
  /** Of the spindle nose over it, where that is to be kept clear too. */
  readonly noseDiameter?: number;
}

/** What of a tool may touch nothing that it does not cut: taken this much smaller, so that it fits its own slot. */
export const SLACK_MM = 0.1;

export interface MillBodies {
  /** Cutting part, full size: underside over the tip at a distance from its axis, null beyond its radius. */
  readonly radius: number;
  readonly fluteLength: number;
  underside(distance: number): number;
  /** Cutting part, smaller by the slack, in slices where its end is no plane. */
  readonly edges: readonly Cylinder[];
  readonly shank: Cylinder;
  readonly holder: Cylinder;
  readonly nose: Cylinder | null;
}

const SLICES = 12;
const NOSE_HIGH_MM = 200;
const DEFAULT_POINT_DEG = 118;

/** How high the underside of a tool stands over its tip, by the distance from its axis. */
export function undersideOf(tool: Pick<MillTool, "diameter" | "shape" | "pointAngle">): (distance: number) => number {
  const radius = tool.diameter / 2;
  if (tool.shape === "ball")
    return (distance) => radius - Math.sqrt(Math.max(0, radius * radius - distance * distance));
  if (tool.shape === "flat") return () => 0;
  const perRadius = 1 / Math.tan((((tool.pointAngle ?? DEFAULT_POINT_DEG) / 2) * Math.PI) / 180);
  return (distance) => distance * perRadius;
}

/** The end of a tool as a stack of flat slices, each as wide as the end is in its middle. */
function slices(tool: MillTool, underside: (distance: number) => number): Cylinder[] {
  const radius = tool.diameter / 2;
  const whole = { radius: radius - SLACK_MM, low: SLACK_MM, high: tool.fluteLength };
  if (tool.shape === "flat") return [whole];
  const rings = Array.from({ length: SLICES }, (_, i) => {
    const [inner, outer] = [(radius * i) / SLICES, (radius * (i + 1)) / SLICES];
    return {
      radius: Math.max(0.01, (inner + outer) / 2 - SLACK_MM),
      low: underside(inner) + SLACK_MM,
      high: underside(outer) + SLACK_MM,
    };
  });
  return [...rings, { ...whole, low: Math.min(underside(radius) + SLACK_MM, tool.fluteLength) }];
}

export function bodiesOf(tool: MillTool): MillBodies {
  const underside = undersideOf(tool);
  const holderFrom = tool.length - tool.holder.length;
  return {
    radius: tool.diameter / 2,
    fluteLength: tool.fluteLength,
    underside,
    edges: slices(tool, underside),
    shank: { radius: tool.shankDiameter / 2 - SLACK_MM, low: tool.fluteLength + SLACK_MM, high: holderFrom },
    nose:
      tool.noseDiameter === undefined
        ? null
        : { radius: tool.noseDiameter / 2 - SLACK_MM, low: tool.length + SLACK_MM, high: tool.length + NOSE_HIGH_MM },
    holder: { radius: tool.holder.diameter / 2 - SLACK_MM, low: holderFrom + SLACK_MM, high: tool.length },
  };
}
