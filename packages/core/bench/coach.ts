import type { Observation } from "./observe";

/** The next step and why, as data; words are made elsewhere. */
export const coachCodes = [
  "resetAfterStrike", "home", "openDoor", "stopSpindle", "dressBurr", "loadFinder", "setWobbling", "startSlow", "goToEdge", "lookAcross",
  "closeIn", "finestClicks", "kickedOnce", "setFromKick", "liftFirst", "swapToTool1", "placePaper", "lowerOntoPaper", "setLength",
  "pullPaper", "loadPointed", "shutDoor", "goOverZero", "lookFromTwoSides", "handIn", "replaceFinder",
] as const;
export type CoachCode = (typeof coachCodes)[number];
export interface CoachStep { readonly code: CoachCode; readonly axis?: "x" | "y" | "z" }

type Seen = Omit<Observation, "coach">;

function edgeStep(seen: Seen, axis: "x" | "y"): CoachStep {
  const { tip, spindle, evidence, sight } = seen;
  const step = (code: CoachCode): CoachStep => ({ code, axis });
  if (tip?.kind === "destroyed") return step(spindle.isOn ? "stopSpindle" : "replaceFinder");
  if (seen.holds !== "edgeFinder") return reachSteps(seen) ?? step("loadFinder");
  if (tip?.kind === "aside" && evidence.kicks[axis] > 0) return step(evidence.kicks[axis] < 2 ? "kickedOnce" : "setFromKick");
  if (!spindle.isOn) return step("startSlow");
  if (tip?.kind === "aside") return step("setWobbling");
  const across = axis === "x" ? sight === "left" || sight === "right" : sight === "front" || sight === "back";
  if (tip?.kind === "running" && (tip.wobble === "wide")) return step(across ? "goToEdge" : "lookAcross");
  if (tip?.kind === "running" && (tip.wobble === "slight" || tip.wobble === "shiver")) return step("finestClicks");
  if (tip?.kind === "running" && tip.wobble === "true") return step(evidence.kicks[axis] === 0 ? "setWobbling" : "finestClicks");
  return step("closeIn");
}

/** Hands must get in: spindle still, door open. */
function reachSteps(seen: Seen): CoachStep | null {
  if (seen.spindle.isOn) return { code: "stopSpindle" };
  return seen.isDoorOpen ? null : { code: "openDoor" };
}

function lengthStep(seen: Seen): CoachStep {
  const { holds, paper, evidence } = seen;
  if (holds === "edgeFinder" && seen.machine.z < -180_000) return { code: "liftFirst" };
  if (holds !== "tool1") return reachSteps(seen) ?? { code: "swapToTool1" };
  if (!paper && evidence.paperFelt > 0) return { code: "setLength", axis: "z" };
  if (!paper) return reachSteps(seen) ?? { code: "placePaper", axis: "z" };
  return paper.feel === "slides" ? { code: "lowerOntoPaper", axis: "z" } : { code: "setLength", axis: "z" };
}

function overZeroStep(seen: Seen): CoachStep {
  if (seen.paper) return { code: "pullPaper" };
  if (seen.holds !== "pointedTool") {
    if (seen.machine.z < -180_000) return { code: "liftFirst" };
    return reachSteps(seen) ?? { code: "loadPointed" };
  }
  if (Math.abs(seen.work.x) > 10 || Math.abs(seen.work.y) > 10) return seen.isDoorOpen ? { code: "shutDoor" } : { code: "goOverZero" };
  return { code: "lookFromTwoSides" };
}

/** The next step for who has the coach on. It reads the observation only, so it cannot know more than the student. */
export function coachStep(seen: Seen): CoachStep | null {
  if (seen.isHandedIn) return null;
  if (seen.isStopped) return { code: "resetAfterStrike" };
  const next = seen.gates.find(({ isPassed }) => !isPassed)?.name;
  switch (next) {
    case "machineReady": return { code: "home" };
    case "stockSeated": return reachSteps(seen) ?? { code: "dressBurr" };
    case "xEdge": return edgeStep(seen, "x");
    case "yEdge": return edgeStep(seen, "y");
    case "zTool1": return lengthStep(seen);
    case "overZero": return overZeroStep(seen);
    case "handIn": return { code: "handIn" };
    case undefined: return null;
  }
}
