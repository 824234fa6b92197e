import { incidentCosts, type IncidentCode } from "../bench";
import type { LaneTrace } from "../diagnosis";
import type { Marking } from "../exercises";
import type { CheckNote } from "./checking";
import type { HandoverFinding } from "./handover";
import type { StrikeFinding } from "./proving";
import type { MethodStep } from "./stepNames";
import type { StepRow } from "./steps";
import { severityOf } from "./severity";
import { tenth } from "./tenths";
import type { WorkingFinding } from "./working";

/** One reason for a mark: what was done or missed, or what happened, with its place in the log. */
export type Finding =
  | {
      readonly code: "stepDone" | "stepMissed";
      readonly step: MethodStep;
      /** Where its marks count; not said in rulings of before version 7. */
      readonly strand?: "method" | "proving" | undefined;
      /** Missed because nothing was done that it is about: not too late, but not at all. */
      readonly isAbsent?: boolean | undefined;
      readonly note?: CheckNote | undefined;
      readonly marks: number;
      readonly outOf: number;
      readonly seq: number | null;
    }
  | {
      readonly code: "incident";
      readonly incident: IncidentCode;
      readonly cost: number;
      readonly failsOutright: boolean;
      /** Not passed, whatever the points; not said in rulings of before it was. */
      readonly failsLane?: boolean | undefined;
      readonly seq: number;
      readonly atMs: number;
      readonly rpm?: number | undefined;
    }
  | { readonly code: "noIncident"; readonly marks: number }
  | StrikeFinding
  | WorkingFinding
  | HandoverFinding;

type StepFinding = Extract<Finding, { code: "stepDone" | "stepMissed" }>;

/** The steps that a lane asks for, in the order of the work. */
export const stepsAsked = <T extends LaneTrace>(rows: readonly StepRow<T>[], trace: Pick<T, "final">): MethodStep[] =>
  rows.filter((row) => row.asked(trace)).map(({ step }) => step);

/**
 * Each required step of a strand, with an equal share of it. Without a weight for proving its steps count as method; of
 * a setup that was handed over the strand of proving is what was found in it. `set` is the lane as its first part was
 * cut: what is not about the run is read there.
 */
export function stepFindings<T extends LaneTrace>(
  trace: T,
  set: T,
  rows: readonly StepRow<T>[],
  strand: "method" | "proving",
  { weights, tolerancesMm }: Pick<Marking, "weights" | "tolerancesMm">,
): StepFinding[] {
  const isProvingApart = weights.proving > 0 && !trace.final.setup.handover;
  const strandOf = (row: StepRow<T>) => (row.strand === "proving" && isProvingApart ? "proving" : "method");
  const asked = rows.filter((row) => row.asked(trace) && strandOf(row) === strand);
  const each = weights[strand] / asked.reduce((sum, { shares = 1 }) => sum + shares, 0);
  return asked.map(({ step, done, isAbsent, note, isOfRun, shares = 1 }): StepFinding => {
    const share = each * shares;
    const read = isOfRun ? trace : set;
    const seq = done(read, tolerancesMm);
    const noted = note?.(read) ?? null;
    const of = { step, strand, outOf: share, ...(noted ? { note: noted } : {}) };
    return seq === null
      ? { code: "stepMissed", ...of, isAbsent: isAbsent?.(read) ?? false, marks: 0, seq }
      : { code: "stepDone", ...of, marks: share, seq };
  });
}

export function safetyFindings({ log }: LaneTrace, marking: Pick<Marking, "weights" | "severity">): Finding[] {
  const outOf = marking.weights.safety;
  const incidents = log.flatMap(({ seq, atMs, event }): Finding[] =>
    event.type === "incidentHappened"
      ? [
          {
            code: "incident",
            incident: event.code,
            cost: tenth(incidentCosts[event.code] * outOf),
            failsOutright: severityOf(event.code, marking) !== "costs",
            failsLane: severityOf(event.code, marking) === "failsLane",
            seq,
            atMs,
            rpm: event.rpm,
          },
        ]
      : [],
  );
  return incidents.length > 0 ? incidents : [{ code: "noIncident", marks: outOf }];
}
