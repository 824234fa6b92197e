/** Upright cylinders and boxes in the machine frame, and where a straight move first brings them together. */
export { firstContact, signedGapMm, type BoxMm, type PointMm, type UprightCylinder } from "./contact";
