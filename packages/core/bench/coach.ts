import { edgeOf, type SetupTask } from "../exercises";
import { toMm, scales } from "../units";
import type { Gate } from "./gates";
import type { Observation } from "./observe";

/** The next step and why, as data; words are made elsewhere. */
export const coachCodes = [
  "resetAfterStrike",
  "home",
  "openDoor",
  "stopSpindle",
  "dressBurr",
  "loadFinder",
  "setWobbling",
  "startSlow",
  "goToEdge",
  "lookAcross",
  "closeIn",
  "finestClicks",
  "kickedOnce",
  "setFromKick",
  "liftFirst",
  "swapToTool1",
  "placePaper",
  "lowerOntoPaper",
  "setLength",
  "pullPaper",
  "loadPointed",
  "shutDoor",
  "goOverZero",
  "lookFromTwoSides",
  "handIn",
  "replaceFinder",
  "doTask",
  "findPlace",
  "findTurn",
  "loadTool",
  "measureLength",
  "touchWork",
  "measureDiameter",
  "checkIt",
  "faceFirst",
  "changeTool",
  "startAgain",
  "findAxis",
  "compareGauge",
  "sayFit",
  "setTurretTool",
  "setWorkZ",
  "readPlace",
  "readTool",
  "readWork",
  "judgeSetup",
] as const;
export type CoachCode = (typeof coachCodes)[number];
export interface CoachStep {
  readonly code: CoachCode;
  readonly axis?: "x" | "y" | "z";
  readonly tool?: number | undefined;
  readonly task?: SetupTask | undefined;
}

type Seen = Omit<Observation, "coach">;

/** Near enough to the top of travel that nothing is in the way of hands, mm. */
const HIGH_MM = -180;
const isLow = ({ machine, sheet }: Seen): boolean => toMm(machine.z, scales[sheet.unit]) < HIGH_MM;

function edgeStep(seen: Seen, axis: "x" | "y"): CoachStep {
  const { tip, spindle, evidence, sight } = seen;
  const step = (code: CoachCode): CoachStep => ({ code, axis });
  if (tip?.kind === "destroyed") return step(spindle.isOn ? "stopSpindle" : "replaceFinder");
  if (seen.holds !== "edgeFinder") return reachSteps(seen) ?? step("loadFinder");
  if (tip?.kind === "aside" && evidence.kicks[axis] > 0)
    return step(evidence.kicks[axis] < 2 ? "kickedOnce" : "setFromKick");
  if (!spindle.isOn) return step("startSlow");
  if (tip?.kind === "aside") return step("setWobbling");
  const across = axis === "x" ? sight === "left" || sight === "right" : sight === "front" || sight === "back";
  if (tip?.kind === "running" && tip.wobble === "wide") return step(across ? "goToEdge" : "lookAcross");
  if (tip?.kind === "running" && (tip.wobble === "slight" || tip.wobble === "shiver")) return step("finestClicks");
  if (tip?.kind === "running" && tip.wobble === "true")
    return step(evidence.kicks[axis] === 0 ? "setWobbling" : "finestClicks");
  return step("closeIn");
}

/** X or Y: step by step with an edge finder on an edge; with other instruments and datums the way is the student's. */
function placeStep(seen: Seen, axis: "x" | "y"): CoachStep {
  const isByFinder =
    edgeOf(seen.sheet, axis) !== null && seen.sheet.instruments.includes("edgeFinder") && !seen.sheet.isSkewed;
  return isByFinder ? edgeStep(seen, axis) : { code: "findPlace", axis };
}

/** Hands must get in: spindle still, door open. */
function reachSteps(seen: Seen): CoachStep | null {
  if (seen.spindle.isOn) return { code: "stopSpindle" };
  return seen.isDoorOpen ? null : { code: "openDoor" };
}

