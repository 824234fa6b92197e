import type { MillSetup } from "@probe-lane/core/exercises";
import { shapes, toolNumber, type Thing } from "@probe-lane/core/instruments";

/** Every thing is drawn as if it hung this far out, mm: its real length is for the student to measure. */
const DRAWN_MM = 96;
const WIDE_MM = 64;

function shapeOf(sheet: MillSetup, thing: Thing) {
  switch (thing) {
    case "edgeFinder":
      return shapes.edgeFinder(DRAWN_MM, sheet.tipDiameterMm);
    case "probe":
      return shapes.probe(DRAWN_MM, sheet.probe?.ballDiameterMm ?? 6);
    case "pointedTool":
    case "taster":
    case "indicator":
      return shapes[thing](DRAWN_MM);
    default: {
      const tool = sheet.tools.find(({ number }) => number === toolNumber(thing));
      return shapes.tool(tool?.kind ?? "endMill", DRAWN_MM, tool?.diameterMm ?? 10);
    }
  }
}

/** What lies in the drawer as it looks, all to one scale. */
export function Silhouette({ sheet, thing }: { sheet: MillSetup; thing: Thing }) {
  const { rigid, tip } = shapeOf(sheet, thing);
  const parts = [...rigid.slice(0, -1), ...(tip ? [tip] : [])];
  return (
    <svg width={WIDE_MM / 2} height={DRAWN_MM / 2} viewBox={`${-WIDE_MM / 2} 0 ${WIDE_MM} ${DRAWN_MM}`} aria-hidden>
      {parts.map(({ radiusMm, fromMm, toMm }) => (
        <rect
          key={`${fromMm} ${radiusMm}`}
          x={-radiusMm}
          y={DRAWN_MM - Math.min(toMm, DRAWN_MM)}
          width={radiusMm * 2}
          height={Math.max(0, Math.min(toMm, DRAWN_MM) - fromMm)}
          fill={fromMm === 0 ? "var(--contact)" : "var(--steel)"}
          stroke="var(--ink2)"
          strokeWidth="1.5"
        />
      ))}
    </svg>
  );
}
