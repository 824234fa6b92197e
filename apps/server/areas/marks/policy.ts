import type { MarkCell, MarksPolicy } from "@probe-lane/contract";
import type { ClassStore } from "../classes/store";

/** Where nobody has said anything: every lane passes whose must-haves are there, and late ones count whole. */
const UNSAID: MarksPolicy = { passPercent: 0, latePercent: 100 };

/** The rules of a class for its marks. */
export const policyIn =
  (classes: Pick<ClassStore, "classOf">) =>
  async (classId: string): Promise<MarksPolicy> =>
    (await classes.classOf(classId))?.policy ?? UNSAID;

const TENTHS = 10;
/** Sums of tenths are off by so little. */
const ROUNDING = 1e-9;

/** A lane's marks by the rules of its class: what of them counts where it came late, and whether that is enough. */
export function byPolicy(cell: MarkCell, { passPercent, latePercent }: MarksPolicy): MarkCell {
  const share = cell.isLate ? latePercent / 100 : 1;
  const total = Math.round(cell.total * share * TENTHS) / TENTHS;
  return {
    ...cell,
    total,
    ruled: share === 1 ? null : cell.total,
    isPassed: cell.isPassed && total >= (cell.outOf * passPercent) / 100 - ROUNDING,
  };
}
