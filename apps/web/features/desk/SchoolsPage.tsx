import { reading } from "../../app/queries";
import type { LaneView } from "@probe-lane/contract";
import { targetsOf, type Target } from "@probe-lane/core/exercises";
import { scales, showCounts, showLength } from "@probe-lane/core/units";
import { schoolWords } from "@probe-lane/core/words";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useSearchParams } from "react-router";
import { Button, FigureInput, Loading, Notice, PageError, Panel, Select } from "../../ui";
import {
  emptyForm,
  schoolsView,
  targetSchools,
  type SchoolsForm,
  type SchoolsView,
  type TargetSchool,
} from "./schoolsView";

/** Targets that are lengths of tools. */
const OF_A_LENGTH = new Set<Target["kind"]>(["toolSum", "toolRow"]);
const SELECT = "min-h-10 w-full rounded-[3px] border border-ink3 bg-field px-2";

/** A lane's own registers as the form takes them. */
function formOf({ observation: { sheet, registers } }: LaneView): SchoolsForm {
  const show = (counts: number) => showCounts(counts, scales[sheet.unit]);
  const tools = targetsOf(sheet).flatMap(({ kind, tool }) => (OF_A_LENGTH.has(kind) && tool !== null ? [tool] : []));
  return {
    ...emptyForm,
    unit: sheet.unit,
    workZ: show(registers.work.G54.z + registers.common.z),
    tool: String(tools[0] ?? 1),
    rows: tools.map((tool) => ({
      id: String(tool),
      geometry: show(registers.lengthGeometry[tool] ?? 0),
      wear: show(registers.lengthWear[tool] ?? 0),
    })),
  };
}

/** The same setup written in another school, line by line: what each tool's registers add up to stays. */
export function SchoolsPage() {
  const [params] = useSearchParams();
  const lane = params.get("lane");
  const { data, error } = useQuery({ ...reading("/lanes/:id", { id: lane ?? "" }), enabled: lane !== null });
  if (error) return <PageError error={error} />;
  if (lane !== null && !data) return <Loading />;
  return <Converter key={lane ?? "blank"} first={data ? formOf(data) : emptyForm} />;
}

const MISSING: Record<NonNullable<SchoolsView["missing"]>, string> = {
  length: "Type the length of one tool at least. Figures are read as people write them: 3/64, .0478, 12,4 mm.",
  known: "Type the one figure that the other school needs and these registers do not hold.",
  block: "Type the height of the block.",
  tool: "The tool named is not among those that have a length: choose another.",
};

const SCHOOL_NAMES: Record<TargetSchool, string> = {
  "part-touch": "each tool on the part",
  "plane-lift": "on a fixed plane, with a lift",
  "gauge-line": "from the gauge line",
  master: "against a master tool",
  "block-in-wear": "on a block, the block in wear",
  "offset-per-tool": "a work offset each",
};

