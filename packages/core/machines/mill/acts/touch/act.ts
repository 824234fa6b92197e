import type * as schema from "./schema";
import { TOUCH_KEPT_IN, type Touching } from "./schema";
import type { MillAct, MillLane, Touch } from "../../lane";
import { type EventOf } from "../../../events";
import { withContactSeen, withLengthTouch } from "../../evidence";

/** What a touch is evidence of: an edge, or the length of what is held on what it was let down onto. */
function withTouchSeen(state: MillLane, { by, axis }: EventOf<"touchBegan">): MillLane["evidence"] {
  const { evidence, holds, seat } = state;
  if (axis !== "z") return withContactSeen(evidence, axis);
  if (by === "taster") return evidence;
  if (by === "probe") return withLengthTouch(evidence, holds, "stock");
  return withLengthTouch(evidence, holds, by === "plungerSetter" ? "setter" : (seat.lamp?.on ?? null));
}

const keeping = (state: MillLane, by: Touching, kept: object): MillLane => ({
  ...state,
  [TOUCH_KEPT_IN[by]]: { ...state[TOUCH_KEPT_IN[by]], ...kept },
});

function began(state: MillLane, event: EventOf<"touchBegan">): MillLane {
  const { by, axis, approach, at, errorMm, number } = event;
  const touch: Touch = { axis, approach, at, errorMm, number };
  return { ...keeping(state, by, { touch, touches: number }), evidence: withTouchSeen(state, event) };
}

/** What gives way when it is touched and tells, and what is hard and only leans. */
export const touch: MillAct<typeof schema> = {
  decide: {},
  evolve: {
    touchBegan: began,
    touchEnded: (state, { by }) => keeping(state, by, { touch: null }),
    touchedHard: (state, { on }) => ({ ...state, resting: on }),
    leftHard: (state) => ({ ...state, resting: null }),
  },
  tells: {
    touchedHard: ({ position, holds, carried }, at, { on }, clickMm) => ({
      touches: [
        {
          ...at,
          machineZ: position.z,
          on,
          by: "metal",
          thicknessMm: 0,
          clickMm,
          feel: "metal",
          holds,
          seatMm: carried.seatMm,
          known: [],
        },
      ],
    }),
  },
  retracted: (draft) => {
    if (draft.state.resting) draft.emit({ type: "leftHard" });
  },
};
