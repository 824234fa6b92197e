import type { ExercisePatternsView, PatternLane } from "@probe-lane/contract";
import { scales, showLength } from "@probe-lane/core/units";
import { targetWords } from "@probe-lane/core/words";
import { Link } from "react-router";
import { DOT_PX, spreadView } from "./spreadView";

type Spread = ExercisePatternsView["patterns"]["values"][number];

const WIDTH_PX = 940;
const ROW_PX = 15;
const TICKS_PX = 18;

/** One value of an exercise over all lanes of a class; a dot leads to the ruling of its lane. */
export function ValueSpread({
  spread,
  lanes,
  unit,
}: {
  spread: Spread;
  lanes: readonly PatternLane[];
  unit: "mm" | "inch";
}) {
  const { ticks, zero, band, dots, lines, rows, levels } = spreadView(spread, WIDTH_PX);
  const top = rows * ROW_PX + 4;
  const base = top + Math.max(3, levels) * DOT_PX + 2;
  const isTurn = spread.target.unit === "degree";
  const off = (mm: number): string => {
    const size = isTurn
      ? `${Math.abs(mm).toFixed(3)}°`
      : `${showLength(Math.abs(mm), scales[unit])} ${unit === "mm" ? "mm" : "in"}`;
    return `${size} ${mm < 0 ? "low" : "high"}`;
  };
  const right = dots.filter(({ isRight }) => isRight).length;
  const name = targetWords(spread.target);
  return (
    <section aria-label={name} className="flex items-center gap-4 border-t border-rule-soft px-4 py-2 first:border-t-0">
      <div className="w-40 shrink-0">
        <h3 className="font-bold">{name}</h3>
        <p className="text-xs text-ink2">
          <b className="figures text-base text-ink">
            {right}/{dots.length}
          </b>{" "}
          right, ±
          {isTurn
            ? `${spread.toleranceMm}°`
            : `${showLength(spread.toleranceMm, scales[unit])} ${unit === "mm" ? "mm" : "in"}`}
        </p>
      </div>
      <svg
        viewBox={`0 0 ${WIDTH_PX} ${base + TICKS_PX}`}
        className="min-w-0 flex-1"
        role="group"
        aria-label={`Lanes by how far ${name} is off`}
      >
        <rect x={band[0]} y={top} width={band[1] - band[0]} height={base - top} className="fill-expected-soft" />
        <line x1={zero} x2={zero} y1={top} y2={base} className="stroke-expected" strokeWidth={1} />
        {lines.map(({ id, x, label, row, anchor }) => (
          <g key={id}>
            <line
              x1={x}
              x2={x}
              y1={row === null ? top : row * ROW_PX + 13}
              y2={base}
              className="stroke-contact"
              strokeDasharray="3 3"
            />
            {row === null ? null : (
              <text x={x} y={row * ROW_PX + 11} textAnchor={anchor} className="fill-contact text-[11.5px] font-bold">
                {label}
              </text>
            )}
          </g>
        ))}
        <line x1={0} x2={WIDTH_PX} y1={base} y2={base} className="stroke-ink2" />
        {ticks.map(({ x, label }) => (
          <g key={label}>
            <line x1={x} x2={x} y1={base} y2={base + 4} className="stroke-ink2" />
            <text x={x} y={base + 15} textAnchor="middle" className="figures fill-ink2 text-[11px]">
              {label}
            </text>
          </g>
        ))}
        {dots.map(({ lane, closureMm, isRight, x, level }) => {
          const known = lanes.find(({ href }) => href === lane);
          const words = `${known?.studentName ?? ""}, attempt ${known?.attempt ?? ""}: ${off(closureMm)}`;
          return (
            <Link key={lane} to={lane} aria-label={words}>
              <circle
                cx={x}
                cy={base - DOT_PX / 2 - level * DOT_PX - 1}
                r={DOT_PX / 2 - 0.75}
                strokeWidth={1.5}
                className={`hover:opacity-60 ${isRight ? "fill-ink stroke-ink" : "fill-panel stroke-contact"}`}
              >
                <title>{words}</title>
              </circle>
            </Link>
          );
        })}
      </svg>
    </section>
  );
}
