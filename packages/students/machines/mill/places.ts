import { lastReading } from "../../readings";
import type { ProbeQuestion } from "@probe-lane/core/instruments";
import { sweepError } from "@probe-lane/core/registers";
import type { CommandOf } from "@probe-lane/core/bench";
import type { Reading } from "@probe-lane/core/lane";
import type { MillBench } from "../../bench";
import type { Habits } from "../../habits";
import { machineMm, moveTo, reachIn, text } from "../../moves";
import { middleOf, standAt, swapTo } from "./moves";

function measured(lane: MillBench, what: CommandOf<"measure">["what"]): number {
  reachIn(lane);
  lane.do({ type: "measure", what, by: "caliper" });
  return Object.values(lastReading(lane).values)[0] ?? 0;
}

type Ask = Omit<CommandOf<"askProbe">, "type" | "question">;
/** Asked twice; the answers agree, or the second is believed. */
function askTwice(lane: MillBench, question: ProbeQuestion, ask: Ask, habits: Habits): Reading {
  for (let time = 0; time < (habits.oneKick ? 1 : 2) && !lane.seen.isStopped; time++)
    lane.do({ type: "askProbe", question, ...ask });
  return lastReading(lane);
}

function typeIn(lane: MillBench, axis: "x" | "y", mm: number): void {
  lane.do({ type: "takeReading", register: `G54.${axis}`, from: lastReading(lane).number });
  lane.do({ type: "writeSum", register: `G54.${axis}`, text: text(lane, mm) });
  lane.do({ type: "typeRegister", register: `G54.${axis}`, text: text(lane, mm), how: "set", isConfirmed: true });
}

/** Down so far that the ball's middle is well below the top, from a start that is high above it, mm. */
const HIGH_MM = 20;
const DEEP_MM = 6;

export function middleByProbe(lane: MillBench, axis: "x" | "y", habits: Habits): void {
  const size = measured(lane, axis === "x" ? "stockX" : "stockY") + (habits.wrongSizeMm ?? 0);
  swapTo(lane, "probe");
  standAt(lane, middleOf(lane.seen), lane.seen.boxes.stock.high.z + HIGH_MM);
  const { values, outcome } = askTwice(
    lane,
    "twoOutside",
    {
      axis,
      size: text(lane, size),
      depth: text(lane, HIGH_MM + DEEP_MM),
      ...(habits.writesByCycle ? { into: "G54" as const } : {}),
    },
    habits,
  );
  if (outcome !== "found" || habits.writesByCycle) return;
  typeIn(lane, axis, values.middle ?? 0);
}

/** Where the feature's axis is drawn. */
function featureAt(lane: MillBench): { x: number; y: number } {
  const {
    sheet,
    boxes: { stock },
  } = lane.seen;
  const [x = 0, y = 0] = sheet.feature?.atMm ?? [];
  return { x: stock.low.x + x, y: stock.low.y + y };
}

/** The middle of a pocket: two faces from inside, along each axis. */
export function pocketByProbe(lane: MillBench, habits: Habits): void {
  const { feature } = lane.seen.sheet;
  swapTo(lane, "probe");
  standAt(lane, featureAt(lane), lane.seen.boxes.stock.high.z + HIGH_MM);
  for (const axis of ["x", "y"] as const) {
    const size = (axis === "x" ? feature?.diameterMm : feature?.acrossYMm) ?? 0;
    const { values, outcome } = askTwice(
      lane,
      "twoInside",
      { axis, size: text(lane, size + (habits.wrongSizeMm ?? 0)), depth: text(lane, HIGH_MM + DEEP_MM) },
      habits,
    );
    if (outcome !== "found") return;
    typeIn(lane, axis, values.middle ?? 0);
  }
}

