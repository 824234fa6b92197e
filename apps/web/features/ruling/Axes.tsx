import type { RegisterRuling, Ruling } from "@probe-lane/core/grading";
import { choiceWords, targetWords } from "@probe-lane/core/words";
import { useElementSize } from "../../app/useElementSize";
import { Panel } from "../../ui";
import { marks, shown } from "./show";
import { ValueAxis } from "./ValueAxis";

/** What was wrong, each on an axis of its own; what was chosen and said stands above. */
export function Axes({ values, sheet }: { values: readonly RegisterRuling[]; sheet: Ruling["sheet"] }) {
  const { ref, width } = useElementSize();
  const lengths = values.filter((value) => choiceWords(value, value.held) === null);
  const choices = values.filter((value) => choiceWords(value, value.held) !== null);
  return (
    <Panel
      title="Where your registers put the tool"
      note="mm off · band: tolerance · ticks: what the method holds · logarithmic beyond the band"
    >
      {choices.length > 0 ? <Choices values={choices} sheet={sheet} /> : null}
      <div ref={ref} className="divide-y divide-rule-soft">
        {width === 0
          ? null
          : lengths.map((value) => (
              <div key={value.target.id} className="flex flex-wrap items-center gap-3 px-4 py-2">
                <div className="w-36 shrink-0">
                  <b>{targetWords(value.target)}</b>
                  <dl className="figures mt-1 grid grid-cols-[auto_1fr] gap-x-2 text-[15px] leading-5">
                    <dt className="font-sans text-xs text-ink2">held</dt>
                    <dd className="text-right">{shown(value, value.held, sheet)}</dd>
                    <dt className="font-sans text-xs text-expected">should</dt>
                    <dd className="text-right text-expected">{shown(value, value.wanted, sheet)}</dd>
                  </dl>
                </div>
                <div className={width > 620 ? "min-w-0 flex-1" : "order-last w-full"}>
                  <ValueAxis
                    value={value}
                    width={Math.max(280, Math.min(width - 32, width > 620 ? width - 144 - 112 - 56 : width - 32))}
                  />
                </div>
                <span className="figures ml-auto w-28 shrink-0 whitespace-nowrap text-right font-bold">
                  {marks(value.marks)} / {marks(value.outOf)}
                </span>
              </div>
            ))}
      </div>
    </Panel>
  );
}

/** What was chosen and said: right or not, and no length. */
function Choices({ values, sheet }: { values: readonly RegisterRuling[]; sheet: Ruling["sheet"] }) {
  return (
    <ul aria-label="What was chosen and said" className="grid gap-x-8 border-b border-rule px-4 py-2 sm:grid-cols-2">
      {values.map((value) => (
        <li key={value.target.id} className="flex items-baseline gap-2 border-b border-rule-soft py-1">
          <b className="flex-1">{targetWords(value.target)}</b>
          {value.marks < value.outOf ? (
            <span>
              <span className="text-contact">✗ {shown(value, value.held, sheet)}</span>,{" "}
              <span className="text-expected">should: {shown(value, value.wanted, sheet)}</span>
            </span>
          ) : (
            <span>✓ {shown(value, value.held, sheet)}</span>
          )}
          <span className="figures w-24 whitespace-nowrap text-right font-bold">
            {marks(value.marks)} / {marks(value.outOf)}
          </span>
        </li>
      ))}
    </ul>
  );
}
