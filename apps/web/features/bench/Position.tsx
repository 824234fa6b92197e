import type { Axis } from "@probe-lane/core/registers";
import { scales, showCounts } from "@probe-lane/core/units";
import { Button, Panel } from "../../ui";
import type { LinkView } from "./laneLink";

const AXES: readonly Axis[] = ["x", "y", "z"];
const TURNING_AXES: readonly Axis[] = ["x", "z"];

/** Work, machine and counter, three rows; the axis that moved last stands out by weight and mark. */
export function Position({
  view,
  lastAxis,
  onZeroCounter,
  isReadOnly,
}: {
  view: LinkView;
  lastAxis: Axis;
  onZeroCounter(axis: Axis): void;
  isReadOnly: boolean;
}) {
  const { shown, observation } = view;
  const { modal, isHomed, sheet, lathe } = observation;
  const show = (counts: number) => showCounts(counts, scales[sheet.unit]);
  // a hand-wound lathe has nothing but what its readout shows
  const isReadout = sheet.lathe?.control === "readout";
  const turn = modal.rotationDeg === 0 ? "" : ` · turned ${modal.rotationDeg.toFixed(3)}°`;
  return (
    <Panel
      title={`${isReadout ? "Readout" : "Position"}, ${sheet.unit === "mm" ? "mm" : "inch"}`}
      note={
        <>
          <b className={`figures text-ink ${isReadout ? "hidden" : ""}`}>
            {modal.workOffset.startsWith("P") ? `G54.1 ${modal.workOffset}` : modal.workOffset}
          </b>
          {isReadout ? "" : " · "}
          {lathe
            ? `T${lathe.station}, ${isReadout ? (lathe.row === null ? "no row recalled" : `row ${lathe.row} recalled`) : lathe.row === null ? "no offset called" : `offset ${lathe.row} called`}`
            : modal.lengthRow === null
              ? "length comp off"
              : `length comp H${modal.lengthRow}`}
          {turn}
        </>
      }
    >
      <table className="w-full">
        <thead>
          <tr className="text-right text-xs text-ink2">
            <th className={lathe ? "w-9" : "w-8"} />
            <th className="font-normal">{isReadout ? "Shows" : "Work"}</th>
            {isReadout ? null : <th className="font-normal">Machine</th>}
            <th className="font-normal">Counter</th>
            <th className="w-9" />
          </tr>
        </thead>
        <tbody>
          {(lathe ? TURNING_AXES : AXES).map((axis) => {
            const isLast = axis === lastAxis;
            return (
              <tr key={axis} className="border-t border-rule-soft">
                <th scope="row" className={`pl-2 text-left text-xl ${isLast ? "text-contact" : ""}`}>
                  {axis.toUpperCase()}
                  {lathe && axis === "x" ? (
                    <span className="text-sm font-normal" title="X counts diameters">
                      ⌀
                    </span>
                  ) : null}
                  <span className="sr-only">{isLast ? ", moving" : ""}</span>
                </th>
                <td
                  data-testid={`work-${axis}`}
                  className={`figures py-0.5 text-right text-[21px] leading-8 xl:text-[25px] font-semibold ${isLast ? "text-contact" : ""}`}
                >
                  {isHomed ? show(shown.work[axis]) : "–"}
                </td>
                {isReadout ? null : (
                  <td
                    data-testid={`machine-${axis}`}
                    className="figures pl-1 text-right text-[13px] xl:pl-3 xl:text-[15px]"
                  >
                    {isHomed ? show(shown.machine[axis]) : "unknown"}
                  </td>
                )}
                <td className="figures pl-1 text-right text-[13px] xl:pl-3 xl:text-[15px] text-ink2">
                  {isHomed ? show(shown.counter[axis]) : "–"}
                </td>
                <td className="pr-1 text-right">
                  {isReadOnly ? null : (
                    <Button
                      look="quiet"
                      className="text-xs"
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
