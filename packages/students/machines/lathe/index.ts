import type { LatheBench } from "../../bench";
import type { Habits } from "../../habits";
import { findAxis, sayWhatFits } from "./axisHeight";
import { workCone } from "./cone";
import { workGang } from "./gang";
import { workPreset } from "./preset";
import { workReadout } from "./readout";
import { workTurret } from "./turning";

/** The way in which the work of a sheet is done. */
function wayOf({ kind, sheet: { lathe } }: LatheBench["seen"]): (lane: LatheBench, habits: Habits) => void {
  if (lathe.axis) return findAxis;
  if (lathe.profile) return sayWhatFits;
  if (kind === "readout") return workReadout;
  if (kind === "gang") return workGang;
  if (lathe.start) return workPreset;
  return lathe.cone ? workCone : workTurret;
}

/** Does a lathe's lane from the reference return, where there is one, to hand-in with the stated habits. */
export function workLathe(lane: LatheBench, habits: Habits): void {
  if (lane.seen.kind !== "readout") lane.do({ type: "home" });
  if (habits.stopsAfter !== "homed") wayOf(lane.seen)(lane, habits);
}
