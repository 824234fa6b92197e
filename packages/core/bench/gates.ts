import type { SetupTask } from "../exercises";
import type { LaneState } from "./state";

export type GateKind =
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
  | "faced"
  | "toolChanged"
  | "secondStart"
  | "axisFound"
  | "gaugeCompared"
  | "fit"
  | "handIn";
/** One gate: its kind, the tool it is about, whether what it wants was done. `name` is unique in its lane. */
export interface Gate {
  readonly name: string;
  readonly kind: GateKind;
  readonly tool?: number | undefined;
  readonly isPassed: boolean;
}

/** The part of a lane that gates may look at: the sheet, and what was done. Truth is not in it. */
export type Done = Pick<LaneState, "setup" | "isHomed" | "isBurrDressed" | "tasksDone" | "evidence" | "isHandedIn"> & {
  readonly desk: Pick<LaneState["desk"], "verdict">;
  readonly lathe: Pick<
    NonNullable<LaneState["lathe"]>,
    "evidence" | "changed" | "loose" | "starts" | "stated" | "fits"
  > | null;
};

const MACHINE_TASKS: readonly SetupTask[] = ["releaseStop", "lowRapid"];
const isOverZeroSeen = ({ evidence }: Done): boolean =>
  evidence.sidesOverZero.some((side) => side === "front" || side === "back") &&
  evidence.sidesOverZero.some((side) => side === "left" || side === "right");

/**
 * The lane's gates in the order of the work, as its targets and tasks make them; each opens by evidence of its own,
 * whatever the others say, and never by whether the value is right.
 */
