import type { Surface } from "../../exercises/scene";
import { toolNumber, type Thing } from "../../instruments";
import type { EventOf } from "../events";
import { registerAxis, registerKind } from "../../registers";
import type { Reading } from "../../lane/state";
import type { MillEvidence as Evidence, MillLane } from "./lane";

/** What gates and coach look at: what was done, never whether it is right. */

export const withContactSeen = (evidence: Evidence, axis: "x" | "y"): Evidence => ({
  ...evidence,
  kicks: { ...evidence.kicks, [axis]: evidence.kicks[axis] + 1 },
});

/**
 * A touch in Z, or a length read, with what hangs in the spindle: it counts for that tool, and for work Z when on the
 * part.
 */
export function withLengthTouch(evidence: Evidence, thing: Thing | null, on: Surface | null): Evidence {
  const tool = toolNumber(thing);
  const isOnPart = on === "stock" || on === "boss";
  return {
    ...evidence,
    touches: tool === null ? evidence.touches : { ...evidence.touches, [tool]: (evidence.touches[tool] ?? 0) + 1 },
    isOnPart: tool === null ? evidence.isOnPart : { ...evidence.isOnPart, [tool]: isOnPart },
    workTouches: evidence.workTouches + (isOnPart ? 1 : 0),
  };
}

/** Which gates a reading counts for: what it is a reading of, never what it says. */
export function evidenceOfReading(evidence: Evidence, { what, tool, outcome }: Reading): Evidence {
  if (outcome !== undefined && outcome !== "found") return evidence;
  const counted = (record: Readonly<Record<number, number>>) =>
    tool === undefined ? record : { ...record, [tool]: (record[tool] ?? 0) + 1 };
  switch (what) {
    case "length":
      return { ...evidence, touches: counted(evidence.touches) };
    case "diameter":
      return { ...evidence, diameterReadings: counted(evidence.diameterReadings) };
    case "lengthAndDiameter":
      return { ...evidence, touches: counted(evidence.touches), diameterReadings: counted(evidence.diameterReadings) };
    case "faceX":
    case "middleX":
      return withContactSeen(evidence, "x");
    case "faceY":
    case "middleY":
      return withContactSeen(evidence, "y");
    case "round":
    case "corner": {
      const seen = withContactSeen(withContactSeen(evidence, "x"), "y");
      return what === "corner" ? { ...seen, angleReadings: seen.angleReadings + 1 } : seen;
    }
    case "angle":
    case "jaw":
      return { ...evidence, angleReadings: evidence.angleReadings + 1 };
    case "surface":
      return { ...evidence, workTouches: evidence.workTouches + 1 };
    default:
      return evidence;
  }
}

/** Which gate a register that was set counts for. */
export function withRegisterSet(state: MillLane, { register }: EventOf<"registerChanged">): MillLane {
  const { evidence } = state;
  const kind = registerKind(register);
  const row = Number(/\d+$/.exec(register)?.[0] ?? 0);
  if (kind === "diameter")
    return (evidence.diameterReadings[row] ?? 0) > 0
      ? { ...state, evidence: { ...evidence, isDiameterSet: { ...evidence.isDiameterSet, [row]: true } } }
      : state;
  if (kind === "length") {
    if ((evidence.touches[row] ?? 0) === 0) return state;
    const isLengthSet = { ...evidence.isLengthSet, [row]: true };
    const isWearSet = register.startsWith("HW") ? { ...evidence.isWearSet, [row]: true } : evidence.isWearSet;
    return { ...state, evidence: { ...evidence, isLengthSet, isWearSet } };
  }
  const axis = registerAxis(register);
  if (axis !== "z")
    return evidence.kicks[axis] > 0
      ? { ...state, evidence: { ...evidence, isSetAfterKick: { ...evidence.isSetAfterKick, [axis]: true } } }
      : state;
  // a work Z in the school of one offset per tool sets that tool
  const place = Number(register.slice(1, 3)) - 54;
  const tool = state.setup.lengthSchools.includes("offset-per-tool") ? state.setup.tools[place]?.number : undefined;
  const isLengthSet =
    tool !== undefined && (evidence.touches[tool] ?? 0) > 0
      ? { ...evidence.isLengthSet, [tool]: true }
      : evidence.isLengthSet;
  return {
    ...state,
    evidence: { ...evidence, isLengthSet, isWorkZSet: evidence.isWorkZSet || evidence.workTouches > 0 },
  };
}

/** Whether an instrument hangs there broken. */
export const isBroken = ({ harm }: Pick<MillLane, "harm">, thing: Thing): boolean => harm.broken.includes(thing);

/** A part that stands at another height: what was touched on it in Z no longer holds. */
export function withPartRaised(evidence: Evidence): Evidence {
  const onPart = Object.keys(evidence.isOnPart)
    .map(Number)
    .filter((tool) => evidence.isOnPart[tool]);
  const cleared = <T>(record: Readonly<Record<number, T>>, value: T) => ({
    ...record,
    ...Object.fromEntries(onPart.map((tool) => [tool, value])),
  });
  return {
    ...evidence,
    touches: cleared(evidence.touches, 0),
    isLengthSet: cleared(evidence.isLengthSet, false),
    workTouches: 0,
    isWorkZSet: false,
  };
}

/** A tool that struck something: nothing that was found of it holds any more. */
export const withToolSuspect = (evidence: Evidence, tool: number): Evidence => ({
  ...evidence,
  touches: { ...evidence.touches, [tool]: 0 },
  isLengthSet: { ...evidence.isLengthSet, [tool]: false },
});
