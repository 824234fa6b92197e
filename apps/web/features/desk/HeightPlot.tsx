import { scaleLinear, scaleSqrt } from "d3-scale";
import { scales, showLength, type LengthUnit } from "@probe-lane/core/units";
import type { HeightView } from "./turningDesk";

const SIZE = { width: 620, height: 250, left: 62, right: 14, top: 24, bottom: 38 } as const;
const INCH_MM = 25.4;

/** By how much every commanded diameter comes out larger when the tool is off center; the asked one marked. */
export function HeightPlot({ view, unit }: { view: HeightView; unit: LengthUnit }) {
  const perUnit = unit === "mm" ? 1 : INCH_MM;
  const largest = view.points.at(-1)?.commandedMm ?? 1;
  const most = Math.max(...view.points.map(({ errorMm }) => errorMm), 1e-6);
  // small diameters are what this is about: a square-root scale gives them room, and the axis says so
  const x = scaleSqrt()
    .domain([0, largest / perUnit])
    .range([SIZE.left, SIZE.width - SIZE.right]);
  const y = scaleLinear()
    .domain([0, most / perUnit])
    .range([SIZE.height - SIZE.bottom, SIZE.top])
    .nice();
  const path = view.points
    .map(
      ({ commandedMm, errorMm }, n) =>
        `${n === 0 ? "M" : "L"}${x(commandedMm / perUnit).toFixed(1)} ${y(errorMm / perUnit).toFixed(1)}`,
    )
    .join("");
  const at = view.at;
  return (
    <svg
      viewBox={`0 0 ${SIZE.width} ${SIZE.height}`}
      className="w-full max-w-3xl"
      role="img"
      aria-label={`How much larger each diameter comes out: most in the middle, ${showLength(most, scales[unit])}, nothing at the diameter where it was set`}
    >
      {y.ticks(5).map((tick) => (
        <g key={tick}>
          <path d={`M${SIZE.left} ${y(tick)}H${SIZE.width - SIZE.right}`} stroke="var(--rule)" />
          <text x={SIZE.left - 6} y={y(tick) + 4} textAnchor="end" fontSize="12" className="figures" fill="var(--ink2)">
            {tick.toFixed(unit === "mm" ? 3 : 4)}
          </text>
        </g>
      ))}
      {x
        .ticks(12)
        .filter((tick, n, all) => n === 0 || x(tick) - x(all[n - 1] ?? 0) > 26)
        .map((tick) => (
          <text
            key={tick}
            x={x(tick)}
            y={SIZE.height - SIZE.bottom + 16}
            textAnchor="middle"
            fontSize="12"
            className="figures"
            fill="var(--ink2)"
          >
            {tick}
          </text>
        ))}
      <text x={SIZE.left} y={10} fontSize="12" fill="var(--ink2)">
        comes out larger by, {unit === "mm" ? "mm" : "in"}
      </text>
      <text x={(SIZE.left + SIZE.width) / 2} y={SIZE.height - 6} textAnchor="middle" fontSize="12" fill="var(--ink2)">
        diameter commanded, {unit === "mm" ? "mm" : "in"}; small ones drawn wider
      </text>
      <path d={`M${SIZE.left} ${y(0)}H${SIZE.width - SIZE.right}`} stroke="var(--ink)" />
      <path d={path} fill="none" stroke="var(--contact)" strokeWidth="2.5" />
      {at ? (
        <g>
          <path
            d={`M${x(at.commandedMm / perUnit)} ${y(0)}V${y(at.errorMm / perUnit)}H${SIZE.left}`}
            fill="none"
            stroke="var(--expected)"
            strokeDasharray="4 3"
          />
          <circle cx={x(at.commandedMm / perUnit)} cy={y(at.errorMm / perUnit)} r="5" fill="var(--expected)" />
        </g>
      ) : null}
    </svg>
  );
}
