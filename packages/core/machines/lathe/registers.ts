import type { Standing } from "../offers";
import type { TurningLane } from "./lane";

/** What a capture reads of a lathe's lane. */
export const latheStanding = ({ registers, position, counterZero, modal, setup, lathe }: TurningLane): Standing => ({
  registers,
  position,
  counterZ: position.z - counterZero.z,
  workOffset: modal.workOffset,
  lengthCounts: 0,
  lengthCapture: setup.settings.lengthCapture,
  row: lathe.row,
});
