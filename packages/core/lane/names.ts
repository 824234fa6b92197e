import type { LengthUnit } from "../units";

/**
 * Names that every lane uses; free of schemas, so that a browser can have them without the library that checks input.
 */

export const jogSizeNames = ["rapid", "coarse", "middle", "fine"] as const;
export type JogSize = (typeof jogSizeNames)[number];
/** Least increments of one click of each size; on an inch machine 0.1, 0.01, 0.001 and 0.0001 in. */
export const jogClicks: Readonly<Record<LengthUnit, Readonly<Record<JogSize, number>>>> = {
  mm: { rapid: 1000, coarse: 100, middle: 10, fine: 1 },
  inch: { rapid: 1000, coarse: 100, middle: 10, fine: 1 },
};
/** A rapid jog refuses with the door open. */
export const jogMm = (unit: LengthUnit, size: JogSize): number =>
  jogClicks[unit][size] * (unit === "mm" ? 0.001 : 0.00254);

export const sides = ["front", "back", "left", "right"] as const;
export type Side = (typeof sides)[number];

/** Terms a student can choose for a ledger line. */
export const termNames = [
  "tipRadius",
  "edgeWork",
  "paper",
  "facing",
  "moved",
  "lift",
  "other",
  "block",
  "toolLength",
  "probeLength",
  "halfSize",
  "nominal",
  "diameter",
  "bladeWidth",
  "armPlane",
] as const;
export type TermName = (typeof termNames)[number];

/** Checks that a student can make of what was set, each with what is expected said beforehand. */
export const checkNames = [
  "overZero",
  "knownHeight",
  "sameEdge",
  "ruleBeside",
  "liftedMove",
  "sumByHand",
  "recalled",
  "atDiameter",
  "skimmed",
  "clearance",
] as const;
export type CheckName = (typeof checkNames)[number];
