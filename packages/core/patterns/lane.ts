import type { IncidentCode } from "../bench";
import { worthNaming, type CauseId } from "../diagnosis";
import type { Target } from "../exercises";
import type { FloorRuling } from "../floor";
import { isValueRight, type MethodStep, type RegisterRuling, type Ruling } from "../grading";

/** One value of a lane as a class is looked at by: how far off, and what is behind it. */
export interface ValueMet {
  readonly target: Target;
  /** mm, or degrees of a turn; not said of what is a choice. */
  readonly closureMm: number;
  readonly toleranceMm: number;
  readonly isRight: boolean;
  /** Mistakes that the log shows, and the likeliest where it only tells by the figure. */
  readonly made: readonly CauseId[];
  readonly likely: readonly CauseId[];
  /** Where known mistakes would have put it, mm. */
  readonly lines: readonly { readonly id: CauseId; readonly mm: number }[];
}

/** What of one ruling the patterns of a class are made of; a few hundred bytes of a large thing. */
export interface LanePattern {
  readonly values: readonly ValueMet[];
  readonly incidents: readonly IncidentCode[];
  readonly missed: readonly MethodStep[];
}

/** What is inferred is counted from these odds on, as the ruling names it first. */
const LIKELY = 0.5;
/** What is no mistake by a name: another figure than any known one, and rounding. */
const NAMELESS: ReadonlySet<CauseId> = new Set<CauseId>(["otherFigure", "rounding"]);

const named = (ids: readonly CauseId[]): CauseId[] => [...new Set(ids.filter((id) => !NAMELESS.has(id)))];

function valueMet(value: RegisterRuling): ValueMet {
  const { target, closureMm, toleranceMm, cause, signatures } = value;
  const isRight = isValueRight(value);
  const proven = !isRight && cause.kind === "proven" ? worthNaming(cause.terms).map(({ id }) => id) : [];
  const first = !isRight && cause.kind === "inferred" ? cause.ranked[0] : undefined;
  return {
    target,
    closureMm,
    toleranceMm,
    isRight,
    made: named(proven),
    likely: first && first.probability >= LIKELY ? named(first.ids as CauseId[]) : [],
    lines: signatures.map(({ id, predictedMm }) => ({ id, mm: predictedMm })),
  };
}

/** What a ruling of a bench lane says to a class's patterns. */
export const patternOf = ({ values, findings }: Pick<Ruling, "values" | "findings">): LanePattern => ({
  values: values.map(valueMet),
  incidents: findings.flatMap((finding) => (finding.code === "incident" ? [finding.incident] : [])),
  missed: findings.flatMap((finding) => (finding.code === "stepMissed" ? [finding.step] : [])),
});

/** What of a lane at a real machine is known: mistakes are inferred there, and never shown by a log. */
export type MachinePattern = Pick<ValueMet, "likely">;

/** What a ruling of a lane at a real machine says: one mistake for a figure that is told by it alone. */
export const patternAtMachine = ({ values }: Pick<FloorRuling, "values">): MachinePattern => ({
  likely: named(
    values.flatMap(({ verdict, explained }) => {
      const first = verdict === "wrong" ? explained?.ranked[0] : undefined;
      if (!first || first.probability < LIKELY) return [];
      return first.classes.flatMap((members) => (members.length === 1 ? members : []));
    }),
  ),
});
