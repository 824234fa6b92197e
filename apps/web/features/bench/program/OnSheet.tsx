import type { Observation } from "@probe-lane/core/bench";
import { scales, showLength } from "@probe-lane/core/units";
import { drawingWords, provingSchoolWords } from "@probe-lane/core/words";

/** What the sheet says of the program: what each tool does, what the part is to measure, how it is proved. */
export function ProgramOnSheet({ sheet }: { sheet: Observation["sheet"] }) {
  const { program, operations = [], features = [], proving = [], unit } = sheet;
  if (program === undefined) return null;
  const depth = (mm: number) => showLength(mm, scales[unit], unit === "mm" ? 1 : 3);
  return (
    <section aria-label="Program" className="mt-3 border-t border-rule pt-2">
      <h3 className="font-bold">
        Program <span className="figures">{program}</span>
      </h3>
      <table className="mt-1">
        <thead>
          <tr className="text-left text-xs text-ink2">
            <th className="pr-4 font-normal">tool</th>
            <th className="pr-4 font-normal">by the drawing</th>
            <th className="pr-4 text-right font-normal">deepest Z</th>
            <th className="text-right font-normal">rev/min</th>
          </tr>
        </thead>
        <tbody>
          {operations.map(({ tool, what, deepestMm, rpm }) => (
            <tr key={tool} className="border-t border-rule-soft">
              <td className="figures pr-4">{tool}</td>
              <td className="pr-4">{what}</td>
              <td className="figures pr-4 text-right">{depth(deepestMm)}</td>
              <td className="figures text-right">{rpm}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {features.length > 0 ? (
        <table aria-label="Features of the drawing" className="mt-2">
          <thead>
            <tr className="text-left text-xs text-ink2">
              <th className="pr-4 font-normal">feature</th>
              <th className="text-right font-normal">by the drawing</th>
            </tr>
          </thead>
          <tbody>
            {features.map((feature) => (
              <tr key={feature.name} className="border-t border-rule-soft">
                <td className="pr-4">{feature.name}</td>
                <td className="figures text-right whitespace-nowrap">{drawingWords(feature, unit)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      {proving.length > 0 ? (
        <>
          <p className="mt-2 text-xs text-ink2">Before it cuts:</p>
          <ul className="ml-4 list-disc">
            {proving.map((school) => (
              <li key={school}>
                <b>{provingSchoolWords[school].name}.</b> {provingSchoolWords[school].how}
              </li>
            ))}
          </ul>
        </>
      ) : null}
      <p className="mt-2 text-xs text-ink2">
        A program that is new to a machine can hurt: its manual, your shop’s rules and whoever is qualified for it come
        first. Door shut, a hand on hold and stop, nobody near what turns.
      </p>
    </section>
  );
}
