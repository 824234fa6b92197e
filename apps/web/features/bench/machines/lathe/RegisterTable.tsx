import { memo } from "react";
import type { TurningSeen } from "@probe-lane/core/bench";
import { scales, showCounts } from "@probe-lane/core/units";
import { turretKindWords } from "@probe-lane/core/words";

/** Work offsets and the tool table of a lathe. */
export const LatheTable = memo(function LatheTable({ seen }: { seen: TurningSeen }) {
  const { registers, modal, kind } = seen;
  const sheet = seen.sheet.lathe;
  const scale = scales[seen.sheet.unit];
  const show = (counts: number | undefined) => showCounts(counts ?? 0, scale);
  const turret = registers.turret;
  const isReadout = kind === "readout";
  // a readout keeps a library, a gang slide X and height
  const [first, second] = isReadout
    ? ([
        ["LX", turret?.lx],
        ["LZ", turret?.lz],
      ] as const)
    : kind === "gang"
      ? ([
          ["X", turret?.x],
          ["Y", turret?.y],
        ] as const)
      : ([
          ["X", turret?.x],
          ["Z", turret?.z],
        ] as const);
  const rows = Object.entries(registers.work).filter(
    ([name, row]) => name === modal.workOffset || row.x !== 0 || row.z !== 0,
  );
  const cell = "figures py-0.5 pr-1.5 text-right text-[13px]";
  const head = "pr-1.5 font-normal";
  const hasNose = sheet.targets.nose.length > 0;
  const hasWear = sheet.tools.some(({ number }) => (turret?.xw[number] ?? 0) !== 0 || (turret?.zw[number] ?? 0) !== 0);
  return (
    <>
      <table className="w-full">
        <thead>
          <tr className="text-right text-xs text-ink2">
            <th />
            <th className={head}>X ⌀</th>
            <th className={head}>Z</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, row]) => (
            <tr key={name} className="border-t border-rule-soft">
              <th scope="row" className="figures pl-2.5 text-left">
                {isReadout ? <span className="font-sans">zero</span> : name}
                {!isReadout && name === modal.workOffset ? (
                  <span className="font-sans text-xs font-normal text-ink2"> in use</span>
                ) : null}
              </th>
              <td data-testid={`${name}.x`} data-register={`${name}.x`} className={cell}>
                {show(row.x)}
              </td>
              <td data-testid={`${name}.z`} data-register={`${name}.z`} className={cell}>
                {show(row.z)}
              </td>
            </tr>
          ))}
          {registers.common.x === 0 && registers.common.z === 0 ? null : (
            <tr className="border-t border-rule-soft">
              <th scope="row" className="pl-2.5 text-left">
                common{sheet.start ? <span className="text-xs font-normal text-ink2"> as declared</span> : null}
              </th>
              <td className={cell}>{show(registers.common.x)}</td>
              <td className={cell}>{show(registers.common.z)}</td>
            </tr>
          )}
        </tbody>
      </table>
      <table className="w-full border-t border-rule">
        <thead>
          <tr className="text-right text-xs text-ink2">
            <th className="pl-2.5 text-left font-normal">{isReadout ? "Library" : "Tool"}</th>
            <th className={head}>X ⌀</th>
            <th className={head}>{kind === "gang" ? "Height" : "Z"}</th>
            {hasWear ? (
              <>
                <th className={head}>X wear</th>
                <th className={head}>Z wear</th>
              </>
            ) : null}
            {hasNose ? (
              <>
                <th className={head}>Nose</th>
                <th className={head}>Tip</th>
              </>
            ) : null}
          </tr>
        </thead>
        <tbody>
          {sheet.tools.map(({ number, kind: shape, insert }) => (
            <tr key={number} className={`border-t border-rule-soft ${seen.lathe.station === number ? "bg-well" : ""}`}>
              <th
                scope="row"
                className="max-w-32 truncate pl-2.5 text-left font-normal"
                title={`${turretKindWords[shape]}, ${insert}`}
              >
                <b className="figures">{number}</b> <span className="text-xs text-ink2">{turretKindWords[shape]}</span>
              </th>
              <td data-testid={`${first[0]}${number}`} data-register={`${first[0]}${number}`} className={cell}>
                {show(first[1]?.[number])}
              </td>
              <td data-testid={`${second[0]}${number}`} data-register={`${second[0]}${number}`} className={cell}>
                {show(second[1]?.[number])}
              </td>
              {hasWear ? (
                <>
                  <td className={cell}>{show(turret?.xw[number])}</td>
                  <td className={cell}>{show(turret?.zw[number])}</td>
                </>
              ) : null}
              {hasNose ? (
                <>
                  <td data-testid={`R${number}`} data-register={`R${number}`} className={cell}>
                    {show(turret?.r[number])}
                  </td>
                  <td data-testid={`Q${number}`} data-register={`Q${number}`} className={cell}>
                    {Math.round((turret?.q[number] ?? 0) / scale.countsPerUnit)}
                  </td>
                </>
              ) : null}
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
});
