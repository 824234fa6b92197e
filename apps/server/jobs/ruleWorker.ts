import { upgradeEvent } from "@probe-lane/core/bench";
import { markingSchema } from "@probe-lane/core/exercises";
import { rule, type Ruling } from "@probe-lane/core/grading";

/** What a worker thread gets: a lane's log as it is stored, and the marking to rule it by. */
export interface RuleTask {
  readonly log: readonly { readonly seq: number; readonly atMs: number; readonly event: unknown }[];
  readonly marking: unknown;
}

/** Rules one lane. Runs in a worker thread, so that lanes at work are answered meanwhile. */
export default function ruleTask({ log, marking }: RuleTask): Ruling {
  return rule(
    log.map(({ event, ...entry }) => ({ ...entry, event: upgradeEvent(event) })),
    markingSchema.parse(marking),
  );
}
