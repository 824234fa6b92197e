import { reading } from "../../app/queries";
import type { MarksView } from "@probe-lane/contract";
import { useQuery } from "@tanstack/react-query";
import {
  createColumnHelper,
  createSortedRowModel,
  rowSortingFeature,
  sortFns,
  tableFeatures,
  useTable,
} from "@tanstack/react-table";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import { MarksFile } from "./MarksFile";
import { Loading, Notice, PageError, TextLink } from "../../ui";

type Row = MarksView["students"][number];
const features = tableFeatures({ rowSortingFeature, sortedRowModel: createSortedRowModel(), sortFns });
const helper = createColumnHelper<typeof features, Row>();

function Cell({ row, assignmentId, hasStrands }: { row: Row; assignmentId: string; hasStrands: boolean }) {
  const cell = row.cells[assignmentId];
  if (!cell || cell.attempts === 0)
    return (
      <span className="text-ink2">
        <span aria-hidden>–</span>
        <span className="sr-only">not begun</span>
      </span>
    );
  if (!cell.best) return <span className="text-ink2">open</span>;
  const { best } = cell;
  return (
    <span className="flex flex-wrap items-baseline gap-x-2">
      <Link to={best.href} className="figures text-lg font-bold underline decoration-ink3 underline-offset-2">
        {Math.round(best.total)}
      </Link>
      {best.outOf === 100 ? null : <span className="text-xs text-ink2">of {best.outOf}</span>}
      <span className="text-xs text-ink2">
        {cell.attempts > 1 ? `best of ${cell.attempts}` : ""}
        {cell.isOpen ? " + one open" : ""}
        {best.isLate ? <b> late</b> : null}
        {best.ruled === null ? "" : `, ruled ${Math.round(best.ruled)}`}
        {best.isPassed ? null : <b className="text-contact"> not passed</b>}
      </span>
      {hasStrands ? (
        <span className="basis-full text-xs text-ink2">
          {best.strands.map(({ name, marks, outOf }) => (
            <span key={name} className="block whitespace-nowrap">
              {name}{" "}
              <span className="figures">
                {Math.round(marks)}/{outOf}
              </span>
            </span>
          ))}
        </span>
      ) : null}
    </span>
  );
}

/** Students × exercises; the best attempt counts. */
export function MarksPage() {
  const { data, error } = useQuery(reading("/marks", {}));
  const [hasStrands, setStrands] = useState(false);
  const isBegun = (id: string) => data?.students.some(({ cells }) => (cells[id]?.attempts ?? 0) > 0) ?? false;
  const waiting = (data?.assignments ?? []).filter(({ id }) => !isBegun(id));
  const titleOf = (id: string) => data?.assignments.find((one) => one.id === id)?.title ?? id;
  const isFloor = (id: string) => data?.assignments.find((one) => one.id === id)?.isFloor ?? true;
  const columns = useMemo(
    () =>
      helper.columns([
        helper.accessor("name", {
          header: "Student",
          cell: ({ row, getValue }) => (
            <Link
              to={`/students/${row.original.id}/skills`}
              title="Skills of this student"
              className="font-bold underline decoration-ink3 underline-offset-2"
            >
              {getValue()}
              {row.original.isRemoved ? <span className="font-normal text-ink2"> (removed)</span> : null}
            </Link>
          ),
        }),
        ...(data?.assignments ?? [])
          .filter(({ id }) => data?.students.some(({ cells }) => (cells[id]?.attempts ?? 0) > 0))
          .map(({ id, title }) =>
            helper.accessor((row) => row.cells[id]?.best?.total ?? -1, {
              id,
              header: title,
              cell: ({ row }) => <Cell row={row.original} assignmentId={id} hasStrands={hasStrands} />,
            }),
          ),
      ]),
    [data, hasStrands],
  );
  const rows = useMemo(() => data?.students ?? [], [data?.students]);
  const table = useTable({ features, columns, data: rows });
  if (error) return <PageError error={error} />;
  if (!data) return <Loading />;
  if (data.students.length === 0) return <Notice>There are no students in this class yet.</Notice>;
  return (
    <div className="flex flex-col gap-3">
      {data.looks.length > 0 ? (
        <section
          aria-label="Asked for another look"
          className="rounded-panel border border-l-[5px] border-rule border-l-contact bg-panel px-4 py-2"
        >
          <b>Asked for another look</b>
          <ul>
            {data.looks.map(({ laneId, studentName, title, asked }) => (
              <li key={laneId}>
                <TextLink to={`/lanes/${laneId}/ruling`}>
                  {studentName}, {title}
                </TextLink>
                : {asked}
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      <div className="flex flex-wrap items-center justify-between gap-3">
        <label className="flex items-center gap-2">
          <input type="checkbox" checked={hasStrands} onChange={(event) => setStrands(event.target.checked)} /> Show the
          strands of every mark
        </label>
        <span className="flex flex-wrap items-center gap-4">
          <TextLink to="/patterns">What goes wrong</TextLink>
          <TextLink to="/standings">Who can do what</TextLink>
          <MarksFile />
        </span>
      </div>
      <div className="overflow-x-auto rounded-panel border border-rule bg-panel">
        <table className="w-full">
          <caption className="sr-only">
            Best marks of each student for each exercise, out of 100 where nothing else is said
          </caption>
          <thead>
            {table.getHeaderGroups().map((group) => (
              <tr key={group.id} className="text-left">
                {group.headers.map((header, place) => {
                  const sorted = header.column.getIsSorted();
                  return (
                    <th
                      key={header.id}
                      className={`px-4 py-2 ${place === 0 ? "sticky left-0 bg-panel" : ""}`}
                      aria-sort={sorted === "asc" ? "ascending" : sorted === "desc" ? "descending" : "none"}
                    >
                      <button
                        type="button"
                        className="text-left text-xs font-bold text-ink2"
                        onClick={header.column.getToggleSortingHandler()}
                      >
                        <table.FlexRender header={header} />{" "}
                        <span aria-hidden>{sorted === "asc" ? "▲" : sorted === "desc" ? "▼" : "↕"}</span>
                      </button>
                      {isFloor(header.id) ? null : (
                        <Link
                          to={`/assignments/${header.id}/marking`}
                          className="block text-xs font-normal text-expected underline"
                          aria-label={`Tolerances and weights of ${titleOf(header.id)}`}
                        >
                          tolerances, weights
                        </Link>
                      )}
                    </th>
                  );
                })}
              </tr>
            ))}
          </thead>
          <tbody>
            {table.getRowModel().rows.map((row) => (
              <tr key={row.id} className="border-t border-rule-soft">
                {row.getAllCells().map((cell, place) => (
                  <td key={cell.id} className={`px-4 py-1.5 ${place === 0 ? "sticky left-0 bg-panel" : ""}`}>
                    <table.FlexRender cell={cell} />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {waiting.length > 0 ? (
        <details className="text-ink2">
          <summary className="cursor-pointer">{waiting.length} exercises that nobody has begun</summary>
          <p className="mt-1">
            {waiting.map(({ id, title, isFloor: atFloor }, index) => (
              <span key={id}>
                {index > 0 ? " · " : ""}
                {atFloor ? (
                  title
                ) : (
                  <Link to={`/assignments/${id}/marking`} className="underline decoration-ink3">
                    {title}
                  </Link>
                )}
              </span>
            ))}
          </p>
        </details>
      ) : null}
    </div>
  );
}
