import type { CoachStep, sharedCoachCodes } from "../../lane/coach";
import { machineTasks } from "../../exercises/schools";
import type { Gate } from "../../lane/gates";
import type { LatheGateKind } from "./gates";
import type { TurningSeen } from "./observe";

export const latheCoachCodes = [
  "faceFirst",
  "changeTool",
  "startAgain",
  "findAxis",
  "compareGauge",
  "sayFit",
  "setTurretTool",
  "setWorkZ",
  "readTool",
] as const;
type LatheStep = CoachStep<(typeof latheCoachCodes)[number] | (typeof sharedCoachCodes)[number]>;

/** What a gate of a lathe that is still shut wants next. */
export function latheStep(
  { sheet, tasksDone, program }: Omit<TurningSeen, "coach">,
  { kind, tool = 1 }: Gate<LatheGateKind>,
): LatheStep {
  switch (kind) {
    case "machineReady": {
      const next = sheet.tasks.find((one) => !tasksDone.includes(one) && machineTasks.includes(one));
      return next ? { code: "doTask", task: next } : { code: "home" };
    }
    case "faced":
      return { code: "faceFirst" };
    case "axisFound":
      return { code: "findAxis" };
    case "gaugeCompared":
      return { code: "compareGauge" };
    case "fit":
      return { code: "sayFit" };
    case "secondStart":
      return { code: "startAgain" };
    case "toolChanged":
      return { code: "changeTool", tool };
    case "tool":
      return { code: "setTurretTool", tool };
    case "workZ":
      return { code: "setWorkZ" };
    case "verified":
      return { code: "checkIt" };
    case "toolRead":
      return { code: "readTool", tool };
    case "judged":
      return { code: "judgeSetup" };
    case "programHeld":
      return { code: "loadProgram" };
    case "proved":
      return { code: "proveProgram", school: program?.proved.find(({ isDone }) => !isDone)?.school };
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
