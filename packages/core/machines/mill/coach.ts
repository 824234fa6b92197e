import { machineTasks } from "../../exercises/schools";
import { planGap } from "../../geometry/solid";
import { edgeOf } from "../../exercises/setup";
import type { CoachStep, sharedCoachCodes } from "../../lane/coach";
import type { Gate } from "../../lane/gates";
import type { Side } from "../../lane/names";
import { scales, toMm } from "../../units";
import type { MillGateKind } from "./gates";
import type { MillSeen } from "./observe";

export const millCoachCodes = [
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
  "easePaper",
  "tornPaper",
  "pullPaper",
  "loadPointed",
  "shutDoor",
  "expectZero",
  "goOverZero",
  "lookFromTwoSides",
  "replaceFinder",
  "findPlace",
  "findTurn",
  "loadTool",
  "calibrateFirst",
  "measureLength",
  "touchWork",
  "measureDiameter",
  "readPlace",
  "readTool",
  "readWork",
  "compareKept",
  "takeBack",
  "touchAgain",
] as const;
type MillCoachCode = (typeof millCoachCodes)[number] | (typeof sharedCoachCodes)[number];
type MillStep = CoachStep<MillCoachCode>;
type Seen = Omit<MillSeen, "coach">;

/** Near enough to the top of travel that nothing is in the way of hands, mm. */
const HIGH_MM = -180;

const isLow = ({ machine, sheet }: Seen): boolean => toMm(machine.z, scales[sheet.unit]) < HIGH_MM;

/** The tip stands beside the blank and lower than its top, as an eye tells it, within this, mm. */
const BESIDE_MM = 2;

function isBesideStock({ machine, sheet, solids, heldShape, heldLengthMm }: Seen): boolean {
  const scale = scales[sheet.unit];
  const gapMm = planGap(solids.stock, toMm(machine.x, scale), toMm(machine.y, scale)) - heldShape.tipRadiusMm;
  return gapMm < BESIDE_MM && toMm(machine.z, scale) - heldLengthMm < solids.stock.highZ;
}

function edgeStep(seen: Seen, axis: "x" | "y"): MillStep {
  const { tip, spindle, evidence, sight } = seen;
  const step = (code: MillCoachCode): MillStep => ({ code, axis });
  if (tip?.kind === "destroyed") return step(spindle.isOn ? "stopSpindle" : "replaceFinder");
  if (seen.holds !== "edgeFinder") return reachSteps(seen) ?? step("loadFinder");
  if (tip?.kind === "aside" && evidence.kicks[axis] > 0)
    return step(evidence.kicks[axis] < 2 ? "kickedOnce" : "setFromKick");
  if (!spindle.isOn) return step("startSlow");
  if (tip?.kind === "aside") return step("setWobbling");
  const across = axis === "x" ? sight === "left" || sight === "right" : sight === "front" || sight === "back";
  // along the line of sight a kick is hardly seen, and who does not see it goes on until the tip bends
  if (tip?.kind === "running" && !across) return step("lookAcross");
  if (tip?.kind === "running" && tip.wobble === "wide") return step("goToEdge");
  if (tip?.kind === "running" && (tip.wobble === "slight" || tip.wobble === "shiver")) return step("finestClicks");
  // beside the face the part has straightened it, a click before the kick; far from it it was never set wobbling
  if (tip?.kind === "running" && tip.wobble === "true")
    return step(isBesideStock(seen) || evidence.kicks[axis] > 0 ? "finestClicks" : "setWobbling");
  return step("closeIn");
}

/** X or Y: step by step with an edge finder on an edge; with other instruments and datums the way is the student's. */
function placeStep(seen: Seen, axis: "x" | "y"): MillStep {
  const isByFinder =
    edgeOf(seen.sheet, axis) !== null && seen.sheet.instruments.includes("edgeFinder") && !seen.sheet.isSkewed;
  return isByFinder ? edgeStep(seen, axis) : { code: "findPlace", axis };
}

