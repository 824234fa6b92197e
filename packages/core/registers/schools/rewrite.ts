import { convertSchool } from "./convert";

/** One tool of a setup as its registers have it: geometry, wear, and the work Z it works with. */
export interface SetupRow {
  readonly id: string;
  readonly geometry: number;
  readonly wear: number;
  readonly workZ: number;
}

export type RewriteTo =
  | { readonly school: "gauge-line" | "plane-lift"; readonly known: { readonly id: string; readonly value: number } }
  | { readonly school: "part-touch" | "offset-per-tool" }
  | { readonly school: "master"; readonly master: string }
  | { readonly school: "block-in-wear"; readonly block: number; readonly surfaceWork: number };

/**
 * The same setup written in another school, row by row; what a tool's registers add up to stays, so every closure
 * stays. gauge-line: `known` is one tool's length; plane-lift: its reading on the plane; master: that tool becomes
 * zero; block-in-wear: geometry as touched on a block of that height, the block and the touched surface's own Z in
 * wear. Old wear goes into geometry. Any one length unit. Null when the named tool is not in the table.
 */
export function rewriteSetup(rows: readonly SetupRow[], to: RewriteTo): SetupRow[] | null {
  const sums = rows.map(({ id, geometry, wear, workZ }) => ({ id, sum: geometry + wear + workZ }));
  switch (to.school) {
    case "part-touch":
      return sums.map(({ id, sum }) => ({ id, geometry: sum, wear: 0, workZ: 0 }));
    case "offset-per-tool":
      return sums.map(({ id, sum }) => ({ id, geometry: 0, wear: 0, workZ: sum }));
    case "block-in-wear":
      return sums.map(({ id, sum }) => {
        const wear = -to.block - to.surfaceWork;
        return { id, geometry: sum - wear, wear, workZ: 0 };
      });
    case "gauge-line":
    case "plane-lift":
    case "master": {
      const lengths = Object.fromEntries(sums.map(({ id, sum }) => [id, sum]));
      const made = convertSchool(
        lengths,
        0,
        to.school === "master" ? to : { school: "gauge-line", known: { id: to.known.id, length: to.known.value } },
      );
      return made && sums.map(({ id }) => ({ id, geometry: made.lengths[id] ?? 0, wear: 0, workZ: made.workZ }));
    }
  }
}
