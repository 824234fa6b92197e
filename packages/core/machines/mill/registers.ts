import { lengthInUse } from "../../lane/state";
import { type RegisterId } from "../../registers";
import type { Standing } from "../offers";
import type { MillLane } from "./lane";

/** What a capture reads of a mill's lane. */
export const millStanding = (state: MillLane): Standing => ({
  registers: state.registers,
  position: state.position,
  counterZ: state.position.z - state.counterZero.z,
  workOffset: state.modal.workOffset,
  lengthCounts: lengthInUse(state),
  lengthCapture: state.setup.settings.lengthCapture,
  row: null,
});

/** Setting a length geometry zeroes that row's wear, where the machine's setting says so. */
export const clearedOnMill = ({ setup }: MillLane, register: RegisterId): RegisterId[] =>
  /^H\d/.test(register) && setup.settings.captureClearsWear ? [`HW${Number(register.slice(1))}`] : [];
