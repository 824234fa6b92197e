import { type MillLane } from "./lane";
import { displayCounts, type RegisterId } from "../../registers/mill";
import { toCounts, toMm } from "../../units/scale";
import { seenLengthMm, seenScene, surfaceBelow } from "./eye";
import { boxOf } from "../../geometry/solid";
import { lowCorner } from "../../exercises/scene";
import { toolNumber } from "../../instruments/things";
import { LOOK_CLOSE_MM, toHalf } from "../../lane/checks";
import type { CheckName } from "../../lane/names";
import type { Refusal } from "../../lane/refusals";
import { accept, refuse, type Result } from "../../result";

/** Over zero, by the display, mm. */
const OVER_ZERO_MM = 0.01;

/** How far the tip stands over the top of the part, by eye, mm; negative beside it. */
function overPartMm(state: MillLane): number {
  const { stock, boss } = seenScene(state);
  const topMm = Math.max(stock.highZ, boss?.highZ ?? -Infinity);
  return toMm(state.position.z, state.scale) - seenLengthMm(state, state.holds) - topMm;
}

/** The display says zero in X and Y, with the pointed tool near enough to the part for an eye to tell. */
export function standsOverZero(state: MillLane): boolean {
  const { registers, position, modal, scale } = state;
  const display = displayCounts(registers, position, modal.workOffset, 0);
  const near = toCounts(OVER_ZERO_MM, scale);
  return (
    state.holds === "pointedTool" &&
    Math.abs(display.x) <= near &&
    Math.abs(display.y) <= near &&
    overPartMm(state) <= LOOK_CLOSE_MM
  );
}

/** How far the spindle axis stands, by eye, from where the drawing has its zero, mm; on the drawn scene only. */
function offZeroMm(state: MillLane): number {
  const { setup, position, scale } = state;
  const { stock } = seenScene(state);
  const box = boxOf(stock);
  const zero = {
    x: box.low.x - lowCorner(setup, setup.partSizeMm, "x"),
    y: box.low.y - lowCorner(setup, setup.partSizeMm, "y"),
  };
  return toHalf(Math.hypot(toMm(position.x, scale) - zero.x, toMm(position.y, scale) - zero.y));
}

/** Height of the tip over what is below, as a rule beside it reads on the drawn scene, mm; null over nothing. */
function heightMm(state: MillLane): number | null {
  const on = surfaceBelow(state);
  const solid = on && seenScene(state)[on];
  return solid ? toMm(state.position.z, state.scale) - seenLengthMm(state, state.holds) - solid.highZ : null;
}

/** The axis on which something that tells is in contact now, as its own way of telling shows it. */
function contactAxis({ finder, taster, probe }: MillLane): "x" | "y" | null {
  if (finder.tip === "aside" && finder.isKickSeen) return finder.kickAxis;
  const axis = taster.touch?.axis ?? probe.touch?.axis;
  return axis === "x" || axis === "y" ? axis : null;
}

/** The tip is held off the part by something in the gap, which is felt. */
const isFelt = ({ paper, block }: MillLane): boolean =>
  block?.on === "stock" || (paper?.on === "stock" && paper.feel !== "slides");

const gapMm = ({ setup, paper, block }: MillLane): number =>
  setup.gaps.find(({ id }) => id === (paper?.id ?? block?.id))?.nominalMm ?? 0;

/** What stands on the screen when it is said is no expectation. */
export function answerShowsOnMill(state: MillLane, check: CheckName): boolean {
  if (check === "sameEdge") return contactAxis(state) !== null;
  return check === "sumByHand" && isFelt(state);
}

const atHalf = (mm: number): Result<number, Refusal> => accept(toHalf(mm));

/** What a look tells on a mill: by eye and rule to half a millimetre, off the display as it reads. */
export function lookedOnMill(state: MillLane): Result<number, Refusal> {
  const { desk, position, scale } = state;
  const mm = (axis: "x" | "y" | "z") => toMm(position[axis], scale);
  switch (desk.check?.check) {
    case "overZero":
      if (state.holds !== "pointedTool") return refuse({ code: "pointFirst" });
      return overPartMm(state) <= LOOK_CLOSE_MM ? atHalf(offZeroMm(state)) : refuse({ code: "lookCloser" });
    case "knownHeight": {
      const height = heightMm(state);
      return height === null || height > LOOK_CLOSE_MM ? refuse({ code: "lookCloser" }) : atHalf(height);
    }
    case "ruleBeside":
      if (state.spindle.isOn) return refuse({ code: "lookStill" });
      return state.holds ? atHalf(seenLengthMm(state, state.holds)) : refuse({ code: "spindleEmpty" });
    case "sameEdge": {
      const axis = contactAxis(state);
      return axis ? accept(mm(axis)) : refuse({ code: "contactFirst" });
    }
    case "liftedMove":
      return position.z === desk.check.from.z ? refuse({ code: "moveFirst" }) : accept(mm("z"));
    // what work Z and the tool's row must add up to where it stands on the part
    case "sumByHand":
      return isFelt(state) ? accept(mm("z") - gapMm(state)) : refuse({ code: "touchFirst" });
    case "recalled":
    case "atDiameter":
    case "skimmed":
    case "clearance":
    case undefined:
      return refuse({ code: "notOnThisMachine" });
  }
}

/** Registers of the active work offset, and the common one, on these axes. */
const placesOf = ({ modal: { workOffset } }: MillLane, ...axes: readonly ("x" | "y" | "z")[]): RegisterId[] =>
  axes.flatMap((axis): RegisterId[] => [`${workOffset}.${axis}`, `common.${axis}`]);

/** What a check on a mill vouches for. */
export function coversOnMill(
  state: MillLane,
  { check, tool }: NonNullable<MillLane["desk"]["check"]>,
): readonly RegisterId[] {
  if (check === "overZero" || check === "sameEdge") return placesOf(state, "x", "y");
  const row = tool ?? state.modal.lengthRow ?? toolNumber(state.holds);
  const lengths: RegisterId[] = row === null ? [] : [`H${row}`, `HW${row}`];
  return check === "ruleBeside" ? lengths : [...lengths, ...placesOf(state, "z")];
}

/** Whether a look over zero hangs on a register. */
export const isPlaceLooked = (state: MillLane, register: RegisterId): boolean =>
  placesOf(state, "x", "y").includes(register);
