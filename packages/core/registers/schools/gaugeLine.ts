import { byTool, type GaugeLineInput, type LengthSchoolAnswer } from "./types";

/**
 * Hg = L, positive, from the gauge line to the tip; Wz = Dz, from a touch with a thing of known length: Zc − L − zs −
 * t.
 */
export function gaugeLine({ tools, workTouch }: GaugeLineInput): LengthSchoolAnswer {
  const { contact, length, feeler = 0, surfaceWork = 0 } = workTouch;
  return { lengths: byTool(tools, (tool) => tool.length), workZ: contact - length - surfaceWork - feeler };
}
