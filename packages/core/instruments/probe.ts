import { drawBetween, drawNormal } from "../random";

/**
 * Spindle probe: asked by questions in words, answered found, missed, or stem touched. It triggers a little inside the
 * face (pre-travel), so its effective radius is smaller than the ball; a stylus that runs out adds to one side and
 * takes from the other.
 */
export const PROBE_STEM_RADIUS_MM = 1.5;
/** How far past its trigger the ball may be pushed by hand before something gives, mm. */
export const PROBE_OVERTRAVEL_MM = 4;
/** How far a question searches beyond the place where the face was said to be, mm. */
export const PROBE_SEARCH_MM = 8;
/** How far before that place the slow move begins, mm. */
export const PROBE_STANDOFF_MM = 4;

/** What an approach brings, mm: N(0, 1 µm). */
export const drawProbeApproach = (seed: string, number: number): number =>
  drawNormal(0, 1, seed, "probe", "approach", number) / 1000;
/** How deep the ball stands past first touch when it triggers, mm; own to the probe. */
export const drawPretravel = (seed: string): number => drawBetween(0.008, 0.016, seed, "probe", "pre-travel");
/** Stylus runout, mm, toward +X and +Y when the spindle stands oriented. */
export const drawStylusRunout = (seed: string, axis: "x" | "y"): number =>
  drawNormal(0, 1, seed, "probe", "runout", axis) / 1000;

export const probeQuestions = [
  "face",
  "surface",
  "twoOutside",
  "twoInside",
  "bore",
  "boss",
  "cornerOutside",
  "cornerInside",
  "angle",
] as const;
export type ProbeQuestion = (typeof probeQuestions)[number];
export const probeOutcomes = ["found", "missed", "stemTouched", "driven"] as const;
export type ProbeOutcome = (typeof probeOutcomes)[number];
