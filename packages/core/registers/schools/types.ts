/** A tool and the machine Z at which it met the surface. */
interface ToolContact {
  id: string;
  contact: number;
}
interface Touch {
  feeler?: number;
  surfaceWork?: number;
}

export type GaugeLineInput = {
  school: "gauge-line";
  tools: { id: string; length: number }[];
  workTouch: { contact: number; length: number } & Touch;
};
export type PartTouchInput = { school: "part-touch"; tools: ToolContact[] } & Touch;
export type PlaneLiftInput = {
  school: "plane-lift";
  tools: ToolContact[];
  feeler?: number;
  workTouch: { tool: string; contact: number } & Touch;
};
export type MasterInput = { school: "master"; master: string; tools: ToolContact[] } & Touch;
export type OffsetPerToolInput = { school: "offset-per-tool"; tools: ToolContact[] } & Touch;
export type BlockInWearInput = { school: "block-in-wear"; tools: ToolContact[]; block: number; surfaceWork?: number };

export type LengthSchoolInput =
  GaugeLineInput | PartTouchInput | PlaneLiftInput | MasterInput | OffsetPerToolInput | BlockInWearInput;

export interface LengthSchoolAnswer {
  lengths: Record<string, number>;
  workZ?: number;
  workZByTool?: Record<string, number>;
  wear?: Record<string, number>;
}

export const byTool = <T extends { id: string }>(
  tools: readonly T[],
  value: (tool: T) => number,
): Record<string, number> => Object.fromEntries(tools.map((tool) => [tool.id, value(tool)]));
