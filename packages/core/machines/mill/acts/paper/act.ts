import type * as schema from "./schema";
import { type MillAct, type MillDraft } from "../../lane";
import { bearingBelow, surfaceBelow } from "../../eye";
import { feelAt } from "../../../../instruments/paper";
import { gapOverMm, inGap, needsSolidTip } from "../gapUnder";
import { type CommandOf } from "../../../commands";
import { type Decision } from "../../../act";
import { accept, refuse } from "../../../../result";
import { isFelt } from "../../../../instruments/gap";
import { type LaneEvent } from "../../../events";
import { withLengthTouch } from "../../evidence";

/** What the fingers feel after a step with paper or a feeler in place. */
function sensePaper(draft: MillDraft, clickMm: number): boolean {
  const { paper, truth, position } = draft.state;
  if (!paper) return false;
  const on = surfaceBelow(draft.state) ?? paper.on;
  const feel = feelAt(gapOverMm(draft.state, on), truth.gapsMm[paper.id] ?? 0.1);
  if (feel === "torn") {
    draft.emit({ type: "paperFelt", on, feel, machineZ: position.z, clickMm });
    draft.emit({
      type: "incidentHappened",
      code: "paperTorn",
      isSilent: false,
      failsOutright: false,
      stopsMachine: false,
      on,
    });
    draft.emit({ type: "paperPulled" });
    return true;
  }
  if (feel === paper.feel && feel === "slides") return false;
  const isChange = feel !== paper.feel;
  draft.emit({ type: "paperFelt", on, feel, machineZ: position.z, clickMm });
  return isChange;
}

/** Paper or a feeler laid under the tip, or under the bare nose. */
function placePaper({ state }: MillDraft, { id = "paper" }: CommandOf<"placePaper">): Decision {
  const problem = inGap(state);
  if (problem) return refuse(problem);
  if (!needsSolidTip(state)) return refuse({ code: "paperNeedsTool" });
  const sheet = state.setup.gaps.find((gap) => gap.id === id);
  if (!sheet || !isFelt(sheet.kind)) return refuse({ code: "gapThingNotHere", id });
  if (!state.isDoorOpen) return refuse({ code: "doorShutReach" });
  const on = bearingBelow(state);
  if (!on) return refuse({ code: "paperNothingBelow" });
  if (state.spindle.isOn) {
    return accept([
      {
        type: "incidentHappened",
        code: "paperUnderTurningTool",
        isSilent: false,
        failsOutright: true,
        stopsMachine: false,
        on,
      },
    ]);
  }
  const feel = feelAt(gapOverMm(state, on), state.truth.gapsMm[id] ?? sheet.nominalMm);
  // that it does not go under is felt, and no refusal: what hands find out is in the log
  return accept([
    feel === "slides"
      ? { type: "paperPlaced", on, feel, id }
      : {
          type: "blockTried",
          id,
          on,
          goes: false,
          machineZ: state.position.z,
          number: state.blocks.tries + 1,
          dirtMm: 0,
          clickMm: 0,
          isOpened: false,
        },
  ]);
}

function feelPaper({ state }: MillDraft): Decision {
  const { paper, position, truth } = state;
  if (!paper) return refuse({ code: "paperNotPlaced" });
  const feel = feelAt(gapOverMm(state, paper.on), truth.gapsMm[paper.id] ?? 0.1);
  return accept([{ type: "paperFelt", on: paper.on, feel, machineZ: position.z, clickMm: 0 }]);
}

function pullPaper({ state }: MillDraft): Decision {
  if (!state.paper) return refuse({ code: "paperNotPlaced" });
  const pulled: LaneEvent = { type: "paperPulled" };
  if (state.paper.feel !== "pinched") return accept([pulled]);
  return accept([
    {
      type: "incidentHappened",
      code: "paperTorn",
      isSilent: false,
      failsOutright: false,
      stopsMachine: false,
      on: state.paper.on,
    },
    pulled,
  ]);
}

/** Paper or a feeler between tip and surface, felt by the fingers. */
export const paper: MillAct<typeof schema> = {
  decide: { placePaper, feelPaper, pullPaper },
  evolve: {
    paperPlaced: (state, { id = "paper", on, feel }) => ({ ...state, paper: { id, on, feel } }),
    paperFelt: (state, { on, feel }) => ({
      ...state,
      paper: { id: state.paper?.id ?? "paper", on, feel },
      evidence: feel === "drags" || feel === "held" ? withLengthTouch(state.evidence, state.holds, on) : state.evidence,
    }),
    paperPulled: (state) => ({ ...state, paper: null }),
  },
  tells: {
    paperFelt: (before, at, { on, feel, machineZ, clickMm }, lastClickMm) => {
      if (feel === "slides") return {};
      const sheet = before.setup.gaps.find((one) => one.id === (before.paper?.id ?? "paper"));
      return {
        touches: [
          {
            ...at,
            machineZ,
            on,
            by: sheet?.kind ?? "paper",
            thicknessMm: sheet?.nominalMm ?? 0,
            clickMm: clickMm || lastClickMm,
            feel,
            holds: before.holds,
            seatMm: before.carried.seatMm,
            known: [],
          },
        ],
      };
    },
  },
  senses: (draft, _fromStep, clickMm) => sensePaper(draft, clickMm),
};
