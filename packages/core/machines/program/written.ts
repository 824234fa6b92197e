import { exchangeIds, readRegisters } from "../../exchange";
import type { Dialect } from "../../gcode";
import type { LaneBase } from "../../lane/state";
import type { Write } from "../../proving";
import { isRegisterId, readRegister, writeRegister, type RegisterId } from "../../registers";
import { toCounts, type Counts } from "../../units";

export interface Written {
  readonly register: RegisterId;
  readonly from: Counts;
  readonly to: Counts;
}

/** Registers that a G10 of a program sets; null where it names one that is not there, or in a way that is not read. */
export function writesOf(
  { registers, scale }: Pick<LaneBase, "registers" | "scale">,
  { words, isInch }: Write,
  dialect: Dialect,
): Written[] | null {
  const text = Object.entries(words)
    .map(([letter, value]) => `${letter}${value}`)
    .join(" ");
  const read = readRegisters(text, exchangeIds(registers), dialect, isInch ? "inch" : "mm");
  if (read.length === 0 || read.some(({ problem }) => problem !== null)) return null;
  return read.flatMap(({ register, mm }) =>
    mm !== null && isRegisterId(register)
      ? [{ register, from: readRegister(registers, register), to: toCounts(mm, scale) }]
      : [],
  );
}

/** A lane with these registers. */
export const withWritten = <S extends LaneBase>(state: S, written: readonly Written[]): S => ({
  ...state,
  registers: written.reduce((registers, { register, to }) => writeRegister(registers, register, to), state.registers),
});

/** Thrown where a program that is followed sets a register that is not there. */
export class UnreadWrite extends Error {
  constructor(readonly line: number) {
    super(`what line ${line} sets is not read`);
  }
}

/** What is to be done at each G10 of a program that is followed with a lane's registers: they change under way. */
export function writing<S extends LaneBase>(state: S, dialect: Dialect, onChange: (now: S) => void) {
  let now = state;
  return (write: Write): void => {
    const written = writesOf(now, write, dialect);
    if (!written) throw new UnreadWrite(write.line);
    now = withWritten(now, written);
    onChange(now);
  };
}
