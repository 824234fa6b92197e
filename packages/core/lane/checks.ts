import { type LaneBase } from "./state";
import { type CommandOf } from "../machines/commands";
import { type Decision } from "../machines/act";
import { parseLengthMm } from "../units/parse";
import { accept, refuse } from "../result";
import { type LaneRules } from "./rules";
import type { CheckName } from "./names";

/** What an eye or a rule tells, to half a millimetre. */
export const toHalf = (mm: number): number => Math.round(mm * 2) / 2;

/** How near one must stand for an eye or a rule to tell, mm. */
export const LOOK_CLOSE_MM = 10;

/** By eye and rule a surprise is more than this; what a display or an instrument reads must agree better, mm. */
const BY_EYE_MM = 1.5;
const READ_MM = 0.06;
const BY_EYE = new Set<CheckName>(["overZero", "knownHeight", "ruleBeside", "clearance"]);

/** Whether what was seen is what was expected, as well as such a look can tell. */
export const isAlike = (check: CheckName, expectedMm: number, seenMm: number): boolean =>
  Math.abs(seenMm - expectedMm) <= (BY_EYE.has(check) ? BY_EYE_MM : READ_MM);

/** Whether its figure is read off a display or an instrument, and not judged by eye. */
export const isReadOff = (check: CheckName): boolean => !BY_EYE.has(check);

/** What is expected, said before anyone looks, and before the answer stands on the screen. */
export function expectCheck<S extends LaneBase>(
  rules: Pick<LaneRules<S>, "answerShows">,
  state: S,
  { check, text, tool }: CommandOf<"expectCheck">,
): Decision {
  const read = parseLengthMm(text, state.setup.unit);
  if (!read.ok) return refuse({ code: "text", problem: read.error });
  if (rules.answerShows(state, check)) return refuse({ code: "answerShows" });
  return accept([{ type: "checkExpected", check, mm: read.value, ...(tool === undefined ? {} : { tool }) }]);
}

/** The look itself: what an eye, a rule or a display tells. */
export function lookCheck<S extends LaneBase>(rules: Pick<LaneRules<S>, "looked">, state: S): Decision {
  if (!state.desk.check) return refuse({ code: "expectFirst" });
  const seen = rules.looked(state);
  return seen.ok ? accept([{ type: "checkLooked", seenMm: seen.value }]) : seen;
}

/** What is said of it; from here on it vouches for the registers that the figure hung on. */
export function judgeCheck<S extends LaneBase>(
  rules: Pick<LaneRules<S>, "covers">,
  state: S,
  isAsExpected: boolean,
): Decision {
  const { check } = state.desk;
  if (!check) return refuse({ code: "expectFirst" });
  return check.looked
    ? accept([{ type: "checkJudged", isAsExpected, covers: [...rules.covers(state, check)] }])
    : refuse({ code: "lookFirst" });
}
