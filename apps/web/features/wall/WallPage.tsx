import { keyOf, reading } from "../../app/queries";
import type { WallRow } from "@probe-lane/contract";
import { gateWords, incidentWords } from "@probe-lane/core/words";
import { useMe } from "../../app/session";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Hand } from "lucide-react";
import { Link } from "react-router";
import { useLaneChanges } from "../../app/events";
import { AtMachines } from "./AtMachines";
import { ClassBar } from "./ClassBar";
import { sinceWords } from "./since";
import { LaneRule, Loading, Notice, PageError } from "../../ui";

function shutWords({ gates }: WallRow): string {
  const shut = gates.filter(({ isPassed }) => !isPassed).length;
  return shut === 0 ? "all gates open" : `${shut} ${shut === 1 ? "gate" : "gates"} left shut`;
}

function State({ row }: { row: WallRow }) {
  if (row.isHandedIn)
    return (
      <span>
        handed in, <b className="figures">{row.total === null ? "…" : `${Math.round(row.total)}/${row.outOf}`}</b>
      </span>
    );
  if (row.isHandUp)
    return (
      <b className="flex items-center gap-1 text-contact">
        <Hand size={15} aria-hidden /> hand is up
      </b>
    );
  if (row.isStopped) return <b className="text-contact">machine stopped</b>;
  return <span className="text-ink2">working</span>;
}

function Row({ row, now }: { row: WallRow; now: string }) {
  const seesMarks = useMe().me?.role === "instructor";
  const gates = row.gates.map((gate) => ({ name: gate.name, isPassed: gate.isPassed, label: gateWords(gate) }));
  const at = row.gates.find(({ isPassed }) => !isPassed);
  const opened = row.gates.findLast(({ isPassed }) => isPassed);
  const last = row.incidents.at(-1);
  return (
    <tr className={`border-t border-rule-soft ${row.isHandUp || row.isStopped ? "bg-contact-soft" : ""}`}>
      <th scope="row" className="max-w-60 py-1 pl-4 text-left">
        <Link
          to={row.isHandedIn ? `/lanes/${row.laneId}/${seesMarks ? "ruling" : "review"}` : `/lanes/${row.laneId}`}
          className="block truncate font-bold underline decoration-ink3 underline-offset-2"
          title={row.studentName}
        >
          {row.studentName}
        </Link>
        <span className="block truncate text-xs font-normal text-ink2">
          {row.title}, attempt {row.attempt}
        </span>
      </th>
      <td className="w-[26rem] px-3">
        <LaneRule isSmall gates={gates} label={`Gates of ${row.studentName}`} />
        <span className="text-xs">
          {row.isHandedIn ? (
            shutWords(row)
          ) : at ? (
            <>
              {opened ? `${gateWords(opened)} is open, now at ` : "at "}
              <b>{gateWords(at)}</b>
            </>
          ) : (
            "all gates open"
          )}
        </span>
      </td>
      <td className="px-3">
        <State row={row} />
      </td>
      <td className="figures px-3 text-right">{sinceWords(row.lastProgressAt, now)}</td>
      <td className="max-w-64 px-3 pr-4 text-xs">
        {row.incidents.length === 0 ? (
          <span className="text-ink2">none</span>
        ) : (
          <>
            <b>{row.incidents.length}</b>
            {last ? `, last: ${incidentWords[last]}` : ""}
          </>
        )}
      </td>
    </tr>
  );
}

/** What a lane wants of the one who looks at the wall. */
const GROUPS = {
  needsYou: { title: "Needs you", has: (row: WallRow) => !row.isHandedIn && (row.isHandUp || row.isStopped) },
  working: { title: "Working", has: (row: WallRow) => !row.isHandedIn && !row.isHandUp && !row.isStopped },
  done: { title: "Done", has: (row: WallRow) => row.isHandedIn },
} as const;

