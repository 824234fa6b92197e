import type { MarkingDraft, RegradePreview } from "@probe-lane/contract";
import { mustHaveNames, strandNames } from "@probe-lane/core/grading";
import type { Marking } from "@probe-lane/core/exercises";
import { figure, mustHaveTexts, readMustHaves, type MustHaveTexts } from "../../ui/mustHaves";

export const toleranceNames = ["x", "y", "z", "d", "rotation"] as const;
type ToleranceName = (typeof toleranceNames)[number];

/** The form as it is typed. */
export interface MarkingTexts {
  tolerances: Record<ToleranceName, string>;
  zeroAt: string;
  weights: Record<(typeof strandNames)[number], string>;
  severity: Marking["severity"];
  mustHaves: MustHaveTexts;
}

export const textsOf = ({
  tolerancesMm,
  zeroAtMultiple,
  weights,
  severity,
  mustHaves,
}: Omit<Marking, "revision">): MarkingTexts => ({
  tolerances: {
    x: String(tolerancesMm.x),
    y: String(tolerancesMm.y),
    z: String(tolerancesMm.z),
    d: String(tolerancesMm.d),
    rotation: String(tolerancesMm.rotation),
  },
  zeroAt: String(zeroAtMultiple),
  weights: {
    values: String(weights.values),
    working: String(weights.working),
    method: String(weights.method),
    safety: String(weights.safety),
    proving: String(weights.proving),
  },
  severity,
  mustHaves: mustHaveTexts(mustHaves),
});

/** The marking that is typed, or what has to be mended first, in one sentence. */
export function readMarking({
  tolerances,
  zeroAt,
  weights,
  severity,
  mustHaves,
}: MarkingTexts): { draft: MarkingDraft; outOf: number } | { problem: string } {
  const tolerancesMm = Object.fromEntries(toleranceNames.map((name) => [name, figure(tolerances[name])]));
  if (Object.values(tolerancesMm).some((mm) => mm === null || mm <= 0))
    return { problem: "A tolerance is a figure above zero, in mm, such as 0.02." };
  const zeroAtMultiple = figure(zeroAt);
  if (zeroAtMultiple === null || zeroAtMultiple <= 1)
    return { problem: "Marks reach zero at more than one tolerance: give a figure such as 4." };
  const shares = Object.fromEntries(strandNames.map((name) => [name, figure(weights[name])]));
  if (Object.values(shares).some((weight) => weight === null))
    return { problem: "A weight is a figure of zero or more, such as 15." };
  const outOf = Object.values(shares).reduce<number>((sum, weight) => sum + (weight ?? 0), 0);
  if (outOf <= 0) return { problem: "At least one strand needs a weight." };
  const over = readMustHaves(mustHaves);
  if ("problem" in over) return over;
  const asks = mustHaveNames.some((name) => mustHaves.names[name]) ? over : {};
  return { draft: { tolerancesMm, zeroAtMultiple, weights: shares, severity, ...asks } as MarkingDraft, outOf };
}

export interface Change {
  laneId: string;
  who: string;
  before: number | null;
  after: number;
  by: number;
}

/** What changes, as a share of what can be had, largest first; lanes that stay as they are last. */
export function changesOf({ lanes }: RegradePreview): Change[] {
  return lanes
    .map(({ laneId, studentName, attempt, before, beforeOutOf, after, outOf }): Change => {
      const share = before === null || beforeOutOf === null ? null : (100 * before) / beforeOutOf;
      const now = (100 * after) / outOf;
      return {
        laneId,
        who: `${studentName}, attempt ${attempt}`,
        before: share,
        after: now,
        by: share === null ? 0 : now - share,
      };
    })
    .sort((a, b) => Math.abs(b.by) - Math.abs(a.by));
}

const asRead = (marks: number): number => Math.round(marks * 10);
/** Whether it reads otherwise than before: marks are shown to a tenth. */
export const isChanged = ({ before, after }: Change): boolean => before !== null && asRead(before) !== asRead(after);
