import { reading } from "../../app/queries";
import type { RulingView } from "@probe-lane/contract";
import { useQueries } from "@tanstack/react-query";
import { format } from "date-fns";
import { Link, useParams } from "react-router";
import { Shell } from "../../app/Shell";
import { Loading, Notice, PageError, Panel } from "../../ui";
import { compareRows, wentWrong, type CompareRow } from "./compareView";
import { marks } from "./show";

/** Two attempts of one student at one exercise, side by side, the earlier one left. */
export function ComparePage() {
  const { id = "", other = "" } = useParams();
  const [one, two] = useQueries({
    queries: [id, other].map((lane) => reading("/lanes/:id/ruling", { id: lane })),
  });
  const error = one?.error ?? two?.error;
  if (error)
    return (
      <Shell title="Two attempts">
        <PageError error={error} />
      </Shell>
    );
  if (!one?.data || !two?.data) return <Loading />;
  if (one.data.assignmentId !== two.data.assignmentId || one.data.lane.studentName !== two.data.lane.studentName) {
    return (
      <Shell title="Two attempts">
        <div className="p-4">
          <Notice kind="stop" role="alert">
            These two lanes are not attempts of one student at one exercise. Go back to a ruling and choose an attempt
            there.
          </Notice>
        </div>
      </Shell>
    );
  }
  const [left, right] = one.data.lane.attempt < two.data.lane.attempt ? [one.data, two.data] : [two.data, one.data];
  return <Compared left={left} right={right} />;
}

function Compared({ left, right }: { left: RulingView; right: RulingView }) {
  const { strands, values } = compareRows(left.ruling, right.ruling);
  const all: CompareRow[] = [
    {
      name: "Marks",
      left: marks(left.ruling.total),
      right: marks(right.ruling.total),
      better:
        left.ruling.total > right.ruling.total + 0.05
          ? "left"
          : right.ruling.total > left.ruling.total + 0.05
            ? "right"
            : null,
    },
    ...strands,
    ...values,
  ];
  return (
    <Shell title="Two attempts" detail={`${left.lane.title} · ${left.lane.studentName}`}>
      <div className="mx-auto flex max-w-5xl flex-col gap-4">
        <Panel
          title="Side by side"
          note="every attempt has a part of its own, so what is compared is how far off each value was"
        >
          <table className="w-full table-fixed">
            <thead>
              <tr className="text-left">
                <th className="px-4 py-2">
                  <span className="sr-only">What</span>
                </th>
                {[left, right].map(({ lane }) => (
                  <th key={lane.id} scope="col" className="px-4 py-2">
                    <Link to={`/lanes/${lane.id}/ruling`} className="font-bold text-expected underline">
                      Attempt {lane.attempt}
                    </Link>
                    <span className="ml-2 text-xs font-normal text-ink2">
                      {lane.handedInAt ? format(new Date(lane.handedInAt), "d MMM, HH:mm") : ""} ·{" "}
                      <Link className="underline" to={`/lanes/${lane.id}/review`}>
                        replay
                      </Link>
                    </span>
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {all.map((row, at) => (
                <tr key={row.name} className="border-t border-rule-soft">
                  <th scope="row" className="px-4 py-1.5 text-left font-normal text-ink2">
                    {row.name}
                  </th>
                  <Figure text={row.left} isBetter={row.better === "left"} isLarge={at === 0} />
                  <Figure text={row.right} isBetter={row.better === "right"} isLarge={at === 0} />
                </tr>
              ))}
            </tbody>
          </table>
        </Panel>
        <div className="grid gap-4 md:grid-cols-2">
          {[left, right].map(({ lane, ruling }) => {
            const lines = wentWrong(ruling);
            return (
              <Panel
                key={lane.id}
                title={`What went wrong in attempt ${lane.attempt}`}
                bodyClassName="divide-y divide-rule-soft"
              >
                {lines.length === 0 ? (
                  <p className="px-4 py-2">Nothing.</p>
                ) : (
                  lines.map((line, at) => (
                    <p key={at} className="px-4 py-2">
                      {line}
                    </p>
                  ))
                )}
              </Panel>
            );
          })}
        </div>
      </div>
    </Shell>
  );
}

function Figure({ text, isBetter, isLarge }: { text: string; isBetter: boolean; isLarge: boolean }) {
  return (
    <td className={`figures px-4 py-1.5 ${isLarge ? "text-2xl" : ""} ${isBetter ? "font-bold" : "text-ink2"}`}>
      {text}
      {isBetter ? <span className="ml-2 font-sans text-xs font-bold text-expected">better</span> : null}
    </td>
  );
}
