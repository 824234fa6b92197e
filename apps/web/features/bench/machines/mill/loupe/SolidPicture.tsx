import type { MillSeen } from "@probe-lane/core/bench";
import { toolNumber } from "@probe-lane/core/instruments";
import type { AxisCounts } from "@probe-lane/core/registers";
import { daylight } from "../view";
import { MID, SIZE } from "./lens";

const PAPER_GAP = { slides: 14, drags: 7, held: 5, pinched: 3, torn: 0 } as const;

/** The tip of a tool, of the pointed tool, or the bare nose, in outline. */
function Tip({ seen, tipY }: { seen: MillSeen; tipY: number }) {
  const kind = seen.sheet.tools.find(({ number }) => number === toolNumber(seen.holds))?.kind;
  const look = { fill: "var(--contact-soft)", stroke: "var(--contact)", strokeWidth: 2 };
  if (seen.holds === null)
    return (
      <rect
        x={MID - 70}
        y={tipY - 200}
        width="140"
        height="200"
        fill="var(--steel)"
        stroke="var(--steel-dark)"
        strokeWidth="2"
      />
    );
  if (seen.holds === "pointedTool") return <path d={`M${MID} ${tipY}l-22-30v-200h44v200z`} {...look} />;
  switch (kind) {
    case "drill":
      return <path d={`M${MID} ${tipY}l-30-18v-200h60v200z`} {...look} />;
    case "spotDrill":
      return <path d={`M${MID} ${tipY}l-32-32v-200h64v200z`} {...look} />;
    case "faceMill":
      return (
        <g>
          <rect x={MID - 80} y={tipY - 130} width="160" height="118" fill="var(--steel)" stroke="var(--steel-dark)" />
          {[-1, 1].map((side) => (
            <rect key={side} x={side === 1 ? MID + 56 : MID - 84} y={tipY - 30} width="28" height="30" {...look} />
          ))}
        </g>
      );
    case "endMill":
    case undefined:
      return <rect x={MID - 34} y={tipY - 200} width="68" height="200" {...look} />;
  }
}

/**
 * What stands between tip and surface: paper that is tugged, a block that goes or does not, a gauge with its lamp, the
 * setter's plunger.
 */
function InGap({ seen, floor }: { seen: MillSeen; floor: number }) {
  const { paper, block, lamp, lastTry } = seen;
  if (paper) {
    const isFree = paper.feel === "slides" || paper.feel === "drags";
    return (
      <g className={isFree ? "tugging" : undefined}>
        <rect x="22" y={floor - 5} width="150" height="4" fill="var(--field)" stroke="var(--ink)" />
        {isFree ? (
          <path d={`M174 ${floor - 3}h14m-5-4l5 4-5 4`} stroke="var(--ink)" fill="none" />
        ) : (
          <path d={`M172 ${floor - 3}l8-8m-8 8l8 5`} stroke="var(--ink)" fill="none" />
        )}
      </g>
    );
  }
  if (block)
    return (
      <rect
        x={MID - 26}
        y={floor - 30}
        width="52"
        height="30"
        fill="var(--expected-soft)"
        stroke="var(--expected)"
        strokeWidth="2"
      />
    );
  if (lastTry && !lastTry.goes && lastTry.machineZ === seen.machine.z) {
    return (
      <g>
        <rect
          x="136"
          y={floor - 30}
          width="52"
          height="30"
          fill="var(--expected-soft)"
          stroke="var(--expected)"
          strokeWidth="2"
        />
        <path d={`M${MID + 4} ${floor - 20}l14 12m0-12l-14 12`} stroke="var(--contact)" strokeWidth="3" />
      </g>
    );
  }
  if (lamp) {
    return (
      <g>
        <rect
          x={MID - 36}
          y={floor - 40}
          width="72"
          height="40"
          fill="var(--expected-soft)"
          stroke="var(--expected)"
          strokeWidth="2"
        />
        <rect x={MID - 10} y={floor - (lamp.isLit ? 42 : 48)} width="20" height="8" fill="var(--expected)" />
        <circle
          cx={MID + 24}
          cy={floor - 28}
          r="8"
          fill={lamp.isLit ? "var(--contact)" : "var(--field)"}
          stroke="var(--ink)"
          strokeWidth="1.5"
        />
        {lamp.isLit ? (
          <path
            d={`M${MID + 24} ${floor - 50}v-8M${MID + 40} ${floor - 42}l6-6M${MID + 10} ${floor - 44}l-5-7`}
            stroke="var(--contact)"
            strokeWidth="2"
          />
        ) : null}
      </g>
    );
  }
  if (seen.below !== "setter") return null;
  return (
    <g>
      <rect
        x={MID - 30}
        y={floor - 30}
        width="60"
        height="30"
        fill="var(--steel)"
        stroke="var(--ink2)"
        strokeWidth="2"
      />
      <rect
        x={MID - 18}
        y={floor - (seen.isSetterTriggered ? 34 : 40)}
        width="36"
        height="10"
        fill={seen.isSetterTriggered ? "var(--contact)" : "var(--expected)"}
      />
    </g>
  );
}

/** How high what stands in the gap lifts the tip in the picture. */
function gapHeight({ paper, block, lamp, lastTry, machine, below, isSetterTriggered }: MillSeen): number | null {
  if (paper) return PAPER_GAP[paper.feel];
  if (block) return 31;
  if (lastTry && !lastTry.goes && lastTry.machineZ === machine.z) return 26;
  if (lamp) return lamp.isLit ? 42 : 62;
  if (below === "setter") return isSetterTriggered ? 34 : 56;
  return null;
}

/** A solid tip over a surface. */
export function SolidPicture({ seen, machine }: { seen: MillSeen; machine: AxisCounts }) {
  const { resting } = seen;
  const { side, top } = daylight(seen, machine);
  const floor = 150;
  const isOver = side <= 0 || seen.below !== null || seen.paper !== null || resting !== null;
  const gap =
    gapHeight(seen) ?? (resting || seen.isStopped ? 0 : isOver ? Math.min(80, 14 + Math.max(0, top) * 3) : 40);
  return (
    <g>
      {isOver ? (
        <rect
          x="0"
          y={floor}
          width={SIZE}
          height={SIZE}
          fill={seen.below === "table" || seen.below === "setter" ? "var(--steel)" : "var(--stock)"}
          stroke="var(--stock-edge)"
        />
      ) : null}
      <Tip seen={seen} tipY={floor - gap} />
      <InGap seen={seen} floor={floor} />
      {resting ? <path d={`M${MID - 46} ${floor}h92`} stroke="var(--contact)" strokeWidth="4" /> : null}
    </g>
  );
}
