import { type LaneState } from "./kits";
import { isOverCut } from "./mill/cutAway";
import { isInCut } from "./lathe/cutAway";
import { partPicture, type PartPicture } from "./parts";
import { runsOnPart } from "./program/course";

const drawn = new WeakMap<object, PartPicture | null>();

/** The part that is held as an eye sees it after its last run, worked out once for each. */
function pictureNow(state: LaneState): PartPicture | null {
  const last = runsOnPart(state.program, state.program.parts.current).at(-1);
  if (!last) return null;
  const known = drawn.get(last);
  if (known !== undefined) return known;
  const picture = partPicture(state);
  drawn.set(last, picture);
  return picture;
}

/** Whether a run took anything off the part that is held. */
export const hasCut = (state: LaneState): boolean => runsOnPart(state.program, state.program.parts.current).length > 0;

/**
 * Whether a move by hand brought what is held to where a run took metal away. The bench touches blanks: what stands
 * there is not what was left, and nothing true could be said of it. Reads what an eye sees, and no more.
 */
export function isBroughtToCut(before: LaneState, after: LaneState): boolean {
  const picture = pictureNow(before);
  if (picture?.kind === "relief" && before.kind === "mill" && after.kind === "mill")
    return isOverCut(before.position, after, picture);
  if (picture?.kind === "halfSection" && before.kind !== "mill" && after.kind !== "mill")
    return isInCut(before.position, after, picture);
  return false;
}
