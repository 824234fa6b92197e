import { machineTasks } from "../../exercises/schools";
import type { CoachMark } from "../../lane/coach";
import type { Gate } from "../../lane/gates";
import { provingMarks } from "../program/lines";
import type { TurningSeen } from "./observe";

/** As on a mill: the parts of the gate that is next, and which of them the log holds. */
export function latheMarks({ lathe, sheet, tasksDone, isHomed, program }: TurningSeen, gate: Gate): CoachMark[] {
  const { targets } = sheet.lathe;
  const { evidence } = lathe;
  if (gate.kind === "machineReady")
    return [
      ...sheet.tasks
        .filter((task) => machineTasks.includes(task))
        .map((task): CoachMark => ({ code: "task", task, isDone: tasksDone.includes(task) })),
      { code: "homed", isDone: isHomed },
    ];
  if (gate.kind === "proved") return provingMarks(program);
  if (gate.kind !== "tool") return [];
  const tool = gate.tool ?? 1;
  const axis = (name: "x" | "z", touches: number | undefined, isSet: boolean | undefined): CoachMark[] => [
    { code: "found", axis: name, isDone: (touches ?? 0) > 0 },
    { code: "set", axis: name, isDone: isSet === true },
  ];
  return [
    { code: "toolIn", tool, isDone: lathe.station === tool },
    ...(targets.x.includes(tool) ? axis("x", evidence.xTouched[tool], evidence.isXSet[tool]) : []),
    ...(targets.z.includes(tool) ? axis("z", evidence.zTouched[tool], evidence.isZSet[tool]) : []),
  ];
}
