import { byTool, type LengthSchoolAnswer, type PlaneLiftInput } from "./types";

/**
 * Hg = Zc − t on a reference plane; Wz = the datum's height over that plane, from one of the tools touched on the part.
 */
export function planeLift({ tools, feeler = 0, workTouch }: PlaneLiftInput): LengthSchoolAnswer | null {
  const toucher = tools.find((tool) => tool.id === workTouch.tool);
  if (!toucher) return null;
  const onPlane = toucher.contact - feeler;
  const { contact, feeler: workFeeler = 0, surfaceWork = 0 } = workTouch;
  return {
    lengths: byTool(tools, (tool) => tool.contact - feeler),
    workZ: contact - workFeeler - surfaceWork - onPlane,
  };
}
