import type { ExercisePatternsView } from "@probe-lane/contract";
import { gateWords } from "@probe-lane/core/words";
import { scaleLinear } from "d3-scale";

const MINUTE_MS = 60_000;
const minutes = (ms: number): string =>
  ms < MINUTE_MS ? `${Math.round(ms / 1000)} s` : `${(ms / MINUTE_MS).toFixed(1)} min`;

/** How long each gate takes at work: from the quickest lane to the slowest, and the middle one. */
export function Pace({ pace }: { pace: ExercisePatternsView["pace"] }) {
  const at = scaleLinear()
    .domain([0, Math.max(1, ...pace.map(({ mostMs }) => mostMs))])
    .range([0, 100]);
  return (
    <table className="w-full">
      <caption className="sr-only">Time at work for each gate</caption>
      <thead>
        <tr className="text-left text-xs text-ink2">
          <th className="px-4 py-1 font-normal">gate</th>
          <th className="font-normal">quickest to slowest lane</th>
          <th className="px-4 text-right font-normal">middle</th>
        </tr>
      </thead>
      <tbody>
        {pace.map(({ gate, kind, tool, lanes, leastMs, middleMs, mostMs }) => (
          <tr key={gate} className="border-t border-rule-soft">
            <th scope="row" className="px-4 py-1 text-left font-normal whitespace-nowrap">
              {gateWords({ kind, tool })}
            </th>
            <td className="w-full">
              <span className="sr-only">
                {minutes(leastMs)} to {minutes(mostMs)}, {lanes} lanes
              </span>
              <span
                aria-hidden
                className="relative block h-4"
                title={`${minutes(leastMs)} to ${minutes(mostMs)}, ${lanes} lanes`}
              >
                <span
                  className="absolute top-1.5 h-1 min-w-px bg-ink3"
                  style={{ left: `${at(leastMs)}%`, width: `${at(mostMs) - at(leastMs)}%` }}
                />
                <span className="absolute top-0 h-4 w-1 bg-ink" style={{ left: `calc(${at(middleMs)}% - 2px)` }} />
              </span>
            </td>
            <td className="figures px-4 text-right whitespace-nowrap">{minutes(middleMs)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
