import type { ProbeQuestion } from "../../../../instruments";

/** Which figures a question needs besides where the probe stands. */
export const probeNeeds: Record<
  ProbeQuestion,
  { axis: boolean; direction: boolean; directionY: boolean; size: boolean; depth: boolean }
> = {
  face: { axis: true, direction: true, directionY: false, size: true, depth: false },
  surface: { axis: false, direction: false, directionY: false, size: true, depth: false },
  twoOutside: { axis: true, direction: false, directionY: false, size: true, depth: true },
  twoInside: { axis: true, direction: false, directionY: false, size: true, depth: true },
  boss: { axis: false, direction: false, directionY: false, size: true, depth: true },
  bore: { axis: false, direction: false, directionY: false, size: true, depth: true },
  cornerOutside: { axis: false, direction: true, directionY: true, size: false, depth: true },
  cornerInside: { axis: false, direction: true, directionY: true, size: false, depth: true },
  angle: { axis: true, direction: true, directionY: false, size: true, depth: false },
};
