import type { FigureName, Method } from "../diagnosis/catalog";
import type { TermName } from "../lane/names";
import type { FloorRegister } from "./exercise";

/** A line that may lie between where it stood and the register, and the length that the sheet gives it. */
export interface OfferedTerm {
  readonly term: TermName;
  /** Without its sign, which is the student's to find; null where the sheet gives none, mm. */
  readonly givenMm: number | null;
}

/** What may lie between, by how a register is set; with the figure of the sheet that says how much, where one does. */
const BETWEEN: Record<Method, readonly (readonly [TermName, FigureName | null])[]> = {
  "mill-edge": [
    ["tipRadius", "tipRadius"],
    ["edgeWork", "edgeWork"],
  ],
  "mill-center": [],
  "mill-length": [
    ["paper", "paper"],
    ["block", "block"],
    ["facing", "facing"],
  ],
  "mill-diameter": [["nominal", "nominalDiameter"]],
  "lathe-x": [
    ["diameter", null],
    ["paper", "paper"],
  ],
  "lathe-z": [
    ["block", "block"],
    ["facing", "facing"],
  ],
  "lathe-readout": [
    ["paper", "paper"],
    ["diameter", null],
  ],
  "lathe-nose": [],
  "lathe-tip": [],
};

type Described = Pick<FloorRegister, "method" | "figures" | "holds">;

/** The lines that belong to a register: those that its way of setting knows, less what the sheet says is nothing. */
export function termsOffered({ method, figures, holds }: Described): OfferedTerm[] {
  return BETWEEN[method].flatMap(([term, figure]): OfferedTerm[] => {
    // nothing is taken from a diameter that goes in whole
    if (term === "nominal" && holds !== "difference") return [];
    if (figure === null) return [{ term, givenMm: null }];
    const given = figures[figure];
    return typeof given !== "number" || given === 0 ? [] : [{ term, givenMm: Math.abs(given) }];
  });
}

/** A gap may be written down as either. */
const GAPS: ReadonlySet<TermName> = new Set(["paper", "block"]);

/**
 * Of what belongs to a register by the sheet, what is not among the lines that were written; whoever writes what has no
 * name of its own may mean any of them.
 */
export function termsLeftOut(register: Described, written: readonly TermName[]): TermName[] {
  if (written.includes("other")) return [];
  const isThere = (term: TermName) => written.some((one) => one === term || (GAPS.has(one) && GAPS.has(term)));
  return termsOffered(register).flatMap(({ term, givenMm }) => (givenMm === null || isThere(term) ? [] : [term]));
}
