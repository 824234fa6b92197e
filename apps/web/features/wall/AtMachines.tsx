import type { FloorWallRow } from "@probe-lane/contract";
import { floorGateWords } from "@probe-lane/core/words";
import { ClipboardCheck, Hand } from "lucide-react";
import { Link } from "react-router";
import { LaneRule } from "../../ui";
import { sinceWords } from "./since";

function Want({ row, now }: { row: FloorWallRow; now: string }) {
  if (row.handUpAt !== null)
    return (
      <b className="flex items-center gap-1 text-contact">
        <Hand size={15} aria-hidden /> hand is up, {sinceWords(row.handUpAt, now)}
      </b>
    );
  if (row.signature === "given") return <span>signed, to be handed in</span>;
  if (row.isWaiting)
    return (
      <b className="flex items-center gap-1 text-contact">
        <ClipboardCheck size={15} aria-hidden /> wants a check and a signature
      </b>
    );
  return <span className="text-ink2">working</span>;
}

/** Who stands at a real machine, who wants somebody first. */
export function AtMachines({ rows, now }: { rows: readonly FloorWallRow[]; now: string }) {
  if (rows.length === 0) return null;
  return (
    <div className="overflow-x-auto rounded-panel border border-rule bg-panel">
      <table className="w-full">
        <caption className="bg-well px-4 py-1 text-left text-xs font-bold">
          At the machines <span className="font-normal text-ink2">{rows.length}</span>
        </caption>
        <thead className="sr-only">
          <tr>
            <th>Student</th>
            <th>Lane</th>
            <th>State</th>
            <th>Last entry</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => {
            const at = row.gates.find(({ isPassed }) => !isPassed);
            return (
              <tr
                key={row.laneId}
                className={`border-t border-rule-soft ${row.handUpAt === null ? "" : "bg-contact-soft"}`}
              >
                <th scope="row" className="max-w-60 py-1 pl-4 text-left">
                  <Link
                    to={`/floor/${row.laneId}`}
                    title={row.studentName}
                    className="block truncate font-bold underline decoration-ink3 underline-offset-2"
                  >
                    {row.studentName}
                  </Link>
                  <span className="block truncate text-xs font-normal text-ink2">
                    {row.machine}, {row.title}
                  </span>
                </th>
                <td className="w-[26rem] px-3">
                  <LaneRule
                    isSmall
                    label={`Gates of ${row.studentName}`}
                    gates={row.gates.map(({ name, isPassed }) => ({ name, isPassed, label: floorGateWords[name] }))}
                  />
                  <span className="text-xs">
                    {at ? (
                      <>
                        at <b>{floorGateWords[at.name]}</b>
                      </>
                    ) : null}
                  </span>
                </td>
                <td className="px-3">
                  <Want row={row} now={now} />
                </td>
                <td className="figures px-3 pr-4 text-right">{sinceWords(row.lastEntryAt, now)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