function lengthStep(seen: Seen, tool: number): CoachStep {
  const { holds, paper, evidence, sheet } = seen;
  const touched = (evidence.touches[tool] ?? 0) > 0;
  const isByPaper =
    sheet.lengthSchools.length > 0 &&
    sheet.lengthSchools.every((school) => school === "part-touch" || school === "plane-lift");
  if (!isByPaper) return touched ? { code: "setLength", axis: "z", tool } : { code: "measureLength", tool };
  if (holds !== null && holds !== `tool${tool}` && isLow(seen)) return { code: "liftFirst" };
  if (holds !== `tool${tool}`)
    return tool === 1 && sheet.tools.length === 1
      ? (reachSteps(seen) ?? { code: "swapToTool1" })
      : { code: "loadTool", tool };
  if (!paper && touched) return { code: "setLength", axis: "z", tool };
  if (!paper) return reachSteps(seen) ?? { code: "placePaper", axis: "z", tool };
  return paper.feel === "slides" ? { code: "lowerOntoPaper", axis: "z", tool } : { code: "setLength", axis: "z", tool };
}

function overZeroStep(seen: Seen): CoachStep {
  if (!seen.sheet.targets.xy || !seen.sheet.instruments.includes("pointedTool")) return { code: "checkIt" };
  if (seen.paper) return { code: "pullPaper" };
  if (seen.holds !== "pointedTool") {
    if (isLow(seen)) return { code: "liftFirst" };
    return reachSteps(seen) ?? { code: "loadPointed" };
  }
  if (!seen.isOverZero) return seen.isDoorOpen ? { code: "shutDoor" } : { code: "goOverZero" };
  return { code: "lookFromTwoSides" };
}

function gateStep(seen: Seen, { kind, tool = 1 }: Gate): CoachStep | null {
  if (seen.lathe) {
    if (kind === "faced") return { code: "faceFirst" };
    if (kind === "axisFound") return { code: "findAxis" };
    if (kind === "gaugeCompared") return { code: "compareGauge" };
    if (kind === "fit") return { code: "sayFit" };
    if (kind === "secondStart") return { code: "startAgain" };
    if (kind === "toolChanged") return { code: "changeTool", tool };
    if (kind === "tool") return { code: "setTurretTool", tool };
    if (kind === "workZ") return { code: "setWorkZ" };
    if (kind === "verified") return { code: "checkIt" };
  }
  const { sheet, tasksDone } = seen;
  const task = (isMachine: boolean) =>
    sheet.tasks.find((one) => !tasksDone.includes(one) && (one === "releaseStop" || one === "lowRapid") === isMachine);
  switch (kind) {
    case "machineReady":
      return task(true) ? { code: "doTask", task: task(true) } : { code: "home" };
    case "stockSeated": {
      const next = task(false);
      return (
        reachSteps(seen) ??
        (next === undefined || next === "dressBurr" ? { code: "dressBurr" } : { code: "doTask", task: next })
      );
    }
    case "turnSet":
      return { code: "findTurn" };
    case "xSet":
      return placeStep(seen, "x");
    case "ySet":
      return placeStep(seen, "y");
    case "tool":
      return lengthStep(seen, tool);
    case "workZ":
      return { code: "touchWork" };
    case "diameter":
      return { code: "measureDiameter", tool };
    case "verified":
      return overZeroStep(seen);
    case "placeRead":
      return { code: "readPlace" };
    case "toolRead":
      return { code: "readTool", tool };
    case "workRead":
      return { code: "readWork" };
    case "faced":
    case "toolChanged":
    case "secondStart":
    case "axisFound":
    case "gaugeCompared":
    case "fit":
      return { code: "faceFirst" };
    case "judged":
      return { code: "judgeSetup" };
    case "handIn":
      return { code: "handIn" };
  }
}

/** The next step for who has the coach on. It reads the observation only, so it cannot know more than the student. */
export function coachStep(seen: Seen): CoachStep | null {
  if (seen.isHandedIn) return null;
  if (seen.isStopped) return { code: "resetAfterStrike" };
  const next = seen.gates.find(({ isPassed }) => !isPassed);
  return next ? gateStep(seen, next) : null;
}
