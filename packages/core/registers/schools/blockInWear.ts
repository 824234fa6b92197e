import { byTool, type BlockInWearInput, type LengthSchoolAnswer } from "./types";

/**
 * Hg = Zc on a block of height b standing on the part, Hw = −b − zs; Wz = 0. Clearing wear leaves every cut high by the
 * block.
 */
export function blockInWear({ tools, block, surfaceWork = 0 }: BlockInWearInput): LengthSchoolAnswer {
  return { lengths: byTool(tools, (tool) => tool.contact), wear: byTool(tools, () => -block - surfaceWork), workZ: 0 };
}
