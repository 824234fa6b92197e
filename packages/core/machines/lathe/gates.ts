import { isByMaster, machineTasks } from "../../exercises/schools";
import { GateRow, type Gate } from "../../lane/gates";
import { addProgramGates, isPartCalled, type ProgramGateKind } from "../program/proved";
import type { TurningLane } from "./lane";

export type LatheGateKind =
  | "machineReady"
  | "faced"
  | "toolChanged"
  | "tool"
  | "workZ"
  | "secondStart"
  | "axisFound"
  | "gaugeCompared"
  | "fit"
  | "verified"
  | "toolRead"
  | "judged"
  | ProgramGateKind
  | "handIn";

/** The part of a lane that gates may look at: the sheet, and what was done. Truth is not in it. */
type Done = Pick<
  TurningLane,
  "kind" | "setup" | "isHomed" | "tasksDone" | "checking" | "isHandedIn" | "program" | "registers" | "scale"
> & {
  readonly desk: Pick<TurningLane["desk"], "verdict">;
  readonly lathe: Pick<
    TurningLane["lathe"],
    "evidence" | "changed" | "inserts" | "loose" | "starts" | "stated" | "fits"
  >;
};

/** A lathe's gates in the order of the work; none opens by whether a value is right. */
export function latheGates(done: Done): Gate<LatheGateKind>[] {
  const { kind, setup } = done;
  const row = new GateRow<LatheGateKind>();
  const asked = setup.tasks.filter((task) => machineTasks.includes(task));
  // a hand-wound lathe has no reference to return to
  if (kind !== "readout") row.add("machineReady", done.isHomed && asked.every((task) => done.tasksDone.includes(task)));
  if (setup.handover) {
    const { xTouched, zTouched } = done.lathe.evidence;
    for (const tool of setup.lathe.targets.x)
      row.add("toolRead", (xTouched[tool] ?? 0) > 0 && (zTouched[tool] ?? 0) > 0, tool);
    row.add("judged", done.desk.verdict !== null);
    row.add("handIn", done.isHandedIn);
    return row.gates;
  }
  const { schools, tools, targets: wanted } = setup.lathe;
  const turned = done.lathe.evidence;
  // by the arm the tools are set before the face is wanted
  const isByArm = schools.every((school) => school === "setter-arm");
  const { alreadySet = [], freshInsert = [] } = setup.lathe;
  const isFacedHere = kind === "readout" || (kind !== "gang" && alreadySet.length === 0);
  if (setup.lathe.axis) {
    row.add("axisFound", done.lathe.stated.axisHeight !== undefined);
    row.add("gaugeCompared", done.lathe.stated.gaugeError !== undefined);
  }
  if (!isByArm && isFacedHere && wanted.z.length > 0) row.add("faced", turned.isFaced);
  const [master] = wanted.z;
  for (const { number, isUnderSquare } of tools) {
    const wants = {
      x: wanted.x.includes(number),
      z: wanted.z.includes(number),
      nose: wanted.nose.includes(number),
      height: wanted.height.includes(number),
    };
    if (!wants.x && !wants.z && !wants.nose && !wants.height) continue;
    // what is kept as it was has no gate of its own
    if (kind === "readout" && alreadySet.includes(number)) continue;
    if (freshInsert.includes(number)) row.add("toolChanged", (done.lathe.inserts[number] ?? 0) > 0, number);
    // the master's own row stays zero; the shift is what sets it
    if (setup.lathe.gang?.changed.includes(number))
      row.add("toolChanged", done.lathe.changed[number] !== undefined, number);
    // the reference of a library is set by the zero of the readout
    const isReference = (kind === "readout" || setup.lathe.start !== undefined) && number === master;
    const isXDone = isReference
      ? turned.isZeroXSet
      : (turned.xTouched[number] ?? 0) > 0 && turned.isXSet[number] === true && done.lathe.loose !== number;
    const isHeightDone =
      (turned.pipsSeen[number] ?? 0) > 0 &&
      (kind === "gang" ? turned.isHeightSet[number] === true : turned.isShimmed[number] === true);
    const isMet = isUnderSquare ? (turned.coneTouched[number] ?? 0) > 0 : (turned.zTouched[number] ?? 0) > 0;
    const isZDone =
      isMet &&
      (turned.isZSet[number] === true ||
        ((schools.some(isByMaster) || isReference) && number === master && turned.isWorkSet));
    row.add(
      "tool",
      (!wants.x || isXDone) &&
        (!wants.z || isZDone) &&
        (!wants.nose || (turned.isNoseSet[number] === true && turned.isTipSet[number] === true)) &&
        (!wants.height || isHeightDone),
      number,
    );
  }
  if (isByArm) row.add("faced", turned.isFaced);
  if (setup.lathe.start) row.add("secondStart", done.lathe.starts > 0 && turned.isDeclaredAgain);
  else if (!schools.includes("part-face") && kind === "turret" && wanted.z.length > 0)
    row.add("workZ", turned.isWorkSet);
  // a cone proves a tool by itself: its pass was run once more
  const { fit = [] } = wanted;
  if (fit.length > 0)
    row.add(
      "fit",
      fit.every((tool) => done.lathe.fits[tool] !== undefined),
    );
  // where nothing is touched there is nothing to be proven
  const isTouched = wanted.x.length + wanted.z.length > 0;
  const isProven = setup.lathe.cone
    ? wanted.z.every((tool) => (turned.conePasses[tool] ?? 0) > 0)
    : done.checking.made.length > 0;
  if (isTouched) row.addChecked("verified", isProven || isPartCalled(done), done.checking);
  addProgramGates(row, done);
  row.add("handIn", done.isHandedIn);
  return row.gates;
}
