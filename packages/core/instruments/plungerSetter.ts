import { drawNormal } from "../random";
import { FACE_MILL_RECESS_MM, FACE_MILL_RING_MM, type ToolKind } from "./things";

/** Plunger setter, fixed on the table: measures lengths on its top and diameters on its sides. */
export const SETTER_RADIUS_MM = 10;
export const SETTER_TRAVEL_MM = 3;
/**
 * The length stated beforehand may be wrong by so much: shorter is not found, longer is driven into the plunger, mm.
 */
export const SETTER_WINDOW_MM = 8;
/** How far the tip stands below the plunger's top while a diameter is taken, mm. */
export const SETTER_SIDE_DEPTH_MM = 4;
/** What an approach brings, mm: N(0, 1 µm). */
export const drawSetterApproach = (seed: string, number: number): number =>
  drawNormal(0, 1, seed, "plunger setter", number) / 1000;

/**
 * By how much the measured length misses for where the tool met the plunger, mm (0: its true tip met it). A face mill
 * on center meets it with the recessed middle; an end mill measured still may rest on a tooth's low place.
 */
export function setterMissMm(kind: ToolKind, diameterMm: number, offsetMm: number, isTurning: boolean): number | null {
  const reach = Math.abs(offsetMm);
  if (kind === "faceMill") {
    const [inner, outer] = [diameterMm / 2 - FACE_MILL_RING_MM - SETTER_RADIUS_MM, diameterMm / 2 + SETTER_RADIUS_MM];
    if (reach > outer) return null;
    if (reach < inner) return -FACE_MILL_RECESS_MM;
    return isTurning ? 0 : -0.012;
  }
  if (kind === "endMill") {
    if (reach > diameterMm / 2 + SETTER_RADIUS_MM) return null;
    return isTurning ? 0 : -0.006;
  }
  if (reach > SETTER_RADIUS_MM) return null;
  return reach < 0.5 ? 0 : -Math.min(reach, diameterMm / 2) * (kind === "drill" ? 0.6 : 1);
}
