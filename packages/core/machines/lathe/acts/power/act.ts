import type * as schema from "./schema";
import { type LatheAct, type LatheDraft } from "../../lane";
import { type Decision } from "../../../act";
import { accept, refuse } from "../../../../result";

/** Off and on again: the machine forgets where it is, which row was called, and what was declared. */
function switchOff(draft: LatheDraft): Decision {
  const { state } = draft;
  if (!state.setup.lathe.start) return refuse({ code: "notOnThisMachine" });
  if (state.lathe.gap) return refuse({ code: "paperInGap" });
  if (state.lathe.block) return refuse({ code: "blockInGap" });
  for (const axis of ["x", "z"] as const) {
    const from = state.registers.common[axis];
    if (from !== 0)
      draft.emit({
        type: "registerChanged",
        register: `common.${axis}`,
        from,
        to: 0,
        how: "cleared",
        machine: state.position,
      });
  }
  draft.emit({ type: "switchedOff" });
  return accept(draft.events);
}

/** The machine switched off and on again: it forgets where it is and what was in force; nothing can be taken back. */
export const power: LatheAct<typeof schema> = {
  decide: { switchOff },
  evolve: {
    switchedOff: (state) => ({
      ...state,
      isHomed: false,
      spindle: { ...state.spindle, isOn: false, rpm: 0 },
      desk: { ...state.desk, undo: [] },
      modal: { ...state.modal, motion: "rapid", distance: "absolute", workOffset: "G54", feedMmPerMin: null },
      lathe: {
        ...state.lathe,
        row: null,
        starts: state.lathe.starts + 1,
        evidence: { ...state.lathe.evidence, isDeclaredAgain: false },
      },
    }),
  },
};
