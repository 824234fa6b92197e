import { programFacts, type Dialect } from "@probe-lane/core/gcode";
import { scales, showLength, type LengthUnit } from "@probe-lane/core/units";
import { useMemo } from "react";

type Extent = readonly [number, number] | null | undefined;

/** How far each tool goes in each work offset, as it is programmed: read off the lines, not off the machine. */
export function EnvelopeTable({
  text,
  dialect,
  unit,
  called,
}: {
  text: string;
  dialect: Dialect;
  unit: LengthUnit;
  /** The tool that works now. */
  called: number | null;
}) {
  const facts = useMemo(
    () => programFacts(text, dialect, { startUnits: unit, figures: "mm", isExpanding: true }),
    [text, dialect, unit],
  );
  const length = (mm: number) => showLength(mm, scales[unit]);
  const low = (extent: Extent) => (extent ? length(extent[0]) : "–");
  // where it goes along the table is read at a glance: no more figures than it takes
  const short = (mm: number) => length(mm).replace(/\.?0+$/, "");
  const span = (extent: Extent) => (extent ? `${short(extent[0])} … ${short(extent[1])}` : "–");
  const head = "px-2 py-1 text-right text-xs font-normal whitespace-nowrap text-ink2";
  const cell = "figures px-2 pt-1 text-right whitespace-nowrap";
  return (
    // longer than its place it is scrolled, by keys too
    <div className="h-full overflow-auto" tabIndex={0} role="group" aria-label="How far each tool goes">
      <table className="w-full">
        <thead>
          <tr className="border-b border-rule">
            <th className={`${head} !text-left`}>tool</th>
            <th className={head}>fed down to Z</th>
            <th className={head}>in rapid to Z</th>
            <th className={head}>row</th>
          </tr>
        </thead>
        {facts.calls.map(({ tool, frame, rows, diameterRows, reach }) => (
          <tbody
            key={`${tool} ${frame}`}
            className={`border-b border-rule-soft ${tool === called ? "bg-contact-soft font-bold" : ""}`}
          >
            <tr>
              <th scope="row" className="px-2 pt-1 text-left font-normal whitespace-nowrap">
                <b className="figures">{tool}</b> in {frame}
              </th>
              <td className={`${cell} font-bold`}>{low(reach?.cutZ)}</td>
              <td className={cell}>{low(reach?.rapidZ)}</td>
              <td className={cell}>
                {[
                  ...rows.flatMap((row) => (row === null ? [] : [`${row}`])),
                  ...diameterRows.map((row) => `D${row}`),
                ].join(" ") || "none"}
              </td>
            </tr>
            <tr>
              <td colSpan={4} className="figures px-2 pb-1 text-xs text-ink2">
                X {span(reach?.x)}
                {reach?.y ? ` · Y ${span(reach.y)}` : ""}
              </td>
            </tr>
          </tbody>
        ))}
      </table>
      <p className="px-2 py-1 text-xs text-ink2">
        As it is programmed, without any offset. A tool that goes deeper where nothing holds the part is exempt: that is
        yours to say.
      </p>
    </div>
  );
}
