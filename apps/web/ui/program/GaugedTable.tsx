import type { ProgramSeen } from "@probe-lane/core/machines/program";
import { scales, showLength, type LengthUnit } from "@probe-lane/core/units";
import { gaugedWhat, gaugeOutcomeWords, gaugeWrote } from "@probe-lane/core/words";

type Gauged = ProgramSeen["gauged"][number] & { readonly reallyMm?: number };

const STOPS: ReadonlySet<Gauged["outcome"]> = new Set(["tooMuch", "metalLeft", "lengthOff", "scribed"]);

/** What a program gauged of a part, as it printed it; after the hand-in beside what it really was. */
export function GaugedTable({ gauged, unit }: { gauged: readonly Gauged[]; unit: LengthUnit }) {
  const isRuled = gauged.some(({ reallyMm }) => reallyMm !== undefined);
  const head = "px-2 py-0.5 text-left text-xs font-normal text-ink2";
  const figure = "figures px-2 py-0.5 text-right whitespace-nowrap";
  const show = (mm: number) => showLength(mm, scales[unit]);
  return (
    <table className="w-full" aria-label="Gauged by the program">
      <thead>
        <tr className="border-b border-rule">
          <th className={head}>gauged by the program</th>
          <th className={`${head} !text-right`}>read</th>
          {isRuled ? <th className={`${head} !text-right`}>really</th> : null}
          <th className={`${head} !text-right`}>wanted</th>
          <th className={head}>wrote, or said</th>
        </tr>
      </thead>
      <tbody>
        {gauged.map((one, at) => (
          <tr key={`${one.line} ${at}`} className="border-t border-rule-soft">
            <th scope="row" className="px-2 py-0.5 text-left font-normal">
              {gaugedWhat(one)} <span className="text-xs text-ink2">line {one.line}</span>
            </th>
            <td className={`${figure} font-bold`}>{show(one.mm)}</td>
            {one.reallyMm === undefined ? null : <td className={figure}>{show(one.reallyMm)}</td>}
            <td className={`${figure} text-ink2`}>{show(one.targetMm)}</td>
            <td className={`px-2 py-0.5 text-xs ${STOPS.has(one.outcome) ? "font-bold text-contact" : ""}`}>
              {gaugeWrote(one, unit) ?? gaugeOutcomeWords[one.outcome]}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
