import { type TurningLane } from "./lane";
import { type Refusal } from "../../lane/refusals";
import { seenTip } from "./eye";
import { toMm } from "../../units/scale";
import { toHalf } from "../../lane/checks";
import { turretDisplay } from "./display";

/**
 * What a check on a lathe wants before there is anything to look at: at the band with the row recalled, or at the face
 * for the sum.
 */
export function lookProblem({ lathe, desk, position }: TurningLane): Refusal | null {
  const check = desk.check?.check;
  if (check !== "recalled" && check !== "sumByHand") return null;
  if (check === "recalled" && lathe.row !== lathe.station) return { code: "recallFirst", tool: lathe.station };
  const on = check === "recalled" ? "diameter" : "face";
  const isTouching = lathe.isResting || lathe.block?.on === on || (lathe.gap?.on === on && lathe.gap.feel !== "slides");
  // a face that was just cut is stood at until Z is moved: retracted in X, the tool is still at it
  const isAtCut =
    on === "face" &&
    lathe.lastBy?.axis === "x" &&
    lathe.lastBy.tool === lathe.station &&
    lathe.lastBy.atZ === position.z;
  return isTouching || isAtCut ? null : { code: "touchFirst" };
}

/** What stands between tip and face where the tool touches it, by what is written on it, mm. */
function nominalGapMm({ lathe, setup }: TurningLane): number {
  const id = lathe.gap?.id ?? lathe.block?.id;
  return setup.gaps.find((one) => one.id === id)?.nominalMm ?? 0;
}

/** By eye and rule to half a millimetre; what the displays read, as it is read. */
export function lookedAtLathe(state: TurningLane): number | null {
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
      return mm(turretDisplay(state, "x")) - (state.lathe.gap?.on === "diameter" ? 2 * nominalGapMm(state) : 0);
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
