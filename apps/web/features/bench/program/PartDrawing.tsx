import type { PartPicture } from "@probe-lane/core/bench";
import { scales, showLength, type LengthUnit } from "@probe-lane/core/units";
import { useEffect, useRef, useState } from "react";
import { useElementSize } from "../../../app/useElementSize";

type Relief = Extract<PartPicture, { kind: "relief" }>;
type HalfSection = Extract<PartPicture, { kind: "halfSection" }>;

const PER_MM = 100;
const MARGIN = 18;
const SECTION_SHARE = 0.36;
/** Neighbors that differ by more than this have an edge that is drawn, hundredths of a millimetre. */
const EDGE = 25;
/** How much darker the deepest place is. */
const DARKEST = 0.45;

const themed = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** The relief from above: deeper is darker, and edges are drawn. */
function Plan({ part, scale, theme }: { part: Relief; scale: number; theme: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { columns, rows, depths } = part;
  const dots = Math.max(1, Math.round(scale * Math.min(2, window.devicePixelRatio)));
  useEffect(() => {
    const pen = canvas.current?.getContext("2d");
    if (!pen) return;
    const deepest = Math.max(1, ...depths);
    const depth = (column: number, row: number): number => depths[row * columns + column] ?? 0;
    pen.fillStyle = themed("--stock");
    pen.fillRect(0, 0, columns * dots, rows * dots);
    // rows are counted from the front, which is below
    const top = (row: number): number => (rows - 1 - row) * dots;
    for (let row = 0; row < rows; row++)
      for (let column = 0; column < columns; column++) {
        pen.fillStyle = `rgb(0 0 0 / ${(depth(column, row) / deepest) * DARKEST})`;
        pen.fillRect(column * dots, top(row), dots, dots);
      }
    pen.fillStyle = themed("--ink");
    for (let row = 0; row < rows; row++)
      for (let column = 0; column < columns; column++) {
        const here = depth(column, row);
        if (column > 0 && Math.abs(here - depth(column - 1, row)) > EDGE)
          pen.fillRect(column * dots, top(row), 1, dots + 1);
        if (row > 0 && Math.abs(here - depth(column, row - 1)) > EDGE)
          pen.fillRect(column * dots, top(row) + dots, dots + 1, 1);
      }
  }, [columns, rows, depths, dots, theme]);
  return (
    <canvas
      ref={canvas}
      width={columns * dots}
      height={rows * dots}
      role="img"
      aria-label="The part from above, deeper is darker"
      style={{ width: columns * scale, height: rows * scale }}
      className="border border-ink"
    />
  );
}

/** The relief from above, and a section along it where the slider stands. */
function ReliefDrawing({
  part,
  unit,
  theme,
  width,
  height,
}: {
  part: Relief;
  unit: LengthUnit;
  theme: string;
  width: number;
  height: number;
}) {
  const { columns, rows, cellMm, depths, highMm, low } = part;
  const [row, setRow] = useState(Math.floor(rows / 2));
  const thickMm = highMm - low[2];
  const perMm = Math.min(
    (width - 2 * MARGIN) / (columns * cellMm),
    (height * (1 - SECTION_SHARE) - 2 * MARGIN) / (rows * cellMm),
    (height * SECTION_SHARE - 3 * MARGIN) / thickMm,
  );
  const drop = (depth: number): number => (depth / PER_MM) * perMm;
  const top = depths
    .slice(row * columns, (row + 1) * columns)
    .map((depth, column) => {
      const x = column * cellMm * perMm;
      return `L${x} ${drop(depth)}L${x + cellMm * perMm} ${drop(depth)}`;
    })
    .join("");
  const wide = columns * cellMm * perMm;
  return (
    <div className="flex flex-1 flex-col items-center justify-center gap-2 p-2">
      <div className="relative">
        <Plan part={part} scale={cellMm * perMm} theme={theme} />
        <span
          aria-hidden
          className="absolute inset-x-0 border-t border-dashed border-expected"
          style={{ top: (rows - row - 0.5) * cellMm * perMm }}
        />
      </div>
      <svg
        width={wide}
        height={thickMm * perMm}
        role="img"
        aria-label={`Section ${showLength(row * cellMm, scales[unit], 1)} behind the front edge`}
        className="overflow-visible"
      >
        <path
          d={`M0 ${thickMm * perMm}${top}L${wide} ${thickMm * perMm}Z`}
          fill="var(--stock)"
          stroke="var(--ink)"
          strokeWidth={1.2}
        />
      </svg>
      <label className="flex items-center gap-2 text-xs text-ink2">
        section, from the front
        <input
          type="range"
          min={0}
          max={rows - 1}
          value={row}
          onChange={({ target }) => setRow(Number(target.value))}
          className="w-40 accent-[var(--expected)]"
        />
        <b className="figures w-12 text-sm text-ink">{showLength((row + 0.5) * cellMm, scales[unit], 1)}</b>
      </label>
    </div>
  );
}

/** A radius that changes by more than so many steps at once is a wall. */
const WALL_STEPS = 2.5;

/** A turned part cut open along its axis: the chuck on the left. */
function SectionDrawing({ part, width, height }: { part: HalfSection; width: number; height: number }) {
  const { outer, bore, stepMm } = part;
  const widest = Math.max(...outer, 1);
  const perMm = Math.min((width - 2 * MARGIN) / (outer.length * stepMm), (height - 2 * MARGIN) / (2 * widest));
  const wide = outer.length * stepMm * perMm;
  // a slope goes from middle to middle of its steps, a wall stands between them
  const isWall = (one = 0, other = 0): boolean => Math.abs(one - other) > WALL_STEPS * stepMm;
  const line = (radii: readonly number[], side: 1 | -1): string[] =>
    radii.flatMap((radius, at) => {
      const place = (end: number) => `${end * stepMm * perMm} ${(widest - side * radius) * perMm}`;
      const isStart = at === 0 || isWall(radius, radii[at - 1]);
      const isEnd = at === radii.length - 1 || isWall(radius, radii[at + 1]);
      return [...(isStart ? [place(at)] : []), place(at + 0.5), ...(isEnd ? [place(at + 1)] : [])];
    });
  const inside = bore.length > 0 ? bore : outer.map(() => 0);
  const half = (side: 1 | -1): string => `M${[...line(outer, side), ...line(inside, side).reverse()].join("L")}Z`;
  return (
    <svg
      width={wide}
      height={2 * widest * perMm}
      role="img"
      aria-label="The part cut open along its axis, the chuck on the left"
      className="m-auto overflow-visible"
    >
      {([1, -1] as const).map((side) => (
        <path key={side} d={half(side)} fill="var(--stock)" stroke="var(--ink)" strokeWidth={1.2} />
      ))}
      <path
        d={`M-12 ${widest * perMm}H${wide + 12}`}
        stroke="var(--expected)"
        strokeDasharray="12 4 2 4"
        strokeWidth={1}
      />
    </svg>
  );
}

/** The part that was cut, from above with a section, or cut open along its axis: what an eye sees, and no finer. */
export function PartDrawing({ part, unit, theme }: { part: PartPicture; unit: LengthUnit; theme: string }) {
  const { ref, width, height } = useElementSize();
  return (
    <div ref={ref} className="relative flex min-h-0 min-w-0 flex-1 overflow-hidden bg-well" data-part="cut">
      {width > 0 && part.kind === "relief" ? (
        <ReliefDrawing part={part} unit={unit} theme={theme} width={width} height={height} />
      ) : null}
      {width > 0 && part.kind === "halfSection" ? <SectionDrawing part={part} width={width} height={height} /> : null}
      <p className="absolute right-2 bottom-1 text-xs text-ink2">what an eye sees; sizes come by measuring</p>
    </div>
  );
}
