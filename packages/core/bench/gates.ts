import type { LaneState } from "./state";

export const gateNames = ["machineReady", "stockSeated", "xEdge", "yEdge", "zTool1", "overZero", "handIn"] as const;
export type GateName = (typeof gateNames)[number];
export interface Gate { readonly name: GateName; readonly isPassed: boolean }

/** The part of a lane that gates may look at: what was done. Truth is not in it. */
export type Done = Pick<LaneState, "isHomed" | "isBurrDressed" | "evidence" | "isHandedIn">;

const PASSED: Record<GateName, (done: Done) => boolean> = {
  machineReady: ({ isHomed }) => isHomed,
  stockSeated: ({ isBurrDressed }) => isBurrDressed,
  xEdge: ({ evidence }) => evidence.kicks.x > 0 && evidence.isSetAfterKick.x,
  yEdge: ({ evidence }) => evidence.kicks.y > 0 && evidence.isSetAfterKick.y,
  zTool1: ({ evidence }) => evidence.paperFelt > 0 && evidence.isZSetAfterPaper,
  overZero: ({ evidence }) =>
    evidence.sidesOverZero.some((side) => side === "front" || side === "back") &&
    evidence.sidesOverZero.some((side) => side === "left" || side === "right"),
  handIn: ({ isHandedIn }) => isHandedIn,
};

/** The lane's gates in the order of the work; each open by evidence of its own, whatever the others say. */
export const gatesOf = (done: Done): Gate[] => gateNames.map((name) => ({ name, isPassed: PASSED[name](done) }));
