import type { MillSeen } from "@probe-lane/core/bench";
import { lengthRows, type Axis } from "@probe-lane/core/registers";
import { memo, useState } from "react";
import { scales, showCounts, showLength } from "@probe-lane/core/units";
import { toolKindWords } from "@probe-lane/core/words";

const AXES: readonly Axis[] = ["x", "y", "z"];

/** Work offsets, and the rows of the tool table that are in use. */
export const MillTable = memo(function MillTable({ seen }: { seen: MillSeen }) {
  const [isWhole, setWhole] = useState(false);
  const { registers, modal, sheet } = seen;
  const scale = scales[sheet.unit];
  const show = (counts: number) => showCounts(counts, scale);
  const rows = Object.entries(registers.work).filter(
    ([name, row]) => isWhole || name === modal.workOffset || row.x !== 0 || row.y !== 0 || row.z !== 0,
  );
  const { common } = registers;
  const isCommonZero = common.x === 0 && common.y === 0 && common.z === 0;
  const isUsed = (row: number) =>
    [registers.lengthGeometry, registers.lengthWear, registers.diameterGeometry, registers.diameterWear].some(
      (table) => (table[row] ?? 0) !== 0,
    );
  const tools = [...new Set([...sheet.tools.map(({ number }) => number), ...lengthRows.filter(isUsed)])].sort(
    (a, b) => a - b,
  );
  const hasDiameters =
    sheet.targets.diameters.length > 0 ||
    tools.some((row) => (registers.diameterGeometry[row] ?? 0) !== 0 || (registers.diameterWear[row] ?? 0) !== 0);
  const hasLengths = sheet.targets.lengths.length > 0 || !hasDiameters;
  const cell = "figures py-0.5 pr-2 text-right";
  const head = "pr-2 font-normal";
  return (
    <>
      <table className="w-full">
        <thead>
          <tr className="text-right text-xs text-ink2">
            <th />
            {AXES.map((axis) => (
              <th key={axis} className={head}>
                {axis.toUpperCase()}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, row]) => (
            <tr key={name} className="border-t border-rule-soft">
              <th scope="row" className="figures pl-2.5 text-left">
                {name.startsWith("P") ? `.1 ${name}` : name}
                {name === modal.workOffset ? (
                  <span className="font-sans text-xs font-normal text-ink2"> in use</span>
                ) : null}
              </th>
              {AXES.map((axis) => (
                <td key={axis} data-testid={`${name}.${axis}`} data-register={`${name}.${axis}`} className={cell}>
                  {show(row[axis])}
                </td>
              ))}
            </tr>
          ))}
          {isCommonZero && !isWhole ? null : (
            <tr className="border-t border-rule-soft">
              <th scope="row" className="pl-2.5 text-left">
                common
              </th>
              {AXES.map((axis) => (
                <td key={axis} data-register={`common.${axis}`} className={cell}>
                  {show(common[axis])}
                </td>
              ))}
            </tr>
          )}
        </tbody>
      </table>
      <p className="flex gap-2 px-2.5 pb-1 text-xs text-ink2">
        {isWhole ? null : <>other work offsets{isCommonZero ? " and common" : ""}: all zero</>}
        <button type="button" className="ml-auto underline" aria-expanded={isWhole} onClick={() => setWhole(!isWhole)}>
          {isWhole ? "only what is in use" : "more"}
        </button>
      </p>
      <table className="w-full border-t border-rule-soft">
        <thead>
          <tr className="text-right text-xs text-ink2">
            <th className="pl-2.5 text-left font-normal">Tool</th>
            {hasLengths ? (
              <>
                <th className={head}>Length</th>
                <th className={head}>Wear</th>
              </>
            ) : null}
            {hasDiameters ? (
              <>
                <th className={head}>{sheet.settings.diameterMode === "radius" ? "Radius" : "Diameter"}</th>
                <th className={head}>Wear</th>
              </>
            ) : null}
          </tr>
        </thead>
        <tbody>
          {tools.map((row) => {
            const tool = sheet.tools.find(({ number }) => number === row);
            return (
              <tr key={row} className="border-t border-rule-soft">
                <th scope="row" className="w-full max-w-0 truncate pr-1.5 pl-2.5 text-left font-normal">
                  <b className="figures">{row}</b>{" "}
                  {tool ? (
                    <span className="text-xs text-ink2">
                      {toolKindWords[tool.kind]} ⌀ {showLength(tool.diameterMm, scale, sheet.unit === "mm" ? 1 : 3)}
                    </span>
                  ) : (
                    <span className="text-xs text-ink2">{row === sheet.gauging?.pocket ? "probe" : "no tool"}</span>
                  )}
                </th>
                {hasLengths ? (
                  <>
                    <td data-testid={`H${row}`} data-register={`H${row}`} className={cell}>
                      {show(registers.lengthGeometry[row] ?? 0)}
                    </td>
                    <td data-testid={`HW${row}`} data-register={`HW${row}`} className={cell}>
                      {show(registers.lengthWear[row] ?? 0)}
                    </td>
                  </>
                ) : null}
                {hasDiameters ? (
                  <>
                    <td data-testid={`D${row}`} data-register={`D${row}`} className={cell}>
                      {show(registers.diameterGeometry[row] ?? 0)}
                    </td>
                    <td data-testid={`DW${row}`} data-register={`DW${row}`} className={cell}>
                      {show(registers.diameterWear[row] ?? 0)}
                    </td>
                  </>
                ) : null}
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
});
