import { accept, refuse, type Result } from "../result";
import { Draft } from "./draft";
import type { LaneEvent } from "./events";
import { isInTravel } from "./motion";
import type { Refusal } from "./refusals";
import type { LaneState } from "./state";

/** The reference return: up first, away from everything, then home. */
export function referenceReturn(state: LaneState): Result<LaneEvent[], Refusal> {
  if (state.paper) return refuse({ code: "paperInGap" });
  if (state.block ?? state.lathe?.block) return refuse({ code: "blockInGap" });
  if (state.lathe?.gap) return refuse({ code: "paperInGap" });
  const up = { ...state.position, z: 0 };
  const draft = new Draft(state);
  if (state.position.z !== 0 && isInTravel(state, "z", 0)) draft.emit({ type: "moved", to: up, isRapid: true });
  if (draft.state.finder.approach !== null) draft.emit({ type: "approachEnded" });
  if (draft.state.taster.touch) draft.emit({ type: "touchEnded", by: "taster" });
  if (draft.state.probe.touch) draft.emit({ type: "touchEnded", by: "probe" });
  if (draft.state.lamp.touch) draft.emit({ type: "touchEnded", by: "lampGauge" });
  if (draft.state.setter.touch) draft.emit({ type: "touchEnded", by: "plungerSetter" });
  if (draft.state.resting) draft.emit({ type: "leftHard" });
  draft.emit({ type: "homed" });
  return accept(draft.events);
}