/** Hands must get in: spindle still, door open. */
function reachSteps(seen: Seen): MillStep | null {
  if (seen.spindle.isOn) return { code: "stopSpindle" };
  return seen.isDoorOpen ? null : { code: "openDoor" };
}

function lengthStep(seen: Seen, tool: number): MillStep {
  const { holds, paper, evidence, sheet } = seen;
  const touched = (evidence.touches[tool] ?? 0) > 0;
  const isByPaper =
    sheet.lengthSchools.length > 0 &&
    sheet.lengthSchools.every((school) => school === "part-touch" || school === "plane-lift");
  const hasSetter = sheet.setter !== null;
  if (sheet.hasMasters === true && hasSetter && seen.cards.setter === undefined)
    return { code: "calibrateFirst", tool };
  if (!isByPaper) return touched ? { code: "setLength", axis: "z", tool } : { code: "measureLength", tool };
  if (holds !== null && holds !== `tool${tool}` && isLow(seen)) return { code: "liftFirst" };
  if (holds !== `tool${tool}`)
    return tool === 1 && sheet.tools.length === 1
      ? (reachSteps(seen) ?? { code: "swapToTool1" })
      : { code: "loadTool", tool };
  if (!paper && touched) return { code: "setLength", axis: "z", tool };
  if (!paper) return reachSteps(seen) ?? { code: "placePaper", axis: "z", tool };
  return { code: PAPER_STEPS[paper.feel], axis: "z", tool };
}

/** Only what just drags is one paper: held and pinched are already too far, and torn is a strike. */
const PAPER_STEPS: Record<NonNullable<MillSeen["paper"]>["feel"], MillCoachCode> = {
  slides: "lowerOntoPaper",
  drags: "setLength",
  held: "easePaper",
  pinched: "easePaper",
  torn: "tornPaper",
};

function overZeroStep(seen: Seen): MillStep {
  const { sheet, evidence, check } = seen;
  const isSeenFrom = (one: Side, other: Side) =>
    evidence.sidesOverZero.includes(one) || evidence.sidesOverZero.includes(other);
  const isLooked = isSeenFrom("front", "back") && isSeenFrom("left", "right");
  if (check?.looked) return { code: "answerCheck" };
  if (!sheet.targets.xy || !sheet.instruments.includes("pointedTool") || isLooked) return { code: "checkIt" };
  if (seen.paper) return { code: "pullPaper" };
  if (seen.holds !== "pointedTool") {
    if (isLow(seen)) return { code: "liftFirst" };
    return reachSteps(seen) ?? { code: "loadPointed" };
  }
  if (!check) return { code: "expectZero" };
  if (!seen.isOverZero) return seen.isDoorOpen ? { code: "shutDoor" } : { code: "goOverZero" };
  return { code: "lookFromTwoSides" };
}

/** What a gate of a mill that is still shut wants next. */
export function millStep(seen: Seen, { kind, tool = 1 }: Gate<MillGateKind>): MillStep {
  const { sheet, tasksDone } = seen;
  const task = (isMachine: boolean) =>
    sheet.tasks.find((one) => !tasksDone.includes(one) && machineTasks.includes(one) === isMachine);
  switch (kind) {
    case "machineReady": {
      const next = task(true);
      return next ? { code: "doTask", task: next } : { code: "home" };
    }
    case "stockSeated": {
      const next = task(false);
      if (next === undefined || next === "dressBurr") return reachSteps(seen) ?? { code: "dressBurr" };
      return reachSteps(seen) ?? { code: "doTask", task: next };
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
    case "judged":
      return { code: "judgeSetup" };
    case "staleNamed":
      return { code: "compareKept" };
    case "takenBack":
      return { code: "takeBack" };
    case "touchedAgain":
      return { code: "touchAgain" };
    case "programHeld":
      return { code: "loadProgram" };
    case "proved":
      return { code: "proveProgram", school: seen.program?.proved.find(({ isDone }) => !isDone)?.school };
    case "ran":
      return { code: "runProgram" };
    case "partJudged":
      return { code: "measurePart" };
    case "partAgain":
      return { code: "correctPart" };
    case "handIn":
      return { code: "handIn" };
  }
}
