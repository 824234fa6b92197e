import { machineTasks } from "../../exercises/schools";
import type { CoachMark } from "../../lane/coach";
import type { Gate } from "../../lane/gates";
import { provingMarks } from "../program/lines";
import type { MillSeen } from "./observe";

/** The parts of the gate that is next, each done or not: what the log holds of them, never whether it is right. */
export function millMarks({ evidence, holds, tasksDone, sheet, isHomed, program }: MillSeen, gate: Gate): CoachMark[] {
  const tasks = (isMachine: boolean): CoachMark[] =>
    sheet.tasks
      .filter((task) => machineTasks.includes(task) === isMachine)
      .map((task) => ({ code: "task", task, isDone: tasksDone.includes(task) }));
  const place = (axis: "x" | "y"): CoachMark[] => [
    { code: "found", axis, isDone: evidence.kicks[axis] > 0 },
    { code: "foundAgain", axis, isDone: evidence.kicks[axis] > 1 },
    { code: "set", axis, isDone: evidence.isSetAfterKick[axis] },
  ];
  switch (gate.kind) {
    case "machineReady":
      return [...tasks(true), { code: "homed", isDone: isHomed }];
    case "stockSeated":
      return tasks(false);
    case "xSet":
      return place("x");
    case "ySet":
      return place("y");
    case "tool": {
      const tool = gate.tool ?? 1;
      const isTouched = (evidence.touches[tool] ?? 0) > 0;
      return [
        { code: "toolIn", tool, isDone: isTouched || holds === `tool${tool}` },
        { code: "touched", tool, isDone: isTouched },
        { code: "set", isDone: evidence.isLengthSet[tool] === true },
      ];
    }
    case "proved":
      return provingMarks(program);
    default:
      return [];
  }
}
