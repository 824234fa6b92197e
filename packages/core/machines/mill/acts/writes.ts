import type { MillDraft, MillLane } from "../lane";
import { readRegister, type RegisterId, type WorkOffsetName } from "../../../registers";
import { toCounts } from "../../../units/scale";

/** A work offset written by the control itself: the machine figure at which the axis is over what reads zero, mm. */
export function writeOffset(
  draft: MillDraft,
  into: WorkOffsetName,
  places: readonly (readonly ["x" | "y" | "z", number])[],
): void {
  for (const [axis, mm] of places) {
    const register: RegisterId = `${into}.${axis}`;
    const { registers, scale, position } = draft.state satisfies MillLane;
    const common = readRegister(registers, `common.${axis}`);
    draft.emit({
      type: "registerChanged",
      register,
      from: readRegister(registers, register),
      to: toCounts(mm, scale) - common,
      how: "byCycle",
      machine: position,
    });
  }
}
