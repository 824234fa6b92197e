import { type TurningLane } from "./lane";
import { type Counts } from "../../units/counts";
import { displayCounts } from "../../registers/mill";
import { turretSum } from "../../registers/turret";

/** What the work display of a lathe reads on an axis, counts: M − C − W less the row in use. */
export function turretDisplay(
  { registers, position, modal, lathe }: Pick<TurningLane, "registers" | "position" | "modal" | "lathe">,
  axis: "x" | "z",
): Counts {
  return displayCounts(registers, position, modal.workOffset, 0)[axis] - turretSum(registers.turret, axis, lathe.row);
}

/**
 * What a student takes into the ledger as a reading on an axis, counts: of a turret where the machine stands; of a
 * readout what it shows; of a gang slide what the display shows with no row called, because every tool there shares one
 * work X.
 */
export function readsAt(
  state: Pick<TurningLane, "kind" | "registers" | "position" | "modal" | "lathe">,
  axis: "x" | "z",
): Counts {
  switch (state.kind) {
    case "readout":
      return turretDisplay(state, axis);
    case "gang":
      return displayCounts(state.registers, state.position, state.modal.workOffset, 0)[axis];
    case "turret":
      return state.position[axis];
  }
}
