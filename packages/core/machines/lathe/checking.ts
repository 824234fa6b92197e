import { type TurningLane } from "./lane";
import { type Refusal } from "../../lane/refusals";
import { seenTip } from "./eye";
import { toMm } from "../../units/scale";
import { LOOK_CLOSE_MM, toHalf } from "../../lane/checks";
import type { CheckName } from "../../lane/names";
import type { RegisterId } from "../../registers";
import { turretDisplay } from "./display";
import { accept, refuse, type Result } from "../../result";

/** Whether the tool in position is felt, or was just left by its own cut, at a face of the part. */
function standsAt({ lathe, position }: TurningLane, on: "face" | "diameter"): boolean {
  const isTouching = lathe.isResting || lathe.block?.on === on || (lathe.gap?.on === on && lathe.gap.feel !== "slides");
  // a face that was just cut is stood at until Z is moved: retracted in X, the tool is still at it
  const isAtCut =
    on === "face" &&
    lathe.lastBy?.axis === "x" &&
    lathe.lastBy.tool === lathe.station &&
    lathe.lastBy.atZ === position.z;
  return isTouching || isAtCut;
}

const isRecalled = ({ lathe }: TurningLane): boolean => lathe.row === lathe.station;

/** What stands on the screen when it is said is no expectation. */
export function answerShowsOnLathe(state: TurningLane, check: CheckName): boolean {
  if (check === "recalled" || check === "atDiameter") return isRecalled(state) && standsAt(state, "diameter");
  return check === "sumByHand" && standsAt(state, "face");
}

/** What stands between tip and face where the tool touches it, by what is written on it, mm. */
function nominalGapMm({ lathe, setup }: TurningLane): number {
  const id = lathe.gap?.id ?? lathe.block?.id;
  return setup.gaps.find((one) => one.id === id)?.nominalMm ?? 0;
}

/** What a display says where a tool is felt at a face, or why there is nothing to compare. */
function readAt(state: TurningLane, on: "face" | "diameter", wantsRow: boolean, mm: number): Result<number, Refusal> {
  if (wantsRow && !isRecalled(state)) return refuse({ code: "recallFirst", tool: state.lathe.station });
  return standsAt(state, on) ? accept(mm) : refuse({ code: "touchFirst" });
}

/** By eye and rule to half a millimetre, and only from close by with the chuck still. */
function ruled(state: TurningLane, mm: number): Result<number, Refusal> {
  if (state.spindle.isOn) return refuse({ code: "lookStill" });
  return Math.abs(mm) <= LOOK_CLOSE_MM ? accept(toHalf(mm)) : refuse({ code: "lookCloser" });
}

/** What a look on a lathe tells: by rule from close by; what displays and instruments read, as it is read. */
export function lookedAtLathe(state: TurningLane): Result<number, Refusal> {
  const { desk, lathe, scale, position } = state;
  const tip = seenTip(state);
  switch (desk.check?.check) {
    case "knownHeight":
      return ruled(state, tip.zMm - tip.faceMm);
    case "clearance":
      return ruled(state, tip.radiusMm - tip.partRadiusMm);
    // the display with the row recalled, at the band: less what lies in between, on a diameter twice
    case "recalled":
    case "atDiameter": {
      const betweenMm = lathe.gap?.on === "diameter" ? 2 * nominalGapMm(state) : 0;
      return readAt(state, "diameter", true, toMm(turretDisplay(state, "x"), scale) - betweenMm);
    }
    // what work Z and the tool's row must add up to where it stands at the face
    case "sumByHand":
      return readAt(state, "face", false, toMm(position.z, scale) - nominalGapMm(state));
    case "skimmed": {
      const read = desk.readings.findLast(({ what }) => what === "turned");
      const mm = read && read.number > desk.check.readingsBefore ? read.values.diameter : undefined;
      return mm === undefined ? refuse({ code: "measureFirst" }) : accept(mm);
    }
    case "overZero":
    case "sameEdge":
    case "ruleBeside":
    case "liftedMove":
    case undefined:
      return refuse({ code: "notOnThisMachine" });
  }
}

/** What a check on a lathe vouches for: the rows of its tool on the axis that was looked along, and its offsets. */
export function coversOnLathe(
  { lathe, modal: { workOffset } }: TurningLane,
  { check, tool }: NonNullable<TurningLane["desk"]["check"]>,
): readonly RegisterId[] {
  const row = tool ?? lathe.row ?? lathe.station;
  return check === "knownHeight" || check === "sumByHand"
    ? [`Z${row}`, `ZW${row}`, `LZ${row}`, `${workOffset}.z`, "common.z"]
    : [`X${row}`, `XW${row}`, `LX${row}`, `${workOffset}.x`, "common.x"];
}
