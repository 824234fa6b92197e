import type { TurningSeen } from "@probe-lane/core/bench";
import { registerAxis, type RegisterId } from "@probe-lane/core/registers";
import { parseLengthMm } from "@probe-lane/core/units";
import { registerName } from "@probe-lane/core/words";
import { FigureInput } from "../../../../ui";
import type { Filled, SentenceProps } from "../../lane/kit";

/** Registers that no place of the tool can tell. */
const TYPED_ONLY: Record<string, string> = {
  R: "A nose radius is no place: the insert’s designation says it. Type it.",
  Q: "A tip code is one of 0 to 9, by where the tip stands from the nose. Type it.",
  L: "The library takes what is typed: what the corner reads with this tool, its sign turned. Type it.",
  Y: "Center height is half of the pip, plus where it stands. Type it.",
};

/** The value that the sentence gives a register, mm; null while it cannot be read. */
export function asMm({ sheet: { unit } }: TurningSeen, _register: RegisterId, filled: Filled): number | null {
  const read = parseLengthMm(filled.distance, unit);
  return read.ok ? read.value : null;
}

/** The sentence that sets a register of a lathe from where the tip stands. */
export function LatheSentence({ seen, register, filled, fill, firstBox }: SentenceProps<TurningSeen>) {
  const typedOnly = /^([RQY]|L[XZ])\d/.exec(register)?.[0].slice(0, 1);
  if (typedOnly) return <p>{TYPED_ONLY[typedOnly]}</p>;
  return (
    <p className="leading-8">
      Make {registerAxis(register) === "x" ? "X, a diameter," : "Z"} read{" "}
      <FigureInput
        ref={firstBox}
        aria-label="What the display must read here"
        className="w-24"
        value={filled.distance}
        onChange={(event) => fill({ distance: event.target.value })}
      />{" "}
      where the tip stands now, by <b>{registerName(register, seen.kind)}</b>.
    </p>
  );
}