function Converter({ first }: { first: SchoolsForm }) {
  const [form, setForm] = useState(first);
  const set = (change: Partial<SchoolsForm>) => setForm((held) => ({ ...held, ...change }));
  const setRow = (place: number, change: Partial<SchoolsForm["rows"][number]>) =>
    set({ rows: form.rows.map((row, at) => (at === place ? { ...row, ...change } : row)) });
  const view = schoolsView(form);
  const needsTool = form.to === "gauge-line" || form.to === "plane-lift" || form.to === "master";
  return (
    <div className="mx-auto grid max-w-5xl gap-4 lg:grid-cols-[1fr_1.35fr]">
      <form
        aria-label="The setup as it stands"
        className="flex flex-col gap-4"
        onSubmit={(event) => event.preventDefault()}
      >
        <Panel title="The registers as they stand" bodyClassName="flex flex-col gap-3 p-3">
          <table className="w-full">
            <thead>
              <tr className="text-left text-xs text-ink2">
                <th className="pr-2 font-normal">Tool</th>
                <th className="font-normal">Length</th>
                <th className="font-normal">Wear</th>
              </tr>
            </thead>
            <tbody>
              {form.rows.map(({ id, geometry, wear }, place) => (
                <tr key={id}>
                  <th scope="row" className="figures pr-2 text-left">
                    {id}
                  </th>
                  <td className="py-0.5 pr-2">
                    <FigureInput
                      aria-label={`Length of tool ${id}`}
                      className="w-full"
                      value={geometry}
                      onChange={(event) => setRow(place, { geometry: event.target.value })}
                    />
                  </td>
                  <td className="py-0.5">
                    <FigureInput
                      aria-label={`Wear of tool ${id}`}
                      className="w-full"
                      value={wear}
                      onChange={(event) => setRow(place, { wear: event.target.value })}
                    />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {form.rows.length < 8 ? (
            <Button
              className="self-start"
              onClick={() =>
                set({ rows: [...form.rows, { id: String(form.rows.length + 1), geometry: "", wear: "" }] })
              }
            >
              Another tool
            </Button>
          ) : null}
          <label className="font-bold">
            Work Z and common Z together{" "}
            <FigureInput
              aria-label="Work Z"
              className="ml-2 w-32"
              value={form.workZ}
              onChange={(event) => set({ workZ: event.target.value })}
            />
          </label>
          <label className="font-bold">
            Unit{" "}
            <Select
              aria-label="Unit"
              value={form.unit}
              onChange={(event) => set({ unit: event.target.value === "inch" ? "inch" : "mm" })}
            >
              <option value="mm">mm</option>
              <option value="inch">inch</option>
            </Select>
          </label>
        </Panel>
        <Panel title="The school it is to be written in" bodyClassName="flex flex-col gap-3 p-3">
          <label className="font-bold">
            School
            <select
              aria-label="School"
              className={SELECT}
              value={form.to}
              onChange={(event) => set({ to: event.target.value as TargetSchool })}
            >
              {targetSchools.map((school) => (
                <option key={school} value={school}>
                  {SCHOOL_NAMES[school]}
                </option>
              ))}
            </select>
          </label>
          <p className="text-ink2">
            {schoolWords[form.to][0]?.toUpperCase()}
            {schoolWords[form.to].slice(1)}.
          </p>
          {needsTool ? (
            <label className="font-bold">
              {form.to === "master" ? "The master is tool" : "Known of tool"}{" "}
              <Select aria-label="Tool" value={form.tool} onChange={(event) => set({ tool: event.target.value })}>
                {form.rows.map(({ id }) => (
                  <option key={id} value={id}>
                    {id}
                  </option>
                ))}
              </Select>
            </label>
          ) : null}
          {form.to === "gauge-line" || form.to === "plane-lift" ? (
            <label className="font-bold">
              {form.to === "gauge-line" ? "its length from the gauge line" : "where it meets the plane, machine Z"}{" "}
              <FigureInput
                aria-label="Known figure"
                className="ml-2 w-32"
                value={form.known}
                onChange={(event) => set({ known: event.target.value })}
              />
            </label>
          ) : null}
          {form.to === "block-in-wear" ? (
            <label className="font-bold">
              Height of the block{" "}
              <FigureInput
                aria-label="Height of the block"
                className="ml-2 w-28"
                value={form.block}
                onChange={(event) => set({ block: event.target.value })}
              />
            </label>
          ) : null}
        </Panel>
      </form>
      <Panel
        title="Line by line"
        className="self-start"
        bodyClassName="p-4"
        note="the sum of every line stays, and with it where every tip lands"
      >
        <div role="status" aria-live="polite">
          {view.lines ? (
            <Lines view={view} unit={form.unit} to={form.to} />
          ) : (
            <p>{view.missing ? MISSING[view.missing] : ""}</p>
          )}
        </div>
      </Panel>
    </div>
  );
}

function Lines({ view, unit, to }: { view: SchoolsView; unit: SchoolsForm["unit"]; to: TargetSchool }) {
  const show = (mm: number) => showLength(mm, scales[unit]);
  const cell = "figures px-1.5 py-1 text-right";
  const shared = view.lines?.[0]?.after.workZ ?? 0;
  return (
    <div className="flex flex-col gap-3">
      <table className="w-full">
        <thead>
          <tr className="text-xs text-ink2">
            <th />
            <th colSpan={2} className="pb-1 text-center font-normal">
              as it stands
            </th>
            <th colSpan={2} className="bg-expected-soft pb-1 text-center font-normal">
              in the other school
            </th>
            <th className="text-right font-normal">adds up to</th>
          </tr>
          <tr className="text-right text-xs text-ink2">
            <th className="text-left font-normal">Tool</th>
            <th className="font-normal">length</th>
            <th className="font-normal">wear</th>
            <th className="bg-expected-soft font-normal">{to === "offset-per-tool" ? "work Z" : "length"}</th>
            <th className="bg-expected-soft pr-1.5 font-normal">wear</th>
            <th className="font-normal">both times</th>
          </tr>
        </thead>
        <tbody>
          {view.lines?.map(({ before, after }) => (
            <tr key={before.id} className="border-t border-rule-soft">
              <th scope="row" className="figures text-left">
                {before.id}
              </th>
              <td className={cell}>{show(before.geometry)}</td>
              <td className={cell}>{show(before.wear)}</td>
              <td className={`${cell} bg-expected-soft font-bold`}>
                {show(to === "offset-per-tool" ? after.workZ : after.geometry)}
              </td>
              <td className={`${cell} bg-expected-soft`}>{show(after.wear)}</td>
              <td className={cell} data-testid={`sum-${before.id}`}>
                {show(after.geometry + after.wear + after.workZ)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {to === "offset-per-tool" ? (
        <p>Every tool works in an offset of its own; all length rows are zero.</p>
      ) : (
        <p>
          Work Z: <b className="figures">{show(view.lines?.[0]?.before.workZ ?? 0)}</b> →{" "}
          <b className="figures text-expected">{show(shared)}</b>.
        </p>
      )}
      <Notice>
        Change lengths and work Z together or not at all: half of a conversion is a tool that lands a whole length away.
      </Notice>
    </div>
  );
}
