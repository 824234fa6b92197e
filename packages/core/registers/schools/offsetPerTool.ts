import { byTool, type LengthSchoolAnswer, type OffsetPerToolInput } from "./types";

/** Every length 0 and a work offset for each tool: Zc_i − zs − t. */
export function offsetPerTool({ tools, feeler = 0, surfaceWork = 0 }: OffsetPerToolInput): LengthSchoolAnswer {
  return { lengths: byTool(tools, () => 0), workZByTool: byTool(tools, (tool) => tool.contact - surfaceWork - feeler) };
}
