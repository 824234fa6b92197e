import { coneTouch } from "@probe-lane/core/registers";
import { scales, toMm } from "@probe-lane/core/units";
import type { LatheBench } from "../../bench";
import type { Habits } from "../../habits";
import { machineMm, text } from "../../moves";
import { leaveFace, measure, retract, seenOf, setZ, sheetOf, touchDiameter, touchFace, turning } from "./turning";

const shown = (lane: LatheBench, axis: "x" | "z"): number => toMm(lane.seen.work[axis], scales[lane.seen.sheet.unit]);

function runPass(lane: LatheBench, tool: number, isHeld: boolean): void {
  retract(lane);
  lane.do({ type: "index", station: tool, withOffset: true });
  turning(lane);
  lane.do({ type: "runCone", isHeld });
}

/** A tool whose edge leans under a square: X on the band, a rough Z at the face, then Z by the cone. */
export function workCone(lane: LatheBench, habits: Habits): void {
  const { tools, targets, alreadySet = [], cone } = sheetOf(lane);
  const [known = 1] = alreadySet;
  const tool = tools.find(({ number }) => targets.z.includes(number));
  if (!tool || !cone) return;
  const n = tool.number;
  const band = measure(lane, "turned", habits);
  touchDiameter(lane, tool, band, habits);
  setZ(lane, n, touchFace(lane, tool, 6), 0, habits);
  leaveFace(lane);
  if (habits.cone !== "faceOnly") {
    runPass(lane, known, false);
    runPass(lane, n, true);
    lane.do({ type: "stopSpindle" });
    lane.do({ type: "zeroCounter", axis: "z" });
    for (const [size, back] of [
      ["middle", true],
      ["fine", false],
    ] as const) {
      for (let turn = 0; turn < 200 && !seenOf(lane).isResting; turn++)
        lane.do({ type: "jog", axis: "z", direction: -1, clicks: size === "fine" ? 20 : 1, size });
      if (back) lane.do({ type: "jog", axis: "z", direction: 1, clicks: 2, size: "middle" });
    }
    // who never meets the cone has nothing to work with
    if (seenOf(lane).isResting) setByCone(lane, tool.noseRadiusMm, n, habits);
  }
  runPass(lane, n, false);
  lane.do({ type: "stopSpindle" });
  retract(lane);
  lane.do({ type: "handIn" });
}

function setByCone(lane: LatheBench, noseRadiusMm: number, n: number, habits: Habits): void {
  const { cone, tools } = sheetOf(lane);
  const register = `Z${n}` as const;
  const held = toMm(lane.seen.registers.turret?.z[n] ?? 0, scales[lane.seen.sheet.unit]);
  const angle = ((cone?.angleDeg ?? 45) * Math.PI) / 180;
  const code = tools.find(({ number }) => number === n)?.tipCode ?? 3;
  const touch = coneTouch(
    habits.cone === "noseLeftOut" ? 0 : noseRadiusMm,
    code,
    { diameter: cone?.diameterMm ?? 0, z: cone?.atMm ?? 0, normal: [Math.cos(angle), Math.sin(angle)] },
    [shown(lane, "x"), shown(lane, "z")],
    held,
  );
  const move = habits.cone ? -(touch?.closureZ ?? 0) : toMm(lane.seen.counter.z, scales[lane.seen.sheet.unit]);
  // the rough Z is done with: its lines go
  for (const { line, register: of } of lane.seen.ledger) if (of === register) lane.do({ type: "strikeLine", line });
  lane.do({ type: "takeReading", register });
  lane.do({ type: "writeTerm", register, term: "other", text: text(lane, held + move - machineMm(lane, "z")) });
  lane.do({ type: "writeSum", register, text: text(lane, held + move) });
  lane.do({ type: "typeRegister", register, text: text(lane, move), how: "add", isConfirmed: true });
}
