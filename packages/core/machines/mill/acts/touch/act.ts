import type * as schema from "./schema";
import type { MillAct, MillLane, Touch } from "../../lane";
import { type EventOf } from "../../../events";
import { withContactSeen, withLengthTouch } from "../../evidence";

function began(state: MillLane, event: EventOf<"touchBegan">): MillLane {
  const { by, axis, approach, at, errorMm, number } = event;
  const touch: Touch = { axis, approach, at, errorMm, number };
  const { evidence } = state;
  switch (by) {
    case "taster":
      return {
        ...state,
        taster: { ...state.taster, touch, touches: number },
        evidence: axis === "z" ? evidence : withContactSeen(evidence, axis),
      };
    case "probe":
      return {
        ...state,
        probe: { ...state.probe, touch, touches: number },
        evidence: axis === "z" ? withLengthTouch(evidence, state.holds, "stock") : withContactSeen(evidence, axis),
      };
    case "lampGauge":
      return {
        ...state,
        lamp: { ...state.lamp, touch, touches: number },
        evidence: withLengthTouch(evidence, state.holds, state.seat.lamp?.on ?? null),
      };
    case "plungerSetter":
      return {
        ...state,
        setter: { ...state.setter, touch, touches: number },
        evidence: withLengthTouch(evidence, state.holds, "setter"),
      };
  }
}

function ended(state: MillLane, by: EventOf<"touchEnded">["by"]): MillLane {
  switch (by) {
    case "taster":
      return { ...state, taster: { ...state.taster, touch: null } };
    case "probe":
      return { ...state, probe: { ...state.probe, touch: null } };
    case "lampGauge":
      return { ...state, lamp: { ...state.lamp, touch: null } };
    case "plungerSetter":
      return { ...state, setter: { ...state.setter, touch: null } };
  }
}

/** What gives way when it is touched and tells, and what is hard and only leans. */
export const touch: MillAct<typeof schema> = {
  decide: {},
  evolve: {
    touchBegan: began,
    touchEnded: (state, { by }) => ended(state, by),
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
