import type { MillSeen } from "@probe-lane/core/bench";
import { edgeOf } from "@probe-lane/core/exercises";
import type { Side } from "@probe-lane/core/lane";
import type { MillBench } from "../../bench";
import type { Habits } from "../../habits";
import { machineMm, moveTo, text } from "../../moves";
import { middleOf, standAt, swapTo } from "./moves";

type Flat = "x" | "y";
const isAside = (seen: MillSeen): boolean => seen.tip?.kind === "aside";
const away = (approach: 1 | -1): 1 | -1 => (approach === 1 ? -1 : 1);

/** Closes in on a face until the tip kicks: coarse, then middle, then fine, smaller each time the wobble falls. */
function closeIn(lane: MillBench, axis: Flat, direction: 1 | -1, last: "fine" | "coarse"): void {
  for (let turn = 0; turn < 400; turn++) {
    const { tip } = lane.seen;
    if (tip?.kind === "aside") return;
    const wobble = tip?.kind === "running" ? tip.wobble : "wide";
    const isNear = wobble === "slight" || wobble === "shiver" || wobble === "true";
    const size = last === "coarse" || wobble === "wide" ? "coarse" : isNear ? "fine" : "middle";
    lane.do({ type: "jog", axis, direction, clicks: size === "fine" ? 20 : 10, size });
  }
  throw new Error(`closeIn: no kick on ${axis}`);
}

function goBeside(lane: MillBench, axis: Flat, approach: 1 | -1, standOffMm: number): void {
  const {
    boxes: { stock },
  } = lane.seen;
  const face = approach === 1 ? stock.low[axis] : stock.high[axis];
  standAt(lane, { ...middleOf(lane.seen), [axis]: face - approach * standOffMm }, stock.high.z - 4);
}

/** Kicks on one face, twice unless the habit says otherwise; returns the last, mm. */
export function kickFace(lane: MillBench, axis: Flat, approach: 1 | -1, habits: Habits): number {
  const side: Side = axis === "x" ? "left" : "front";
  goBeside(lane, axis, approach, lane.seen.sheet.tipDiameterMm / 2 + 4);
  lane.do({ type: "lookFrom", side });
  if (!lane.seen.spindle.isOn) lane.do({ type: "startSpindle", direction: "forward", rpm: 600 });
  const kicks = habits.oneKick || habits.coarseLastClick?.[axis] ? 1 : 2;
  for (let kick = 0; kick < kicks; kick++) {
    if (kick > 0) lane.do({ type: "jog", axis, direction: away(approach), clicks: 15, size: "coarse" });
    lane.do({ type: "setWobbling" });
    closeIn(lane, axis, approach, habits.coarseLastClick?.[axis] ? "coarse" : "fine");
  }
  if (!isAside(lane.seen)) throw new Error(`kickFace: the tip does not stand aside on ${axis}`);
  return machineMm(lane, axis);
}

export function leave(lane: MillBench, axis: Flat, approach: 1 | -1): void {
  lane.do({ type: "jog", axis, direction: away(approach), clicks: 40, size: "coarse" });
  moveTo(lane, { z: 0 });
}

/** Sets X or Y from a contact in force: r is what lies between axis and face. */
function setEdge(lane: MillBench, axis: Flat, tipRadiusMm: number, habits: Habits): void {
  const edge = edgeOf(lane.seen.sheet, axis);
  if (!edge) throw new Error("setEdge: the datum is not on an edge");
  const { approach: s, edgeWorkMm } = edge;
  const r = tipRadiusMm;
  const radius = { forgotten: 0, turned: -r, diameter: 2 * r, right: r }[habits.radius?.[axis] ?? "right"];
  const o = { forgotten: 0, turned: -edgeWorkMm, right: edgeWorkMm }[habits.edgeWork?.[axis] ?? "right"];
  const register = `${habits.otherRow === axis ? "G55" : "G54"}.${axis}` as const;
  workOut(lane, register, axis, s * radius, o, axis === "x" ? habits.ledger : undefined);
  const back = habits.backsOffFirst?.[axis];
  if (back) lane.do({ type: "jog", axis, direction: away(s), clicks: back, size: "middle" });
  if (habits.way === "motion" && radius > 0) {
    lane.do({ type: "captureRegister", register, asText: "0" });
    moveTo(lane, { z: 0 });
    moveTo(lane, { [axis]: machineMm(lane, axis) + s * radius });
    lane.do({ type: "captureRegister", register, asText: text(lane, o) });
  } else if (habits.way === "add") {
    lane.do({ type: "captureRegister", register, asText: "0" });
    lane.do({ type: "typeRegister", register, text: text(lane, s * radius - o), how: "add", isConfirmed: true });
  } else {
    lane.do({ type: "captureRegister", register, asText: text(lane, o - s * radius) });
  }
}

