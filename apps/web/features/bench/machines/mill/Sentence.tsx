import type { MillSeen } from "@probe-lane/core/bench";
import { toolNumber } from "@probe-lane/core/instruments";
import { registerAxis, registerKind, type Axis, type RegisterId } from "@probe-lane/core/registers";
import { parseLengthMm, type LengthUnit } from "@probe-lane/core/units";
import { registerWords } from "@probe-lane/core/words";
import { FigureInput, Select } from "../../../../ui";
import type { Filled, SentenceProps } from "../../lane/kit";

/** What an X or Y is counted from, by where the drawing has its zero. */
function faceWords({ sheet }: MillSeen, axis: "x" | "y"): { from: string; that: string } {
  if (sheet.datum.kind === "middle") return { from: "the middle of the blank", that: "that middle" };
  if (sheet.datum.kind === "feature")
    return {
      from:
        sheet.feature?.kind === "pocket"
          ? "the middle of the pocket"
          : `the axis of the ${sheet.feature?.kind ?? "feature"}`,
      that: "that",
    };
  return { from: axis === "x" ? "the left or right edge" : "the front or back edge", that: "that edge" };
}

const CAPTURE_WORDS = {
  machine: "Store the machine Z as it stands as",
  counter: "Store the Z counter as it stands as",
  display: "Make the display read zero here by setting",
} as const;

const isLength = (register: RegisterId): boolean => registerKind(register) === "length" && !register.startsWith("HW");
const isEdge = (register: RegisterId): boolean => registerKind(register) === "offset" && registerAxis(register) !== "z";

/** What was typed, mm; null while it cannot be read. */
function readMm(text: string, unit: LengthUnit): number | null {
  const read = parseLengthMm(text, unit);
  return read.ok ? read.value : null;
}

/** The value that the sentence gives a register, mm; a length is stored as it stands. */
export function asMm({ sheet: { unit } }: MillSeen, register: RegisterId, filled: Filled): number | null {
  if (isLength(register)) return 0;
  const distance = readMm(filled.distance, unit);
  const edge = readMm(filled.edge, unit);
  if (distance === null || edge === null) return null;
  if (!isEdge(register)) return edge + distance;
  if (distance !== 0 && filled.where === "") return null;
  return edge + (filled.where === "minus" ? -distance : distance);
}

/** The row of the tool that hangs in the spindle; the first tool's while none does. */
const heldRow = ({ holds, sheet }: MillSeen): number =>
  (holds ? toolNumber(holds) : null) ?? sheet.tools[0]?.number ?? 1;

export const firstRegister = ({ sheet }: MillSeen): RegisterId => (sheet.targets.xy ? "G54.x" : "H1");
export const registerForAxis = (seen: MillSeen, axis: Axis): RegisterId =>
  axis === "z" ? `H${heldRow(seen)}` : `G54.${axis}`;

/** The sentence that sets a register of a mill from where it stands; nothing is filled in beforehand. */
export function MillSentence({ seen, register, filled, fill, firstBox }: SentenceProps<MillSeen>) {
  const axis = registerAxis(register);
  if (registerKind(register) === "diameter") return <p>A diameter is not a place: measure it, then type it.</p>;
  if (isLength(register))
    return (
      <p>
        {CAPTURE_WORDS[seen.sheet.settings.lengthCapture]} <b>{registerWords(register)}</b>. What lies between the tip
        and the datum is yours to take off afterwards.
      </p>
    );
  if (isEdge(register)) {
    const face = faceWords(seen, axis === "y" ? "y" : "x");
    return (
      <p className="leading-8">
        The spindle axis stands{" "}
        <FigureInput
          ref={firstBox}
          aria-label="Distance from the spindle axis to the edge"
          className="w-20"
          value={filled.distance}
          onChange={(event) => fill({ distance: event.target.value })}
        />{" "}
        to the{" "}
        <Select
          aria-label="Side"
          value={filled.where}
          onChange={(event) => fill({ where: event.target.value as Filled["where"] })}
        >
          <option value="">which side</option>
          <option value="minus">minus side</option>
          <option value="plus">plus side</option>
        </Select>{" "}
        of {face.from}, and {face.that} is {axis.toUpperCase()}{" "}
        <FigureInput
          aria-label="Work coordinate of the edge"
          className="w-20"
          value={filled.edge}
          onChange={(event) => fill({ edge: event.target.value })}
        />
      </p>
    );
  }
  return (
    <p className="leading-8">
      The tip stands{" "}
      <FigureInput
        ref={firstBox}
        aria-label="Height of the tip over the surface"
        className="w-20"
        value={filled.distance}
        onChange={(event) => fill({ distance: event.target.value })}
      />{" "}
      above a surface that is Z{" "}
      <FigureInput
        aria-label="Work coordinate of the surface"
        className="w-20"
        value={filled.edge}
        onChange={(event) => fill({ edge: event.target.value })}
      />
    </p>
  );
}