export function gatesOf(done: Done): Gate[] {
  const { setup, evidence } = done;
  const { targets, tasks } = setup;
  const isDone = (task: SetupTask) => done.tasksDone.includes(task) || (task === "dressBurr" && done.isBurrDressed);
  const gates: Gate[] = [];
  const gate = (kind: GateKind, isPassed: boolean, tool?: number) =>
    gates.push({
      name: tool === undefined ? kind : `${kind}${tool}`,
      kind,
      isPassed,
      ...(tool === undefined ? {} : { tool }),
    });
  const control = setup.lathe?.control ?? "turret";
  // a hand-wound lathe has no reference to return to
  if (control !== "readout")
    gate("machineReady", done.isHomed && tasks.filter((task) => MACHINE_TASKS.includes(task)).every(isDone));
  if (setup.handover && done.lathe) {
    const { xTouched, zTouched } = done.lathe.evidence;
    for (const tool of setup.lathe?.targets.x ?? [])
      gate("toolRead", (xTouched[tool] ?? 0) > 0 && (zTouched[tool] ?? 0) > 0, tool);
    gate("judged", done.desk.verdict !== null);
    gate("handIn", done.isHandedIn);
    return gates;
  }
  if (setup.lathe && done.lathe) {
    const { schools, tools, targets: wanted } = setup.lathe;
    const turned = done.lathe.evidence;
    // by the arm the tools are set before the face is wanted
    const isByArm = schools.every((school) => school === "setter-arm");
    const isFacedHere = control !== "gang" && (setup.lathe.alreadySet ?? []).length === 0;
    if (setup.lathe.axis) {
      gate("axisFound", done.lathe.stated.axisHeight !== undefined);
      gate("gaugeCompared", done.lathe.stated.gaugeError !== undefined);
    }
    if (!isByArm && isFacedHere && wanted.z.length > 0) gate("faced", turned.isFaced);
    const [master] = wanted.z;
    for (const { number, isUnderSquare } of tools) {
      const wants = {
        x: wanted.x.includes(number),
        z: wanted.z.includes(number),
        nose: wanted.nose.includes(number),
        height: wanted.height.includes(number),
      };
      if (!wants.x && !wants.z && !wants.nose && !wants.height) continue;
      // the master's own row stays zero; the shift is what sets it
      if (setup.lathe.gang?.changed.includes(number))
        gate("toolChanged", done.lathe.changed[number] !== undefined, number);
      // the reference of a library is set by the zero of the readout
      const isReference = (control === "readout" || setup.lathe.start !== undefined) && number === master;
      const isXDone = isReference
        ? turned.isZeroXSet
        : (turned.xTouched[number] ?? 0) > 0 && turned.isXSet[number] === true && done.lathe.loose !== number;
      const isHeightDone =
        (turned.pipsSeen[number] ?? 0) > 0 &&
        (control === "gang" ? turned.isHeightSet[number] === true : turned.isShimmed[number] === true);
      const isMet = isUnderSquare ? (turned.coneTouched[number] ?? 0) > 0 : (turned.zTouched[number] ?? 0) > 0;
      const isZDone =
        isMet &&
        (turned.isZSet[number] === true ||
          ((schools.includes("master-shift") || isReference) && number === master && turned.isWorkSet));
      gate(
        "tool",
        (!wants.x || isXDone) &&
          (!wants.z || isZDone) &&
          (!wants.nose || turned.isNoseSet[number] === true) &&
          (!wants.height || isHeightDone),
        number,
      );
    }
    if (isByArm) gate("faced", turned.isFaced);
    if (setup.lathe.start) gate("secondStart", done.lathe.starts > 0 && turned.isDeclaredAgain);
    else if (!schools.includes("part-face") && control === "turret" && wanted.z.length > 0)
      gate("workZ", turned.isWorkSet);
    // a cone proves a tool by itself: its pass was run once more
    const { fit = [] } = wanted;
    if (fit.length > 0)
      gate(
        "fit",
        fit.every((tool) => done.lathe?.fits[tool] !== undefined),
      );
    // where nothing is touched there is nothing to be proven
    const isTouched = wanted.x.length + wanted.z.length > 0;
    const isProven = setup.lathe.cone
      ? wanted.z.every((tool) => (turned.conePasses[tool] ?? 0) > 0)
      : evidence.checksJudged.length > 0;
    if (isTouched) gate("verified", isProven);
    gate("handIn", done.isHandedIn);
    return gates;
  }
  if (setup.handover) {
    // what was handed over is read, whether or not anything is changed after it
    gate("placeRead", (evidence.kicks.x > 0 && evidence.kicks.y > 0) || isOverZeroSeen(done));
    for (const tool of targets.lengths) gate("toolRead", (evidence.touches[tool] ?? 0) > 0, tool);
    gate("workRead", evidence.workTouches > 0);
    gate("judged", done.desk.verdict !== null);
    gate("handIn", done.isHandedIn);
    return gates;
  }
  const seating = tasks.filter((task) => !MACHINE_TASKS.includes(task));
  if (seating.length > 0) gate("stockSeated", seating.every(isDone));
  if (targets.rotation) gate("turnSet", evidence.angleReadings > 0 && evidence.isAngleSet);
  // what a kept setup may leave as it is has no gate of its own
  if (targets.xy && !setup.partBefore) {
    gate("xSet", evidence.kicks.x > 0 && evidence.isSetAfterKick.x);
    gate("ySet", evidence.kicks.y > 0 && evidence.isSetAfterKick.y);
  }
  if (setup.partBefore) gate("workZ", evidence.isWorkZSet);
  else
    for (const tool of targets.lengths)
      gate(
        "tool",
        (evidence.touches[tool] ?? 0) > 0 && (evidence.isLengthSet[tool] === true || isMasterOf(setup, tool, evidence)),
        tool,
      );
  for (const tool of targets.diameters)
    gate("diameter", (evidence.diameterReadings[tool] ?? 0) > 0 && evidence.isDiameterSet[tool] === true, tool);
  gate("verified", isOverZeroSeen(done) || evidence.checksJudged.length > 0);
  gate("handIn", done.isHandedIn);
  return gates;
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
