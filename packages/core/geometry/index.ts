/** Places, boxes and upright solids: gaps and first contacts of what the spindle carries. */
export { signedGapMm, type BoxMm, type PointMm, type UprightCylinder } from "./contact";
export { boxOf, firstContact, planGap, solidGap, turned, type Opening, type PlanOutline, type Solid } from "./solid";
