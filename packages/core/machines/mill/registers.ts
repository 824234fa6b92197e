import { captureLength, captureOffset, registerAxis, registerKind, turretPlace, type RegisterId } from "../../registers";
import { accept, refuse, type Result } from "../../result";
import { lengthInUse } from "../../lane/state";
import type { Counts } from "../../units";
import type { Refusal } from "../../lane/refusals";
import type { MillLane } from "./lane";

/** A tool table of a lathe is on no mill. */
export const isOnMill = (register: RegisterId): boolean => turretPlace(register) === null;

/** The value that a capture of `register` as `as` would store now, counts; length rows follow the machine's rule. */
export function capturedOnMill(state: MillLane, register: RegisterId, as: Counts): Result<Counts, Refusal> {
  const { registers, position, modal, counterZero, setup } = state;
  if (registerKind(register) === "diameter") return refuse({ code: "diameterIsTyped", register });
  if (register.startsWith("HW")) return accept(position.z - as);
  if (registerKind(register) === "length")
    return accept(
      captureLength(registers, Number(register.slice(1)), setup.settings.lengthCapture, {
        machineZ: position.z,
        counterZ: position.z - counterZero.z,
        work: modal.workOffset,
        as,
      }),
    );
  return accept(
    captureOffset(registers, register, position[registerAxis(register)], as, modal.workOffset, lengthInUse(state)),
  );
}

/** Setting a length geometry zeroes that row's wear, where the machine's setting says so. */
export const clearedOnMill = ({ setup }: MillLane, register: RegisterId): RegisterId[] =>
  /^H\d/.test(register) && setup.settings.captureClearsWear ? [`HW${Number(register.slice(1))}`] : [];
