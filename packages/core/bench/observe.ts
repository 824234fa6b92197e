import type { Scene } from "../exercises";
import type { CoachStep } from "../lane/coach";
import { kitFor, type LaneState, type Observation } from "../machines/kits";
import type { TurningSeen } from "../machines/lathe/observe";
import type { MillSeen } from "../machines/mill/observe";

/** What never changes while a lane is worked: sent once, when it is opened. */
type Fixed = "kind" | "sheet" | "travelCounts" | "isCoachOn" | "doorLimitRpm" | "guardCounts";
/** What of an observation may have changed; the solids of a mill only where they may have. */
export type ObservationNow =
  (Omit<MillSeen, Fixed | "solids" | "boxes"> & Partial<Pick<MillSeen, "solids" | "boxes">>) | Omit<TurningSeen, Fixed>;

/** The solids that are drawn of a lane, as an eye places them; null where a machine draws none. */
export const drawnOf = (state: LaneState): Scene | null => kitFor(state.kind).drawn(state);

/** An observation without what never changes; solids only when the blank or a gauge may have moved since `before`. */
export function nowOf(observation: Observation, before?: Scene | null): ObservationNow {
  const {
    kind: _kind,
    sheet: _sheet,
    travelCounts: _travel,
    isCoachOn: _coach,
    doorLimitRpm: _door,
    guardCounts: _guard,
    ...now
  } = observation;
  if (!("solids" in now) || before !== now.solids) return now;
  const { solids: _solids, boxes: _boxes, ...moving } = now;
  return moving;
}

/** The next step for who has the coach on. It reads the observation only, so it cannot know more than the student. */
function coachOf(seen: Omit<Observation, "coach">): CoachStep | null {
  if (!seen.isCoachOn || seen.isHandedIn) return null;
  if (seen.isStopped) return { code: "resetAfterStrike" };
  const next = seen.gates.find(({ isPassed }) => !isPassed);
  if (!next) return null;
  // under way again it is taken further as any other check
  if (next.shutBy !== undefined && seen.check === null) return { code: "checkAgain", register: next.shutBy };
  return kitFor(seen.kind).coach(seen, next);
}

/** What may be seen of a lane. An instructor also sees the incidents that say nothing. */
export function observe(state: LaneState, viewer: "student" | "instructor"): Observation {
  const seen = kitFor(state.kind).seen(state, viewer);
  return { ...seen, coach: coachOf(seen) } as Observation;
}

/** The lane's gates in the order of the work; none opens by whether a value is right. */
export const gatesOf = (state: LaneState) => kitFor(state.kind).gates(state);
