import type { RegisterRuling } from "@probe-lane/core/grading";
import { formatUm, scales, showLength } from "@probe-lane/core/units";
import { targetWords } from "@probe-lane/core/words";
import { axisView } from "./axisView";

const TOP = 30;
/** Half as wide as a figure of the label is drawn, px. */
const HALF_FIGURE = 4.2;

/**
 * One value on its axis: tolerance band, what the method can hold, where the value fell, where known mistakes would put
 * it.
 */
export function ValueAxis({ value, width }: { value: RegisterRuling; width: number }) {
  const view = axisView(value, width);
  const height = TOP + 30 + view.rows * 15 + 4;
  const off =
    Math.abs(value.closureMm) < 1
      ? `${formatUm(value.closureMm)} µm`
      : `${value.closureMm > 0 ? "+" : ""}${showLength(value.closureMm, scales.mm)} mm`;
  const half = off.length * HALF_FIGURE;
  const textX = Math.min(width - half, Math.max(half, view.value));
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={`${targetWords(value.target)}: off by ${off}; tolerance ${value.toleranceMm} mm.`}
    >
      <rect
        x={view.band[0]}
        y={TOP - 12}
        width={view.band[1] - view.band[0]}
        height="24"
        fill="var(--expected-soft)"
        stroke="var(--expected)"
        strokeWidth="0.75"
      />
      <path d={`M0 ${TOP}H${width}`} stroke="var(--ink3)" strokeWidth="1.5" />
      {view.ticks.map(({ x, label }) => (
        <g key={label}>
          <path d={`M${x} ${TOP}v5`} stroke="var(--ink3)" />
          <text x={x} y={TOP + 25} textAnchor="middle" fontSize="12" className="figures" fill="var(--ink2)">
            {label}
          </text>
        </g>
      ))}
      {view.method.map((x) => (
        <path key={x} d={`M${x} ${TOP - 8}v16`} stroke="var(--expected)" strokeWidth="1.5" />
      ))}
      <path d={`M${view.zero} ${TOP - 14}v28`} stroke="var(--expected)" strokeWidth="2.5" />
      {view.marks.map(({ key, x, label, row, anchor, isCause }) => (
        <g key={key}>
          <path
            d={`M${x} ${TOP - 7}V${label ? TOP + 30 + row * 15 : TOP + 10}`}
            stroke={isCause ? "var(--contact)" : "var(--ink3)"}
            strokeDasharray="2 3"
          />
          {label ? (
            <text
              x={x}
              y={TOP + 42 + row * 15}
              textAnchor={anchor}
              fontSize="12"
              fontWeight={isCause ? 700 : 400}
              fill={isCause ? "var(--contact)" : "var(--ink2)"}
            >
              {label}
            </text>
          ) : null}
        </g>
      ))}
      <path d={`M${view.value} ${TOP - 1}l-7-11h14z`} fill="var(--contact)" />
      <text
        x={textX}
        y={TOP - 16}
        textAnchor="middle"
        fontSize="13"
        fontWeight="700"
        className="figures"
        fill="var(--contact)"
      >
        {off}
      </text>
    </svg>
  );
}
