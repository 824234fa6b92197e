import { rewriteSetup, type RewriteTo, type SetupRow } from "@probe-lane/core/registers";
import { parseLengthMm, type LengthUnit } from "@probe-lane/core/units";

/** Schools that a setup can be written in, in the order in which they are taught. */
export const targetSchools = [
  "part-touch",
  "plane-lift",
  "gauge-line",
  "master",
  "block-in-wear",
  "offset-per-tool",
] as const;
export type TargetSchool = (typeof targetSchools)[number];

export interface SchoolsForm {
  readonly unit: LengthUnit;
  readonly rows: readonly { readonly id: string; readonly geometry: string; readonly wear: string }[];
  readonly workZ: string;
  readonly to: TargetSchool;
  readonly tool: string;
  readonly known: string;
  readonly block: string;
}

export const emptyForm: SchoolsForm = {
  unit: "mm",
  rows: [1, 2, 3].map((id) => ({ id: String(id), geometry: "", wear: "" })),
  workZ: "0",
  to: "plane-lift",
  tool: "1",
  known: "",
  block: "25",
};

export interface SchoolsView {
  /** Before and after, for every tool that has a length; null while a figure is missing. */
  readonly lines: readonly { readonly before: SetupRow; readonly after: SetupRow }[] | null;
  readonly missing: "length" | "known" | "block" | "tool" | null;
}

/**
 * Reads the form and writes the setup in the other school; lengths in mm. An empty box is missing, never zero, but for
 * wear and work Z.
 */
export function schoolsView(form: SchoolsForm): SchoolsView {
  const read = (text: string): number | null => {
    const figure = parseLengthMm(text, form.unit);
    return figure.ok ? figure.value : null;
  };
  const orZero = (text: string) => (text.trim() === "" ? 0 : read(text));
  const workZ = orZero(form.workZ);
  const rows = form.rows.flatMap(({ id, geometry, wear }): SetupRow[] => {
    const [length, worn] = [read(geometry), orZero(wear)];
    return length === null || worn === null || workZ === null ? [] : [{ id, geometry: length, wear: worn, workZ }];
  });
  if (rows.length === 0) return { lines: null, missing: "length" };
  const to = targetOf(form, read);
  if (typeof to === "string") return { lines: null, missing: to };
  const after = rewriteSetup(rows, to);
  if (!after) return { lines: null, missing: "tool" };
  return {
    lines: rows.flatMap((before, place) => (after[place] ? [{ before, after: after[place] }] : [])),
    missing: null,
  };
}

function targetOf(
  { to, tool, known, block }: SchoolsForm,
  read: (text: string) => number | null,
): RewriteTo | "known" | "block" {
  switch (to) {
    case "part-touch":
    case "offset-per-tool":
      return { school: to };
    case "master":
      return { school: to, master: tool };
    case "block-in-wear": {
      const height = read(block);
      return height === null ? "block" : { school: to, block: height, surfaceWork: 0 };
    }
    case "gauge-line":
    case "plane-lift": {
      const value = read(known);
      return value === null ? "known" : { school: to, known: { id: tool, value } };
    }
  }
}
