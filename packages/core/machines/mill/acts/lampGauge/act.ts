import type * as schema from "./schema";
import { type MillAct, type MillDraft } from "../../lane";
import { type Decision } from "../../../act";
import { accept, refuse } from "../../../../result";
import { reachIn } from "../gapUnder";
import { seenRoomMm, seenScene, surfaceBelow } from "../../eye";
import { toMm } from "../../../../units/scale";
import { trueScene } from "../../solids";
import { pressedMm, sensePlunger } from "../plungers";
import { LAMP_GAUGE_TRAVEL_MM, drawLampApproach } from "../../../../instruments/lampGauge";
import { touchOf } from "../plungers";

/** The height gauge is stood under the spindle, on whatever is there. */
function standLamp({ state }: MillDraft): Decision {
  if (!state.setup.instruments.includes("lampGauge"))
    return refuse({ code: "instrumentNotHere", instrument: "lampGauge" });
  if (state.seat.lamp) return refuse({ code: "lampStandsAlready" });
  const problem = reachIn(state);
  if (problem) return refuse(problem);
  const on = surfaceBelow(state);
  if (!on || on === "setter") return refuse({ code: "paperNothingBelow" });
  const seenTop = seenScene(state)[on]?.highZ ?? 0;
  const roomMm = seenRoomMm(state, state.holds);
  if (roomMm < state.setup.lampGaugeMm + 1 && Number.isFinite(seenTop))
    return refuse({ code: "noRoomForGauge", heightMm: state.setup.lampGaugeMm });
  return accept([
    {
      type: "lampStood",
      on,
      x: toMm(state.position.x, state.scale),
      y: toMm(state.position.y, state.scale),
      footMm: trueScene(state)[on]?.highZ ?? 0,
    },
  ]);
}

function takeLamp({ state }: MillDraft): Decision {
  if (!state.seat.lamp) return refuse({ code: "lampNotStanding" });
  const problem = reachIn(state) ?? (state.lamp.touch ? ({ code: "lampPressed" } as const) : null);
  return problem ? refuse(problem) : accept([{ type: "lampTaken" }]);
}

/** The lamp after a step by hand. Returns true when it comes on or goes out. */
function senseLamp(draft: MillDraft, clickMm: number): boolean {
  const { lampGauge } = trueScene(draft.state);
  const top = lampGauge && { ...lampGauge, highZ: lampGauge.highZ - draft.state.lamp.lowMm };
  if (!top && !draft.state.lamp.touch) return false;
  return sensePlunger(draft, "lampGauge", pressedMm(draft.state, top, LAMP_GAUGE_TRAVEL_MM), clickMm, drawLampApproach);
}

/** A height gauge whose lamp lights at its stated height. */
export const lampGauge: MillAct<typeof schema> = {
  decide: { standLamp, takeLamp },
  evolve: {
    lampStood: (state, { on, x, y, footMm }) => ({ ...state, seat: { ...state.seat, lamp: { on, x, y, footMm } } }),
    lampTaken: (state) => ({ ...state, seat: { ...state.seat, lamp: null }, lamp: { ...state.lamp, touch: null } }),
  },
  tells: {
    touchBegan: (before, at, event) =>
      event.by === "lampGauge"
        ? {
            touches: [
              touchOf(before, at, event, before.seat.lamp?.on ?? "stock", before.setup.lampGaugeMm, [
                { id: "gaugeHit", mm: -before.lamp.lowMm },
              ]),
            ],
          }
        : {},
  },
  senses: (draft, _fromStep, clickMm) => senseLamp(draft, clickMm),
  retracted: (draft) => {
    if (draft.state.lamp.touch) draft.emit({ type: "touchEnded", by: "lampGauge" });
  },
};