export function roundByProbe(lane: MillBench, habits: Habits): void {
  const { sheet, boxes } = lane.seen;
  const size = measured(lane, "feature") + (habits.wrongSizeMm ?? 0);
  const isBore = sheet.feature?.kind === "bore";
  swapTo(lane, "probe");
  const top = isBore ? boxes.stock.high.z : (boxes.boss?.high.z ?? 0);
  standAt(lane, featureAt(lane), top + HIGH_MM);
  const { values, outcome } = askTwice(
    lane,
    isBore ? "bore" : "boss",
    { size: text(lane, size), depth: text(lane, HIGH_MM + DEEP_MM) },
    habits,
  );
  if (outcome !== "found") return;
  typeIn(lane, "x", values.x ?? 0);
  typeIn(lane, "y", values.y ?? 0);
}

/**
 * The indicator carried round, the spindle moved by half of what opposite readings differ by, until hardly anything
 * moves.
 */
export function sweepRound(lane: MillBench, habits: Habits): void {
  const { sheet, boxes } = lane.seen;
  const kind = sheet.feature?.kind === "boss" ? "boss" : "bore";
  swapTo(lane, "indicator");
  standAt(lane, featureAt(lane), (kind === "bore" ? boxes.stock.high.z : (boxes.boss?.high.z ?? 0)) - 3);
  for (let time = 0; time < 6; time++) {
    reachIn(lane);
    lane.do({ type: "sweep" });
    const { values } = lastReading(lane);
    const { error, totalReading } = sweepError(
      [values.at0 ?? 0, values.at90 ?? 0, values.at180 ?? 0, values.at270 ?? 0],
      kind,
    );
    if (habits.sweepWrongWay || (totalReading < 0.008 && time > 0)) break;
    moveTo(lane, { x: machineMm(lane, "x") - error[0], y: machineMm(lane, "y") - error[1] });
  }
  reachIn(lane);
  lane.do({ type: "sweep" });
  for (const axis of ["x", "y"] as const) {
    lane.do({ type: "takeReading", register: `G54.${axis}` });
    lane.do({ type: "writeSum", register: `G54.${axis}`, text: text(lane, machineMm(lane, axis)) });
    lane.do({ type: "captureRegister", register: `G54.${axis}`, asText: "0" });
  }
}

/** Angle of the front face, then the corner; turned by program or tapped square. */
export function skewedCorner(lane: MillBench, habits: Habits): void {
  swapTo(lane, "probe");
  const front = () => {
    const {
      boxes: { stock },
    } = lane.seen;
    standAt(lane, { x: (stock.low.x + stock.high.x) / 2, y: stock.low.y - 8 }, stock.high.z - 5);
    lane.do({ type: "askProbe", question: "angle", axis: "x", direction: 1, size: text(lane, 80) });
    return lastReading(lane).values.angleDeg ?? 0;
  };
  let angle = front();
  if (habits.squares === "tap") {
    for (let tap = 0; tap < 40 && Math.abs(angle) > 0.012; tap++) {
      moveTo(lane, { z: 0 });
      reachIn(lane);
      lane.do({ type: "tapPart", direction: angle > 0 ? -1 : 1, strength: Math.abs(angle) > 0.15 ? "hard" : "light" });
      angle = front();
    }
  }
  const corner = () => {
    const {
      boxes: { stock },
    } = lane.seen;
    standAt(lane, { x: stock.low.x + 1, y: stock.low.y + 1 }, stock.high.z + HIGH_MM);
    lane.do({
      type: "askProbe",
      question: "cornerOutside",
      direction: -1,
      directionY: -1,
      depth: text(lane, HIGH_MM + DEEP_MM),
    });
    return lastReading(lane).values;
  };
  corner();
  const found = corner();
  typeIn(lane, "x", found.x ?? 0);
  typeIn(lane, "y", found.y ?? 0);
  if (habits.squares !== "tap" && !habits.forgetsTurn)
    lane.do({ type: "runBlock", text: `G68 R${(found.angleDeg ?? 0).toFixed(4)}` });
}
