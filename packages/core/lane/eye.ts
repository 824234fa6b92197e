/** What an eye tells apart, mm, and of angles, degrees. */
const EYE_STEP_MM = 0.5;

/**
 * A hidden length at the precision of an eye: on a grid that is shifted once for the lane, so that nothing averages
 * out.
 */
export const seen = (mm: number, offsetMm: number): number =>
  Math.round((Math.round((mm - offsetMm) / EYE_STEP_MM) * EYE_STEP_MM + offsetMm) * 1000) / 1000;