/** Reading, terms and sum of an edge; with a slip of the pen where the habit says so. */
function workOut(
  lane: MillBench,
  register: "G54.x" | "G54.y" | "G55.x" | "G55.y",
  axis: Flat,
  radiusTerm: number,
  o: number,
  slip: Habits["ledger"],
): void {
  if (slip === "none") return;
  const contact = machineMm(lane, axis);
  if (slip === "reading") {
    lane.do({ type: "jog", axis, direction: radiusTerm > 0 ? -1 : 1, clicks: 20, size: "middle" });
    lane.do({ type: "takeReading", register });
    lane.do({ type: "jog", axis, direction: radiusTerm > 0 ? 1 : -1, clicks: 20, size: "middle" });
  } else lane.do({ type: "takeReading", register });
  const written = slip === "sign" ? -radiusTerm : slip === "missing" ? 0 : radiusTerm;
  if (written !== 0) lane.do({ type: "writeTerm", register, term: "tipRadius", text: text(lane, written) });
  if (o !== 0) lane.do({ type: "writeTerm", register, term: "edgeWork", text: text(lane, -o) });
  lane.do({ type: "writeSum", register, text: text(lane, contact + radiusTerm - o + (slip === "sum" ? 1 : 0)) });
}

export function findEdge(lane: MillBench, axis: Flat, habits: Habits): void {
  const approach = edgeOf(lane.seen.sheet, axis)?.approach ?? 1;
  kickFace(lane, axis, approach, habits);
  setEdge(lane, axis, lane.seen.sheet.tipDiameterMm / 2, habits);
  if (habits.overTravels && axis === "x")
    lane.do({
      type: "jog",
      axis,
      direction: approach,
      clicks: Math.ceil(lane.seen.sheet.tipDiameterMm * 3),
      size: "coarse",
    });
  leave(lane, axis, approach);
}

/** Both hands of the dial to zero, and once more; returns where that was, mm. */
function dialZero(lane: MillBench, axis: Flat, approach: 1 | -1, habits: Habits): number {
  goBeside(lane, axis, approach, 3);
  for (let time = 0; time < (habits.oneKick ? 1 : 2); time++) {
    if (time > 0) lane.do({ type: "jog", axis, direction: away(approach), clicks: 25, size: "coarse" });
    const goal = habits.dialTurnShort === axis ? -1 : 0;
    for (let turn = 0; turn < 600; turn++) {
      const { tip } = lane.seen;
      if (tip?.kind !== "dial") throw new Error("dialZero: no dial");
      const left = goal - tip.readsMm;
      if (tip.isTouching && Math.abs(left) < 0.0005) break;
      const isFar = !tip.isTouching || Math.abs(left) > 0.3;
      const size = isFar ? "coarse" : Math.abs(left) > 0.02 ? "middle" : "fine";
      lane.do({
        type: "jog",
        axis,
        direction: left > 0 ? approach : away(approach),
        clicks: size === "middle" && Math.abs(left) > 0.03 ? 2 : 1,
        size,
      });
    }
    lane.do({ type: "takeReading", register: `G54.${axis}` });
  }
  return machineMm(lane, axis);
}

export function trueTaster(lane: MillBench, habits: Habits): void {
  swapTo(lane, "taster");
  if (!habits.skipsTrue) lane.do({ type: "trueTaster" });
}

export function edgeByDial(lane: MillBench, axis: Flat, habits: Habits): void {
  const edge = edgeOf(lane.seen.sheet, axis);
  const at = dialZero(lane, axis, edge?.approach ?? 1, habits);
  const o = edge?.edgeWorkMm ?? 0;
  if (o !== 0) lane.do({ type: "writeTerm", register: `G54.${axis}`, term: "edgeWork", text: text(lane, -o) });
  lane.do({ type: "writeSum", register: `G54.${axis}`, text: text(lane, at - o) });
  lane.do({ type: "captureRegister", register: `G54.${axis}`, asText: text(lane, edge?.edgeWorkMm ?? 0) });
  leave(lane, axis, edge?.approach ?? 1);
}

/** The middle of two faces, each met in the same way. */
export function middleByTouch(lane: MillBench, axis: Flat, habits: Habits): void {
  const isDial = lane.seen.holds === "taster";
  const contacts = ([1, -1] as const).map((approach) => {
    const at = isDial ? dialZero(lane, axis, approach, habits) : kickFace(lane, axis, approach, habits);
    if (habits.setsFromPoints) lane.do({ type: "keepPoint" });
    else lane.do({ type: "takeReading", register: `G54.${axis}` });
    leave(lane, axis, approach);
    return at;
  });
  if (habits.setsFromPoints) {
    lane.do({ type: "setFromPoints", what: "middle", axis, into: "G54" });
    return;
  }
  const [low = 0, high = 0] = contacts;
  const r = habits.radiusOnOneSide === axis ? lane.seen.sheet.tipDiameterMm / 2 : 0;
  const middle = habits.oneFaceOnly === axis ? low : (low + r + high) / 2;
  lane.do({ type: "writeSum", register: `G54.${axis}`, text: text(lane, middle) });
  lane.do({ type: "typeRegister", register: `G54.${axis}`, text: text(lane, middle), how: "set", isConfirmed: true });
}
