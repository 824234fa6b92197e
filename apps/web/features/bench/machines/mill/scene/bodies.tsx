import type { Surface } from "@probe-lane/core/exercises";
import { turned, type Solid } from "@probe-lane/core/geometry";
import type { Frame } from "../../../lane/drawing";

interface Fill {
  readonly fill: string;
  readonly stroke: string;
}
/** Steel is told from steel by its outline, which stands out from every fill by 3 : 1 in both looks. */
const FILLS: Record<string, Fill> = {
  table: { fill: "var(--steel)", stroke: "var(--ink)" },
  stock: { fill: "var(--stock)", stroke: "var(--ink)" },
  boss: { fill: "var(--stock)", stroke: "var(--ink)" },
  frontJaw: { fill: "var(--jaw)", stroke: "var(--ink)" },
  backJaw: { fill: "var(--jaw)", stroke: "var(--ink)" },
  stop: { fill: "var(--steel)", stroke: "var(--ink)" },
  plate: { fill: "var(--jaw)", stroke: "var(--ink)" },
  setter: { fill: "var(--steel)", stroke: "var(--ink)" },
};

const GAUGE: Fill = { fill: "var(--steel)", stroke: "var(--expected)" };
/** How a body is filled; a gauge that was stood on another has the line of what is expected. */
export const fillOf = (name: Surface): Fill => FILLS[name] ?? GAUGE;

/** Hatching of a cut face; every body has an angle and a pitch of its own. */
export const Hatch = ({ id, angleDeg, pitch }: { id: string; angleDeg: number; pitch: number }) => (
  <pattern id={id} width={pitch} height={pitch} patternUnits="userSpaceOnUse" patternTransform={`rotate(${angleDeg})`}>
    <path d={`M0 0V${pitch}`} stroke="var(--ink2)" strokeWidth="1" opacity="0.55" />
  </pattern>
);

/** A ragged line from a to b, px: a burr that was not dressed. */
export function ragged([ax, ay]: readonly [number, number], [bx, by]: readonly [number, number], out: number): string {
  const length = Math.hypot(bx - ax, by - ay);
  const teeth = Math.max(2, Math.round(length / 7));
  const [nx, ny] = [((by - ay) / length) * out, (-(bx - ax) / length) * out];
  const at = Array.from({ length: teeth * 2 + 1 }, (_, n) => {
    const share = n / (teeth * 2);
    // teeth are not alike, and always the same
    const height = n % 2 === 0 ? 0 : 0.55 + 0.45 * Math.abs(Math.sin(n * 2.3));
    return `${(ax + (bx - ax) * share + nx * height).toFixed(1)} ${(ay + (by - ay) * share + ny * height).toFixed(1)}`;
  });
  return `M${at.join("L")}`;
}

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
export function PlanSolid({ frame, solid, look }: { frame: Frame; solid: Solid; look: Fill }) {
  const { plan, hole } = solid;
  return (
    <>
      {plan.kind === "disc" ? (
        <circle
          cx={frame.px(plan.x)}
          cy={frame.py(plan.y)}
          r={plan.radiusMm * frame.scale}
          fill={look.fill}
          stroke={look.stroke}
        />
      ) : (
        <polygon fill={look.fill} stroke={look.stroke} points={corners(plan, plan.angleDeg, frame)} />
      )}
      {hole?.kind === "rect" && plan.kind === "rect" ? (
        <polygon fill="var(--well)" stroke="var(--ink)" points={corners(hole, plan.angleDeg, frame)} />
      ) : null}
      {hole?.kind === "round" ? (
        <g stroke="var(--ink)" fill="none">
          <circle cx={frame.px(hole.x)} cy={frame.py(hole.y)} r={hole.radiusMm * frame.scale} fill="var(--well)" />
          <path
            d={`M${frame.px(hole.x - hole.radiusMm) - 6} ${frame.py(hole.y)}H${frame.px(hole.x + hole.radiusMm) + 6}M${frame.px(hole.x)} ${frame.py(hole.y - hole.radiusMm) + 6}V${frame.py(hole.y + hole.radiusMm) - 6}`}
            strokeDasharray="10 3 2 3"
            strokeWidth="0.8"
          />
        </g>
      ) : null}
    </>
  );
}

/** Words on the drawing that can be read over any line. */
export function Note({
  x,
  y,
  children,
  anchor = "start",
  fill = "var(--ink)",
  halo = "var(--well)",
  isBold = false,
}: {
  x: number;
  y: number;
  children: React.ReactNode;
  anchor?: "start" | "middle" | "end";
  fill?: string;
  halo?: string;
  isBold?: boolean;
}) {
  return (
    <text
      x={x}
      y={y}
      fontSize="12"
      fontWeight={isBold ? 700 : 400}
      textAnchor={anchor}
      fill={fill}
      stroke={halo}
      strokeWidth="3.5"
      strokeLinejoin="round"
      paintOrder="stroke"
    >
      {children}
    </text>
  );
}