/** More lanes than this stand in two columns where the screen has room for them. */
const ONE_COLUMN = 18;
function columnsOf(rows: readonly WallRow[]): (readonly WallRow[])[] {
  const ordered = Object.values(GROUPS).flatMap(({ has }) => rows.filter(has));
  if (ordered.length === 0) return [];
  if (ordered.length <= ONE_COLUMN) return [ordered];
  const half = Math.ceil(ordered.length / 2);
  return [ordered.slice(0, half), ordered.slice(half)];
}

function WallTable({ rows, now }: { rows: readonly WallRow[]; now: string }) {
  return (
    <div className="overflow-x-auto rounded-panel border border-rule bg-panel">
      <table className="w-full">
        <caption className="sr-only">Each student’s newest lane, who needs help first</caption>
        <thead>
          <tr className="text-left text-xs text-ink2">
            <th className="py-1.5 pl-4 font-normal">Student</th>
            <th className="px-3 font-normal">Lane</th>
            <th className="px-3 font-normal">State</th>
            <th className="px-3 text-right font-normal">Last gate</th>
            <th className="px-3 font-normal">Incidents</th>
          </tr>
        </thead>
        {Object.entries(GROUPS).map(([name, { title, has }]) => {
          const of = rows.filter(has);
          return of.length === 0 ? null : (
            <tbody key={name}>
              <tr className={`border-t border-rule ${name === "needsYou" ? "bg-contact-soft" : "bg-well"}`}>
                <th colSpan={5} scope="rowgroup" className="px-4 py-0.5 text-left text-xs">
                  {title} <span className="font-normal text-ink2">{of.length}</span>
                </th>
              </tr>
              {of.map((row) => (
                <Row key={row.laneId} row={row} now={now} />
              ))}
            </tbody>
          );
        })}
      </table>
    </div>
  );
}

/** The class, live: who is at which gate, who needs help first. */
export function WallPage() {
  const client = useQueryClient();
  const { me } = useMe();
  const { data, error } = useQuery({ ...reading("/wall", {}), refetchInterval: 30_000 });
  useLaneChanges(() => void client.invalidateQueries({ queryKey: keyOf("/wall", {}) }));
  if (error && !data) return <PageError error={error} />;
  if (!data) return <Loading />;
  const count = (test: (row: WallRow) => boolean) => data.rows.filter(test).length;
  const handsAtMachines = data.floor.filter(({ handUpAt }) => handUpAt !== null).length;
  return (
    <div className="flex flex-col gap-3">
      {error ? (
        <Notice kind="stop" role="alert">
          {error.message} What you see is from before.
        </Notice>
      ) : null}
      <p className="text-ink2" role="status">
        {data.className} · <b className="text-ink">{count(({ isHandUp }) => isHandUp) + handsAtMachines}</b> with a hand
        up · <b className="text-ink">{count(({ isStopped, isHandedIn }) => isStopped && !isHandedIn)}</b> stopped ·{" "}
        <b className="text-ink">{count(({ isHandedIn }) => !isHandedIn)}</b> at work ·{" "}
        <b className="text-ink">{count(({ isHandedIn }) => isHandedIn)}</b> handed in ·{" "}
        <b className="text-ink">{data.idle.length}</b> not begun
      </p>
      <ClassBar pausedBy={data.pausedBy} mayPause={me?.role === "instructor"} />
      <AtMachines rows={data.floor} now={data.now} />
      <div className={`grid gap-3 ${data.rows.length > ONE_COLUMN ? "2xl:grid-cols-2" : ""}`}>
        {columnsOf(data.rows).map((rows, place) => (
          <WallTable key={place} rows={rows} now={data.now} />
        ))}
      </div>
      {data.rows.length === 0 ? (
        <p className="p-4 text-ink2">
          No lane has been opened yet. Students start one from “My lanes”; it appears here at once.
        </p>
      ) : null}
      {data.idle.length > 0 ? (
        <p className="text-ink2">Not begun: {data.idle.map(({ studentName }) => studentName).join(", ")}</p>
      ) : null}
    </div>
  );
}
