import type { Draft } from "../lane/draft";
import { jogClicks } from "../lane/names";
import type { LaneBase } from "../lane/state";
import { isInTravel } from "../lane/travel";
import type { CommandOf } from "../machines/commands";
import type { LaneEvent } from "../machines/events";
import type { AxisCounts } from "../registers";

/** What one click led to: what happened, whether the hands stop at it, and where it ended when something held it up. */
export interface ClickMade {
  readonly events: readonly LaneEvent[];
  readonly isFelt: boolean;
  readonly endsAt?: AxisCounts;
}

/**
 * Clicks of a wheel on one axis, one after another; stops after the click at which something is first felt or seen, and
 * before travel ends. A click is never divided: a contact made within it is late by what was left of it. `made` is
 * asked after each click, on a draft of its own; `passed` when clicks that met nothing are written down together.
 */
export function turnWheel<S extends LaneBase>(
  draft: Draft<S>,
  { axis, direction, clicks, size }: CommandOf<"jog">,
  made: (trial: Draft<S>, fromStep: AxisCounts) => ClickMade,
  passed?: () => void,
): void {
  const stepCounts = direction * jogClicks[draft.state.setup.unit][size];
  let done = 0;
  let to = draft.state.position;
  const write = () => {
    if (done > 0) draft.emit({ type: "jogged", axis, size, direction, clicks: done, to });
    done = 0;
    passed?.();
  };
  for (let click = 0; click < clicks; click++) {
    const from = to;
    const next = { ...from, [axis]: from[axis] + stepCounts };
    if (!isInTravel(draft.state.setup.unit, axis, next[axis])) break;
    to = next;
    done += 1;
    const { events, isFelt, endsAt } = made(draft.trial({ ...draft.state, position: to }), from);
    if (events.length === 0 && !isFelt) continue;
    to = endsAt ?? to;
    write();
    for (const event of events) draft.emit(event);
    if (isFelt) break;
  }
  write();
}
