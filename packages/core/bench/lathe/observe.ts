import type { LaneState } from "../state";
import { cleanRadiusMm } from "./contact";
import { seenArm, seenOutline, seenTip, type SeenStep, type SeenTurning } from "./eye";
import { lastCut, material } from "./outline";
import type { LatheState } from "./state";

/** What of a lathe eyes and hands tell before hand-in. */
export interface LatheSeen extends Pick<LatheState, "station" | "row" | "quarter" | "gap" | "block" | "lastTry" | "isResting"> {
  readonly tip: SeenTurning;
  readonly outer: readonly SeenStep[];
  readonly bore: readonly SeenStep[];
  readonly arm: { readonly radiusMm: number; readonly zMm: number } | null;
  readonly isArmTripped: boolean;
  /** The band that was cut last: whether it still shows the saw somewhere; null while nothing was turned. */
  readonly isCleanedUp: boolean | null;
  /** What stands or was rubbed in the middle of the face, as the eye and a finger tell it. */
  readonly pip: "none" | "standing" | "rubbed" | null;
  readonly evidence: LatheState["evidence"];
}

export function latheSeen(state: LaneState): LatheSeen | null {
  const { lathe } = state;
  if (!lathe) return null;
  const { station, row, quarter, gap, block, lastTry, isResting, evidence } = lathe;
  const band = lastCut(material(lathe.outer, lathe.bore));
  return {
    station, row, quarter, gap, block, lastTry, isResting, evidence, tip: seenTip(state), ...seenOutline(state), arm: seenArm(state), isArmTripped: lathe.arm.isTripped,
    pip: lathe.pip?.looks ?? null, isCleanedUp: band ? band.radiusMm <= cleanRadiusMm(state) : null,
  };
}
