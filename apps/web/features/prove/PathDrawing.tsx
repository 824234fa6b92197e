import type { Dialect, Stroke } from "@probe-lane/core/gcode";

const SIZE = { width: 560, plan: 160, section: 130, gap: 22, pad: 26 } as const;
/** Dashes by tool: colors say what is chosen, never which tool. */
const DASHES = ["", "9 3", "3 2", "10 3 2 3", "14 3", "6 2 1 2"] as const;

interface Window {
  readonly low: readonly [number, number];
  readonly high: readonly [number, number];
}

function windowOf(strokes: readonly Stroke[], u: number, v: number): Window {
  let [lu, lv, hu, hv] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { points } of strokes)
    for (const place of points) {
      lu = Math.min(lu, place[u] ?? 0);
      hu = Math.max(hu, place[u] ?? 0);
      lv = Math.min(lv, place[v] ?? 0);
      hv = Math.max(hv, place[v] ?? 0);
    }
  return { low: [Math.min(lu, 0), Math.min(lv, 0)], high: [Math.max(hu, 0), Math.max(hv, 0)] };
}

/** A view of the strokes: across is axis `u`, up is axis `v`. */
function View({
  strokes,
  u,
  v,
  scale,
  left,
  top,
  window,
  label,
  tools,
}: {
  strokes: readonly Stroke[];
  u: number;
  v: number;
  scale: number;
  left: number;
  top: number;
  window: Window;
  label: string;
  tools: readonly number[];
}) {
  const x = (value: number): number => left + (value - window.low[0]) * scale;
  const y = (value: number): number => top + (window.high[1] - value) * scale;
  const path = ({ points }: Stroke): string =>
    points
      .map((place, i) => `${i === 0 ? "M" : "L"}${x(place[u] ?? 0).toFixed(1)} ${y(place[v] ?? 0).toFixed(1)}`)
      .join("");
  const [right, bottom] = [x(window.high[0]), y(window.low[1])];
  return (
    <g>
      <path
        d={`M${x(0)} ${top - 8}V${bottom + 8}M${left - 8} ${y(0)}H${right + 8}`}
        stroke="var(--expected)"
        strokeDasharray="12 3 2 3"
      />
      <text x={left - 8} y={top - 12} fontSize="12" fill="var(--ink2)">
        {label}
      </text>
      {strokes.map((stroke, i) => (
        <path
          key={i}
          d={path(stroke)}
          fill="none"
          stroke={stroke.isRapid ? "var(--ink3)" : "var(--ink)"}
          strokeWidth={stroke.isRapid ? 0.8 : 1.8}
          strokeDasharray={stroke.isRapid ? "1 3" : DASHES[tools.indexOf(stroke.tool) % DASHES.length]}
          data-stroke={stroke.isRapid ? "rapid" : "feed"}
        />
      ))}
    </g>
  );
}

/**
 * The ways of the tools as they are programmed, about the program's own zero: plan over elevation, or the half section
 * of a lathe with X drawn as a radius. Each tool has a dash of its own; rapids are dotted.
 */
export function PathDrawing({ strokes: told, dialect }: { strokes: readonly Stroke[]; dialect: Dialect }) {
  const isPlan = dialect !== "lathe";
  // X of a lathe is counted as a diameter and drawn as a radius
  const strokes = isPlan
    ? told
    : told.map((stroke) => ({ ...stroke, points: stroke.points.map(([x = 0, z = 0]) => [x / 2, z]) }));
  const tools = [...new Set(strokes.map(({ tool }) => tool))];
  if (strokes.length === 0) return null;
  const [first, second] = isPlan ? [windowOf(strokes, 0, 1), windowOf(strokes, 0, 2)] : [windowOf(strokes, 1, 0), null];
  const across = Math.max(first.high[0] - first.low[0], 1);
  const room = { width: SIZE.width - 2 * SIZE.pad, height: SIZE.plan + (second ? SIZE.section : 0) - SIZE.pad };
  const tall = Math.max(first.high[1] - first.low[1], 1) + (second ? Math.max(second.high[1] - second.low[1], 1) : 0);
  const scale = Math.min(room.width / across, room.height / tall);
  const top = SIZE.pad + 6;
  const under = top + (first.high[1] - first.low[1]) * scale + SIZE.gap + 14;
  const end = second ? under + (second.high[1] - second.low[1]) * scale : under - SIZE.gap - 14;
  const shared = { strokes, scale, left: SIZE.pad, tools };
  return (
    <figure className="flex flex-col gap-1 p-2">
      <svg
        viewBox={`0 0 ${SIZE.width} ${Math.ceil(end + 16)}`}
        className="w-full"
        role="img"
        aria-label={
          isPlan
            ? "Programmed ways from above and from the front"
            : "Programmed ways in half section, the chuck on the left"
        }
      >
        {isPlan ? (
          <View {...shared} u={0} v={1} top={top} window={first} label="from above: X to the right, Y up" />
        ) : (
          <View
            {...shared}
            u={1}
            v={0}
            top={top}
            window={first}
            label="half section: Z to the right, X up, drawn as a radius"
          />
        )}
        {second ? <View {...shared} u={0} v={2} top={under} window={second} label="from the front: Z up" /> : null}
      </svg>
      <figcaption className="flex flex-wrap gap-x-4 text-xs text-ink2">
        {tools.map((tool, i) => (
          <span key={tool} className="flex items-center gap-1">
            <svg width="34" height="8" aria-hidden>
              <path d="M1 4H33" stroke="var(--ink)" strokeWidth="1.8" strokeDasharray={DASHES[i % DASHES.length]} />
            </svg>
            T{tool}
          </span>
        ))}
        <span className="flex items-center gap-1">
          <svg width="34" height="8" aria-hidden>
            <path d="M1 4H33" stroke="var(--ink3)" strokeDasharray="1 3" />
          </svg>
          rapid
        </span>
        <span className="text-expected">dash-dot: the program’s own zero</span>
      </figcaption>
    </figure>
  );
}
