import type * as schema from "./schema";
import { type ProgramDesk } from "../../../../lane/programDesk";
import { readRegister } from "../../../../registers";
import { accept, refuse } from "../../../../result";
import { toCounts } from "../../../../units";
import { type Decision } from "../../../act";
import { type CommandOf } from "../../../commands";
import { type MillAct, type MillDraft, type MillLane } from "../../lane";

function nameStale({ state }: MillDraft, { registers }: CommandOf<"nameStale">): Decision {
  const { kept } = state.setup;
  if (!kept) return refuse({ code: "nothingKept" });
  if (state.program.kept.isTaken) return refuse({ code: "takenBackAlready" });
  const other = registers.find((one) => !kept.registers.some(({ register }) => register === one));
  if (other !== undefined) return refuse({ code: "notOfKept", register: other });
  return accept([{ type: "staleNamed", registers: [...new Set(registers)] }]);
}

function takeSetupBack({ state }: MillDraft): Decision {
  const { kept } = state.setup;
  const { program, registers, scale, position } = state;
  if (!kept) return refuse({ code: "nothingKept" });
  if (program.kept.isTaken) return refuse({ code: "takenBackAlready" });
  if (program.kept.named === null) return refuse({ code: "nameStaleFirst" });
  return accept([
    ...kept.registers.map(({ register, mm }) => ({
      type: "registerChanged" as const,
      register,
      from: readRegister(registers, register),
      to: toCounts(mm, scale),
      how: "takenBack" as const,
      machine: position,
    })),
    ...(program.held?.number === kept.program ? [] : [{ type: "programLoaded" as const, number: kept.program }]),
    { type: "setupTakenBack" },
  ]);
}

const on = (state: MillLane, change: Partial<ProgramDesk["kept"]>): MillLane => ({
  ...state,
  program: { ...state.program, kept: { ...state.program.kept, ...change } },
});

/** A setup that was kept before: what of it is touched again is said first, then it is taken back. */
export const kept: MillAct<typeof schema> = {
  decide: { nameStale, takeSetupBack },
  evolve: {
    staleNamed: (state, { registers }) => on(state, { named: registers }),
    setupTakenBack: (state) => on(state, { isTaken: true }),
  },
  whileStopped: ["nameStale", "takeSetupBack"],
};
