import type { Machine } from "../exercises";
import type { LatheSchool, MillLengthSchool } from "../exercises/schools";

export const schoolWords: Record<MillLengthSchool | LatheSchool | "unclear", string> = {
  "gauge-line": "lengths from the gauge line, work Z the datum",
  "part-touch": "each tool touched on the part, work Z zero",
  "plane-lift": "tools touched on a fixed plane, work Z the lift",
  master: "one master tool zero, the others their difference from it",
  "offset-per-tool": "a work offset for each tool, length rows zero",
  "block-in-wear": "tools touched on a block, the block in wear",
  "part-face": "each tool touched on the part’s face, work Z zero",
  "setter-arm": "tools by the setter arm, work Z at the face with a tool active",
  "master-shift": "one master tool zero, the others their difference from it, the shift in work Z",
  "readout-library": "a library of differences from the reference tool, which is zeroed at the corner",
  preset: "a position declared at the start point with the first tool, the others their difference from it",
  "gang-bar": "each tool touched on the bar, or put where its register says",
  unclear: "not to be told from the log",
};

export const machineWords: Record<Machine, string> = {
  mill: "Mill",
  turret: "Turret lathe",
  readout: "Hand-wound lathe with a readout",
  gang: "Sliding-head lathe with gang tools",
};
