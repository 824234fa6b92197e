import { standardUncertainty } from "../../desk/uncertainty";
import type { GapKind, InstrumentName } from "../../instruments";
import { click, lengthBias, lengthMethods, xyBias, type LengthMethod } from "../bias";
import type { Weigh } from "../bias";
import type { Exercise } from "../schema";

/** The gaps an exercise may draw, at their thickest. */
const worstGaps = (exercise: Exercise) => [
  { kind: "paper" as const, nominalMm: Math.max(...exercise.paperMm) },
  ...exercise.gaps,
];

/** Ways of touching in Z that an exercise lays out. */
export const lengthMethodsOf = ({
  instruments,
  gaps,
}: {
  instruments: readonly InstrumentName[];
  gaps: readonly { kind: GapKind }[];
}): LengthMethod[] =>
  lengthMethods.filter(
    (method) =>
      instruments.includes(method) &&
      (!["feeler", "block", "pin"].includes(method) || gaps.some(({ kind }) => kind === method)),
  );

/** What a mill's exercise allows: places, lengths, diameters. */
export function millFairness(exercise: Exercise, weigh: Weigh): void {
  const { datum, instruments, targets } = exercise;
  const ways = (["edgeFinder", "taster", "probe", "indicator"] as const).filter((name) => instruments.includes(name));
  for (const axis of targets.xy ? (["x", "y"] as const) : [])
    for (const way of ways) weigh(axis, way, xyBias(way, datum.kind === "corner" ? datum.edges[axis].approach : null));
  for (const method of targets.lengths.length > 0 ? lengthMethodsOf(exercise) : [])
    weigh("z", method, lengthBias(method, { gaps: worstGaps(exercise) }));
  if (targets.diameters.length > 0)
    weigh("d", "micrometer", { biasMm: 0, uMm: standardUncertainty([{ kind: "normal", value: 0.002 }, click]) });
}
