import { byTool, type LengthSchoolAnswer, type MasterInput } from "./types";

/** The master holds 0, others Zc_i − Zc_m on one surface; Wz = Zc_m − zs − t. */
export function master({ master: id, tools, feeler = 0, surfaceWork = 0 }: MasterInput): LengthSchoolAnswer | null {
  const reference = tools.find((tool) => tool.id === id);
  if (!reference) return null;
  return {
    lengths: byTool(tools, (tool) => (tool === reference ? 0 : tool.contact - reference.contact)),
    workZ: reference.contact - surfaceWork - feeler,
  };
}
