import { machineTasks, type MillLengthSchool, type SetupTask } from "../../exercises/schools";
import { GateRow, type Gate } from "../../lane/gates";
import { addProgramGates, isPartCalled, type ProgramGateKind } from "../program/proved";
import type { MillLane } from "./lane";

export type MillGateKind =
  | "machineReady"
  | "stockSeated"
  | "xSet"
  | "ySet"
  | "turnSet"
  | "tool"
  | "workZ"
  | "diameter"
  | "verified"
  | "placeRead"
  | "toolRead"
  | "workRead"
  | "judged"
  | "staleNamed"
  | "takenBack"
  | "touchedAgain"
  | ProgramGateKind
  | "handIn";

/** The part of a lane that gates may look at: the sheet, and what was done. Truth is not in it. */
type Done = Pick<
  MillLane,
  | "setup"
  | "isHomed"
  | "isBurrDressed"
  | "tasksDone"
  | "evidence"
  | "checking"
  | "isHandedIn"
  | "program"
  | "registers"
  | "scale"
> & { readonly desk: Pick<MillLane["desk"], "verdict"> };

const isOverZeroSeen = ({ evidence }: Done): boolean =>
  evidence.sidesOverZero.some((side) => side === "front" || side === "back") &&
  evidence.sidesOverZero.some((side) => side === "left" || side === "right");

/** Where a point can be stood over zero it is looked at from two sides; a check said first is asked for everywhere. */
const isVerified = (done: Done): boolean => {
  const { targets, instruments } = done.setup;
  const wantsLook = targets.xy && instruments.includes("pointedTool");
  return (!wantsLook || isOverZeroSeen(done)) && done.checking.made.length > 0;
};

/** Schools whose tools are measured from the part itself, so that work Z stays as it is. */
const ON_PART: readonly MillLengthSchool[] = ["part-touch", "block-in-wear"];
/** In offset-per-tool the gate of each tool is its work Z; on a new part work Z has its gate among the first. */
const needsWorkZ = ({ setup: { lengthSchools, targets, partBefore } }: Done): boolean =>
  targets.lengths.length > 0 &&
  !partBefore &&
  lengthSchools.some((school) => !ON_PART.includes(school) && school !== "offset-per-tool");
/** Where the school is free, tools that were all touched on the part itself need no work Z. */
const isAllOnPart = ({ setup: { lengthSchools, targets }, evidence }: Done): boolean =>
  lengthSchools.some((school) => ON_PART.includes(school)) &&
  targets.lengths.every((tool) => evidence.isOnPart[tool] === true);

/** The first gates of a setup that was kept: its card is compared before anything moves. */
function addKeptGates(row: GateRow<MillGateKind>, { program: { kept } }: Done): void {
  row.add("staleNamed", kept.named !== null);
  row.add("takenBack", kept.isTaken);
}

/** What is touched again of a kept setup is what was named, whether that is right or not; nothing has no gate. */
function addTouchedAgain(row: GateRow<MillGateKind>, { program: { kept } }: Done): void {
  const named = kept.named ?? [];
  if (named.length === 0) return;
  row.add("touchedAgain", kept.isTaken && named.every((register) => kept.changed.includes(register)));
}

/**
 * A mill's gates in the order of the work, as its targets and tasks make them; none opens by whether a value is right.
 */
export function millGates(done: Done): Gate<MillGateKind>[] {
  const { setup, evidence } = done;
  const { targets, tasks } = setup;
  const isDone = (task: SetupTask) => done.tasksDone.includes(task) || (task === "dressBurr" && done.isBurrDressed);
  const row = new GateRow<MillGateKind>();
  if (setup.kept) addKeptGates(row, done);
  row.add("machineReady", done.isHomed && tasks.filter((task) => machineTasks.includes(task)).every(isDone));
  if (setup.handover) {
    // what was handed over is read, whether or not anything is changed after it
    row.add("placeRead", (evidence.kicks.x > 0 && evidence.kicks.y > 0) || isOverZeroSeen(done));
    for (const tool of targets.lengths) row.add("toolRead", (evidence.touches[tool] ?? 0) > 0, tool);
    row.add("workRead", evidence.workTouches > 0);
    row.add("judged", done.desk.verdict !== null);
    row.add("handIn", done.isHandedIn);
    return row.gates;
  }
  const seating = tasks.filter((task) => !machineTasks.includes(task));
  if (seating.length > 0) row.add("stockSeated", seating.every(isDone));
  if (targets.rotation) row.add("turnSet", evidence.angleReadings > 0 && evidence.isAngleSet);
  const isBlockInWear = setup.lengthSchools.every((school) => school === "block-in-wear");
  // what a kept setup may leave as it is has no gate of its own
  const isAnew = !setup.kept;
  if (setup.kept) addTouchedAgain(row, done);
  if (isAnew && targets.xy && !setup.partBefore) {
    row.add("xSet", evidence.kicks.x > 0 && evidence.isSetAfterKick.x);
    row.add("ySet", evidence.kicks.y > 0 && evidence.isSetAfterKick.y);
  }
  if (setup.partBefore) row.add("workZ", evidence.isWorkZSet);
  else
    for (const tool of isAnew ? targets.lengths : [])
      row.add(
        "tool",
        (evidence.touches[tool] ?? 0) > 0 &&
          (evidence.isLengthSet[tool] === true || isMasterOf(setup, tool, evidence)) &&
          (!isBlockInWear || evidence.isWearSet[tool] === true),
        tool,
      );
  for (const tool of isAnew ? targets.diameters : [])
    row.add("diameter", (evidence.diameterReadings[tool] ?? 0) > 0 && evidence.isDiameterSet[tool] === true, tool);
  if (isAnew && needsWorkZ(done)) row.add("workZ", evidence.isWorkZSet || isAllOnPart(done));
  row.addChecked("verified", isVerified(done) || isPartCalled(done), done.checking);
  addProgramGates(row, done);
  row.add("handIn", done.isHandedIn);
  return row.gates;
}

/**
 * The master's own row may stay zero: touching it and setting work Z is what sets it. Alone in part-touch nothing else
 * can.
 */
function isMasterOf(
  { lengthSchools, targets }: Done["setup"],
  tool: number,
  { isWorkZSet }: Done["evidence"],
): boolean {
  return lengthSchools.includes("master") && Math.min(...targets.lengths) === tool && isWorkZSet;
}
