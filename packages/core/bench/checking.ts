import { lowCorner } from "../exercises";
import { boxOf } from "../geometry";
import { displayCounts } from "../registers";
import { accept, refuse, type Result } from "../result";
import { parseLengthMm, toCounts, toMm } from "../units";
import type { CommandOf } from "./commands";
import type { LaneEvent } from "./events";
import { seenTip } from "./lathe/eye";
import { turretDisplay } from "./lathe/display";
import { seenLengthMm, seenRoomMm, seenScene, surfaceBelow } from "./eye";
import type { Refusal } from "./refusals";
import type { LaneState } from "./state";

type Decision = Result<LaneEvent[], Refusal>;

/** Well above the part, by eye, mm. */
const WELL_ABOVE_MM = 10;
/** Over zero, by the display, mm. */
const OVER_ZERO_MM = 0.01;
const toHalf = (mm: number): number => Math.round(mm * 2) / 2;

/** The display says zero in X and Y, with the pointed tool well above the part. */
export function standsOverZero(state: LaneState): boolean {
  const { registers, position, modal, scale } = state;
  const display = displayCounts(registers, position, modal.workOffset, 0);
  const near = toCounts(OVER_ZERO_MM, scale);
  return (
    state.holds === "pointedTool" &&
    Math.abs(display.x) <= near &&
    Math.abs(display.y) <= near &&
    seenRoomMm(state, "pointedTool") >= WELL_ABOVE_MM
  );
}

/** How far the spindle axis stands, by eye, from where the drawing has its zero, mm; on the drawn scene only. */
function offZeroMm(state: LaneState): number {
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
function heightMm(state: LaneState): number | null {
  const on = surfaceBelow(state);
  const solid = on && seenScene(state)[on];
  return solid ? toHalf(toMm(state.position.z, state.scale) - seenLengthMm(state, state.holds) - solid.highZ) : null;
}

/** What is expected, said before anyone looks. */
export function expectCheck(state: LaneState, { check, text, tool }: CommandOf<"expectCheck">): Decision {
  const read = parseLengthMm(text, state.setup.unit);
  if (!read.ok) return refuse({ code: "text", problem: read.error });
  return accept([{ type: "checkExpected", check, mm: read.value, ...(tool === undefined ? {} : { tool }) }]);
}

/**
 * What a check on a lathe wants before there is anything to look at: at the band with the row recalled, or at the face
 * for the sum.
 */
function lookProblem({ lathe, desk }: LaneState): Refusal | null {
  const check = desk.check?.check;
  if (!lathe || (check !== "recalled" && check !== "sumByHand")) return null;
  if (check === "recalled" && lathe.row !== lathe.station) return { code: "recallFirst", tool: lathe.station };
  const on = check === "recalled" ? "diameter" : "face";
  const isTouching = lathe.isResting || lathe.block?.on === on || (lathe.gap?.on === on && lathe.gap.feel !== "slides");
  return isTouching ? null : { code: "touchFirst" };
}

/** What stands between tip and face where the tool touches it, by what is written on it, mm. */
function nominalGapMm({ lathe, setup }: LaneState): number {
  const id = lathe?.gap?.id ?? lathe?.block?.id;
  return setup.gaps.find((one) => one.id === id)?.nominalMm ?? 0;
}

/** By eye and rule to half a millimetre; what the displays read, as it is read. */
function lookAtLathe(state: LaneState): number | null {
  const tip = seenTip(state);
  const mm = (counts: number) => toMm(counts, state.scale);
  const check = state.desk.check?.check;
  switch (check) {
    case "knownHeight":
      return toHalf(tip.zMm - tip.faceMm);
    case "clearance":
      return toHalf(tip.radiusMm - tip.partRadiusMm);
    // the readout with the row recalled, at the corner: less what lies in between, on a diameter twice
    case "recalled":
      return mm(turretDisplay(state, "x")) - (state.lathe?.gap?.on === "diameter" ? 2 * nominalGapMm(state) : 0);
    // what work Z and the tool's row must add up to where it stands at the face
    case "sumByHand":
      return mm(state.position.z) - nominalGapMm(state);
    case "overZero":
    case "sameEdge":
    case "ruleBeside":
    case "liftedMove":
    case undefined:
      return null;
  }
}

/**
 * The look itself: what an eye or a rule tells; null where the figure stands in the log already (a touch, a sum, a
 * lifted move).
 */
export function lookCheck(state: LaneState): Decision {
  if (!state.desk.check) return refuse({ code: "expectFirst" });
  const problem = lookProblem(state);
  if (problem) return refuse(problem);
  const seenMm = (): number | null => {
    // on a lathe a rule beside the tool tells how far it stands from the face
    if (state.lathe) return lookAtLathe(state);
    switch (state.desk.check?.check) {
      case "overZero":
        return offZeroMm(state);
      case "knownHeight":
        return heightMm(state);
      case "ruleBeside":
        return state.holds ? seenLengthMm(state, state.holds) : null;
      case "sameEdge":
      case "liftedMove":
      case "sumByHand":
      case "recalled":
      case "clearance":
      case undefined:
        return null;
    }
  };
  return accept([{ type: "checkLooked", seenMm: seenMm() }]);
}

export function judgeCheck(state: LaneState, isAsExpected: boolean): Decision {
  if (!state.desk.check) return refuse({ code: "expectFirst" });
  return state.desk.check.looked ? accept([{ type: "checkJudged", isAsExpected }]) : refuse({ code: "lookFirst" });
}
