import type { MarkCell, MarksPolicy } from "@probe-lane/contract";
import type { ClassStore } from "../classes/store";

/**
 * Where nobody has said anything: every lane passes whose must-haves are there, late ones count whole, and nothing
 * lapses.
 */
const UNSAID: MarksPolicy = { passPercent: 0, latePercent: 100, lapseMonths: 0 };

/** The rules of a class for its marks. */
export const policyIn =
  (classes: Pick<ClassStore, "classOf">) =>
  async (classId: string): Promise<MarksPolicy> =>
    (await classes.classOf(classId))?.policy ?? UNSAID;

const TENTHS = 10;
/** Sums of tenths are off by so little. */
const ROUNDING = 1e-9;

/** Whether marks are as many as a class asks for. */
export const isEnough = (total: number, outOf: number, { passPercent }: Pick<MarksPolicy, "passPercent">): boolean =>
  total >= (outOf * passPercent) / 100 - ROUNDING;

/** A lane's marks by the rules of its class: what of them counts where it came late, and whether that is enough. */
export function byPolicy(cell: MarkCell, policy: Omit<MarksPolicy, "lapseMonths">): MarkCell {
  const share = cell.isLate ? policy.latePercent / 100 : 1;
  const total = Math.round(cell.total * share * TENTHS) / TENTHS;
  return {
    ...cell,
    total,
    ruled: share === 1 ? null : cell.total,
    isPassed: cell.isPassed && isEnough(total, cell.outOf, policy),
  };
}
