/** The schools of tool length: one file each, all with closure zero; they split the same sum in different ways. */
import { blockInWear } from "./blockInWear";
import { gaugeLine } from "./gaugeLine";
import { master } from "./master";
import { offsetPerTool } from "./offsetPerTool";
import { partTouch } from "./partTouch";
import { planeLift } from "./planeLift";
import type { LengthSchoolAnswer, LengthSchoolInput } from "./types";

export { convertSchool } from "./convert";
export { rewriteSetup, type RewriteTo, type SetupRow } from "./rewrite";
export { setterLength } from "./setter";
export type { LengthSchoolAnswer, LengthSchoolInput } from "./types";

/**
 * What every length register and the work Z should hold; common offset and wear 0. Null when a named tool is not in the
 * list.
 */
export function lengthsBySchool(input: LengthSchoolInput): LengthSchoolAnswer | null {
  switch (input.school) {
    case "gauge-line":
      return gaugeLine(input);
    case "part-touch":
      return partTouch(input);
    case "plane-lift":
      return planeLift(input);
    case "master":
      return master(input);
    case "offset-per-tool":
      return offsetPerTool(input);
    case "block-in-wear":
      return blockInWear(input);
  }
}
