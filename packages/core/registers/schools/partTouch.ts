import { byTool, type LengthSchoolAnswer, type PartTouchInput } from "./types";

/** Hg = Zc − zs − t, negative, each tool touched on the part; Wz = 0. */
export function partTouch({ tools, feeler = 0, surfaceWork = 0 }: PartTouchInput): LengthSchoolAnswer {
  return { lengths: byTool(tools, (tool) => tool.contact - surfaceWork - feeler), workZ: 0 };
}
