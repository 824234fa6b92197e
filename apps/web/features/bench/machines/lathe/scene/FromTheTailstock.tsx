import type { TurningSeen } from "@probe-lane/core/bench";
import type { CSSProperties } from "react";
import { turnSeconds, useTurning } from "../../../lane/useTurning";
import { toolOf } from "../view";

const VIEW = { width: 190, height: 176, cx: 95, cy: 104, chuck: 66 } as const;
const JAWS = [90, 210, 330] as const;
/** Nearer than this to the skin the tip is drawn standing off it all the same, px. */
const LEAST_PX = 2;

/**
 * Chuck, part and tool as one sees them from the tailstock: which way the work turns, and whether the tip comes from
 * behind or from the operator's side. The part and the tip's distance are those of the half section.
 */
export function FromTheTailstock({ seen, radiusMm }: { seen: TurningSeen; radiusMm: number }) {
  const turning = useTurning(seen.spindle);
  const tool = toolOf(seen);
  const { tip } = seen.lathe;
  const scale = (VIEW.chuck * 0.5) / Math.max(tip.partRadiusMm, 1);
  const part = tip.partRadiusMm * scale;
  const side = seen.kind === "readout" ? 1 : -1;
  const isClear = radiusMm >= tip.partRadiusMm;
  // far out it stands at the edge of this small view
  const away = Math.min(Math.max(radiusMm * scale, isClear ? part + LEAST_PX : 0), VIEW.cy - 54);
  const tipY = VIEW.cy + side * away;
  const endY = side < 0 ? 20 : VIEW.height - 4;
  const style = {
    ["--turn" as string]: `${turnSeconds(seen.spindle.rpm)}s`,
    transformOrigin: `${VIEW.cx}px ${VIEW.cy}px`,
  } as CSSProperties;
  const { cx, cy, chuck } = VIEW;
  return (
    <svg
      viewBox={`0 0 ${VIEW.width} ${VIEW.height}`}
      className="w-full"
      role="img"
      aria-label={`From the tailstock: the chuck ${turning === "turning" ? "turns" : "stands"}, tool ${seen.lathe.station} comes from ${side < 0 ? "behind" : "the front"}`}
    >
      <text x="4" y="12" fontSize="12" fill="var(--ink2)">
        from the end
      </text>
      <g
        className={
          turning === "turning" ? `turning ${seen.spindle.direction === "reverse" ? "backwards" : ""}` : turning
        }
        style={style}
        data-part="chuck"
        data-turning={turning}
      >
        <circle cx={cx} cy={cy} r={chuck} fill="var(--steel)" stroke="var(--ink)" strokeWidth="1.5" />
        <circle cx={cx} cy={cy} r={chuck - 5} fill="none" stroke="var(--ink3)" />
        {JAWS.map((deg) => (
          <g key={deg} transform={`rotate(${deg} ${cx} ${cy})`}>
            <path
              d={`M${cx + part} ${cy - 9}H${cx + chuck - 14}V${cy - 12}H${cx + chuck - 3}V${cy + 12}H${cx + chuck - 14}V${cy + 9}H${cx + part}Z`}
              fill="var(--jaw)"
              stroke="var(--ink)"
            />
            <path d={`M${cx + part + 6} ${cy - 9}v18m5-18v18m5-18v18`} stroke="var(--ink2)" strokeWidth="0.8" />
            <circle cx={cx + chuck - 8} cy={cy} r="2.6" fill="var(--well)" stroke="var(--ink2)" />
          </g>
        ))}
        <circle cx={cx} cy={cy} r={part} fill="var(--stock)" stroke="var(--stock-edge)" strokeWidth="1.5" />
        {[0.3, 0.55, 0.8].map((share) => (
          <circle
            key={share}
            cx={cx}
            cy={cy}
            r={part * share}
            fill="none"
            stroke="var(--stock-edge)"
            strokeWidth="0.6"
          />
        ))}
        <path d={`M${cx} ${cy}h${part}`} stroke="var(--stock-edge)" strokeWidth="1.2" />
      </g>
      {tool ? (
        <g data-part="tool">
          <path
            d={`M${cx - 11} ${endY}V${tipY + side * 15}H${cx + 3}V${endY}Z`}
            fill="var(--steel)"
            stroke="var(--ink)"
          />
          <path
            d={`M${cx - 9} ${tipY + side * 17}V${tipY + side * 5}L${cx} ${tipY}V${tipY + side * 17}Z`}
            fill="var(--contact-soft)"
            stroke="var(--contact)"
            strokeWidth="1.5"
          />
        </g>
      ) : null}
      <path
        d={`M4 ${cy}H${VIEW.width - 4}M${cx} 18V${VIEW.height - 2}`}
        stroke="var(--ink3)"
        strokeDasharray="9 3 2 3"
      />
    </svg>
  );
}
