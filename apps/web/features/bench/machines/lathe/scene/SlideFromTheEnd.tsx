import type { TurningSeen } from "@probe-lane/core/bench";

const END = { width: 228, height: 150, pitch: 42, pxPerMm: 2.2, barX: 22 } as const;

/**
 * The gang slide seen along the bar: every tool side by side, how far each stands out, and which of them is over the
 * bar.
 */
export function SlideFromTheEnd({ seen, shiftMm }: { seen: TurningSeen; shiftMm: number }) {
  const { lathe, sheet } = seen;
  const here = sheet.lathe.tools.findIndex(({ number }) => number === lathe.station);
  const bar = (sheet.lathe.stock.diameterMm / 2) * END.pxPerMm;
  // in this small view a slide that is far out stands at its edge
  const level = (radiusMm: number) => END.height - 24 - bar - Math.min(radiusMm * END.pxPerMm, END.height - 70);
  const nearest = Math.min(...lathe.neighbors.map(({ radiusMm }) => radiusMm + shiftMm));
  const lift = Math.max(0, nearest * END.pxPerMm - 40);
  return (
    <svg
      viewBox={`0 0 ${END.width} ${END.height}`}
      className="w-full"
      role="img"
      aria-label={`Slide seen along the bar: ${lathe.neighbors.map(({ number, radiusMm }) => `tool ${number} ${Math.round(radiusMm + shiftMm)} mm from the axis`).join(", ")}`}
    >
      <rect width={END.width} height={END.height} rx="4" fill="var(--panel)" stroke="var(--rule)" />
      <text x="8" y="15" fontSize="12" fill="var(--ink2)">
        seen along the bar
      </text>
      {lathe.neighbors.map(({ number, radiusMm }, place) => {
        const tipY = level(radiusMm + shiftMm - lift / END.pxPerMm);
        const toolX = END.barX + here * END.pitch + (place - here) * END.pitch;
        const isHere = number === lathe.station;
        return (
          <g key={number}>
            <rect
              x={toolX - 9}
              y={24}
              width="18"
              height={Math.max(4, tipY - 34)}
              fill="var(--steel)"
              stroke="var(--ink)"
            />
            <path
              d={`M${toolX - 6} ${Math.max(28, tipY - 10)}L${toolX} ${tipY}L${toolX + 6} ${Math.max(28, tipY - 10)}Z`}
              fill={isHere ? "var(--contact)" : "var(--contact-soft)"}
              stroke="var(--contact)"
            />
            <text x={toolX} y="36" textAnchor="middle" fontSize="12" fontWeight={isHere ? 700 : 400} fill="var(--ink)">
              {number}
            </text>
          </g>
        );
      })}
      <circle
        cx={END.barX + here * END.pitch}
        cy={END.height - 14 - bar}
        r={bar}
        fill="var(--stock)"
        stroke="var(--stock-edge)"
        strokeWidth="1.5"
      />
      {lift > 0 ? (
        <text x={END.width - 8} y={END.height - 8} textAnchor="end" fontSize="12" fill="var(--ink2)">
          slide {Math.round(nearest)} mm out
        </text>
      ) : null}
    </svg>
  );
}
