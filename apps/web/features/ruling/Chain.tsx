import type { RegisterRuling, Ruling } from "@probe-lane/core/grading";
import { format } from "date-fns";
import { chainView } from "./chainView";

const head = "px-3 pb-1 text-xs font-normal text-ink2 align-bottom text-center";
const arrow = "after:absolute after:-right-2 after:top-1 after:text-ink3 after:content-['→']";

/** From the contact to where the tool landed, step by step: a row adds up. */
export function Chain({ values, sheet }: { values: readonly RegisterRuling[]; sheet: Ruling["sheet"] }) {
  const view = chainView(values, sheet);
  if (!view) return null;
  const isOne = view.rows.length === 1;
  return (
    <div
      role="group"
      aria-label="From the contact to the landing"
      tabIndex={0}
      className="relative mt-3 overflow-x-auto"
    >
      <table className="text-[15px]">
        <caption className="sr-only">From the contact to where the tool landed; every row adds up</caption>
        <thead>
          <tr>
            <th scope="col" className={isOne ? "sr-only" : head}>
              value
            </th>
            {view.hasContact ? (
              <th scope="col" className={head}>
                the contact
              </th>
            ) : null}
            {view.columns.map(({ id, label }) => (
              <th key={id} scope="col" className={`${head} max-w-44 !font-bold !text-contact`}>
                {label}
              </th>
            ))}
            <th scope="col" className={head}>
              the method itself
            </th>
            <th scope="col" className={head}>
              off by
            </th>
          </tr>
        </thead>
        <tbody>
          {view.rows.map((row) => (
            <tr
              key={row.key}
              className="align-top [&:not(:first-child)]:border-t [&:not(:first-child)]:border-rule-soft"
            >
              <th scope="row" className={isOne ? "sr-only" : "py-1.5 pr-3 text-left font-bold"}>
                {row.name}
              </th>
              {view.hasContact ? (
                <td className={`relative px-3 py-1.5 text-center ${arrow}`}>
                  {row.contact ? (
                    <>
                      <span className="figures block">{row.contact.figure}</span>
                      {isOne ? (
                        <span className="figures block text-xs text-ink2">
                          {format(new Date(row.contact.atMs), "HH:mm:ss")}
                        </span>
                      ) : null}
                    </>
                  ) : (
                    <span className="text-ink2">none</span>
                  )}
                </td>
              ) : null}
              {row.steps.map((step, place) => (
                <td key={view.columns[place]?.id} className={`relative px-3 py-1.5 text-center ${arrow}`}>
                  {step ? (
                    <>
                      <b className="figures block text-contact">{step.amount}</b>
                      {step.figure ? (
                        <span className="figures block whitespace-nowrap text-xs text-ink2">
                          {step.figure.said} told, <span className="text-expected">{step.figure.belongs} belonged</span>
                        </span>
                      ) : null}
                    </>
                  ) : (
                    <span className="text-ink2">–</span>
                  )}
                </td>
              ))}
              <td className={`relative px-3 py-1.5 text-center ${arrow}`}>
                <span className="figures block">{row.own}</span>
                {isOne ? (
                  <span className="figures block whitespace-nowrap text-xs text-ink2">{row.expected}</span>
                ) : null}
              </td>
              <td className="py-1.5 pl-5 pr-3 text-center">
                <b className="figures text-contact">{row.landed}</b>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
