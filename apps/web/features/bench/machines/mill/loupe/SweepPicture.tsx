import type { MillSeen } from "@probe-lane/core/bench";
import { MID } from "./lens";

const PLACES = [
  ["at0", 1, 0],
  ["at90", 0, -1],
  ["at180", -1, 0],
  ["at270", 0, 1],
] as const;

/** The bore or boss from above, with what the indicator read at its four places the last time it was carried round. */
export function SweepPicture({ seen }: { seen: MillSeen }) {
  const last = seen.readings.findLast(({ instrument }) => instrument === "indicator");
  const isBoss = seen.sheet.feature?.kind === "boss";
  return (
    <g>
      <title>Last readings in thousandths</title>
      <circle cx={MID} cy={MID} r="96" fill={isBoss ? "var(--field)" : "var(--stock)"} />
      <circle
        cx={MID}
        cy={MID}
        r="58"
        fill={isBoss ? "var(--stock)" : "var(--well)"}
        stroke="var(--stock-edge)"
        strokeWidth="2"
      />
      <path d={`M${MID - 10} ${MID}h20M${MID} ${MID - 10}v20`} stroke="var(--contact)" strokeWidth="1.5" />
      {PLACES.map(([name, sx, sy]) => {
        const value = last?.values[name];
        return (
          <g key={name}>
            <circle cx={MID + sx * 58} cy={MID + sy * 58} r="5" fill="var(--contact)" />
            <text
              x={MID + sx * 30}
              y={MID + sy * 38 + 5}
              textAnchor="middle"
              fontSize="13"
              fontWeight="700"
              className="figures"
              fill="var(--ink)"
            >
              {value === undefined
                ? "–"
                : `${value > 0 ? "+" : value < 0 ? "−" : ""}${Math.round(Math.abs(value) * 1000)}`}
            </text>
          </g>
        );
      })}
    </g>
  );
}
