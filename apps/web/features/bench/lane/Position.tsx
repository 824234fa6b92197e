import type { Axis } from "@probe-lane/core/registers";
import { scales, showCounts } from "@probe-lane/core/units";
import { Button, Panel } from "../../../ui";
import type { BenchKit } from "./kit";
import type { LinkView } from "./laneLink";

/** Work, machine and counter, three rows; the axis that moved last stands out by weight and mark. */
export function Position({
  view,
  kit,
  lastAxis,
  onZeroCounter,
  isReadOnly,
}: {
  view: LinkView;
  kit: BenchKit;
  lastAxis: Axis;
  onZeroCounter(axis: Axis): void;
  isReadOnly: boolean;
}) {
  const { shown, observation } = view;
  const { modal, isHomed, sheet } = observation;
  const { title, axes, workHead, showsMachine, marks, inUse } = kit.position;
  const { offset, called } = inUse(observation);
  const show = (counts: number) => showCounts(counts, scales[sheet.unit]);
  const turn = modal.rotationDeg === 0 ? "" : ` · turned ${modal.rotationDeg.toFixed(3)}°`;
  return (
    <Panel
      title={`${title}, ${sheet.unit === "mm" ? "mm" : "inch"}`}
      note={
        <>
          {offset ? (
            <>
              <b className="figures text-ink">{offset}</b> ·{" "}
            </>
          ) : null}
          {called}
          {turn}
        </>
      }
    >
      <table className="w-full">
        <thead>
          <tr className="text-right text-xs text-ink2">
            <th className={Object.keys(marks).length > 0 ? "w-9" : "w-8"} />
            <th className="font-normal">{workHead}</th>
            {showsMachine ? <th className="font-normal">Machine</th> : null}
            <th className="font-normal">Counter</th>
            <th className="w-9" />
          </tr>
        </thead>
        <tbody>
          {axes.map((axis) => {
            const isLast = axis === lastAxis;
            const mark = marks[axis];
            return (
              <tr key={axis} className="border-t border-rule-soft">
                <th scope="row" className={`pl-2 text-left text-xl ${isLast ? "text-contact" : ""}`}>
                  {axis.toUpperCase()}
                  {mark ? (
                    <span className="text-sm font-normal" title={mark.means}>
                      {mark.mark}
                    </span>
                  ) : null}
                  <span className="sr-only">{isLast ? ", moving" : ""}</span>
                </th>
                <td
                  data-testid={`work-${axis}`}
                  className={`figures py-0.5 text-right text-[18px] leading-7 xl:text-[25px] xl:leading-8 font-semibold ${isLast ? "text-contact" : ""}`}
                >
                  {isHomed ? show(shown.work[axis]) : "–"}
                </td>
                {showsMachine ? (
                  <td
                    data-testid={`machine-${axis}`}
                    className="figures pl-1 text-right text-[12px] xl:pl-3 xl:text-[15px]"
                  >
                    {isHomed ? show(shown.machine[axis]) : "unknown"}
                  </td>
                ) : null}
                <td className="figures pl-1 text-right text-[12px] xl:pl-3 xl:text-[15px] text-ink2">
                  {isHomed ? show(shown.counter[axis]) : "–"}
                </td>
                <td className="pr-1 text-right">
                  {isReadOnly ? null : (
                    <Button
                      look="quiet"
                      className="!px-0.5 text-xs"
                      aria-label={`Zero the ${axis.toUpperCase()} counter`}
                      title={`Zero the ${axis.toUpperCase()} counter`}
                      onClick={() => onZeroCounter(axis)}
                    >
                      →0
                    </Button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Panel>
  );
}
