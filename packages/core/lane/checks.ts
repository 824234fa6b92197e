import { type LaneBase } from "./state";
import { type CommandOf } from "../machines/commands";
import { type Decision } from "../machines/act";
import { parseLengthMm } from "../units/parse";
import { accept, refuse } from "../result";
import { type LaneRules } from "./rules";

/** What an eye or a rule tells, to half a millimetre. */
export const toHalf = (mm: number): number => Math.round(mm * 2) / 2;

/** What is expected, said before anyone looks. */
export function expectCheck(state: LaneBase, { check, text, tool }: CommandOf<"expectCheck">): Decision {
  const read = parseLengthMm(text, state.setup.unit);
  if (!read.ok) return refuse({ code: "text", problem: read.error });
  return accept([{ type: "checkExpected", check, mm: read.value, ...(tool === undefined ? {} : { tool }) }]);
}

/**
 * The look itself: what an eye or a rule tells; null where the figure stands in the log already (a touch, a sum, a
 * lifted move).
 */
export function lookCheck<S extends LaneBase>(rules: Pick<LaneRules<S>, "looked">, state: S): Decision {
  if (!state.desk.check) return refuse({ code: "expectFirst" });
  const seen = rules.looked(state);
  return seen.ok ? accept([{ type: "checkLooked", seenMm: seen.value }]) : seen;
}

export function judgeCheck(state: LaneBase, isAsExpected: boolean): Decision {
  if (!state.desk.check) return refuse({ code: "expectFirst" });
  return state.desk.check.looked ? accept([{ type: "checkJudged", isAsExpected }]) : refuse({ code: "lookFirst" });
}
