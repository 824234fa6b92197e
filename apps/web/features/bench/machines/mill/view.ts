import type { MillSeen } from "@probe-lane/core/bench";
import { edgeOf, surfaces, type Surface } from "@probe-lane/core/exercises";
import { planGap, type Solid } from "@probe-lane/core/geometry";
import { TASTER_TURN_MM, toolNumber, type Thing } from "@probe-lane/core/instruments";
import type { Side } from "@probe-lane/core/lane";
import type { Axis, AxisCounts } from "@probe-lane/core/registers";
import { scales, showLength, toMm } from "@probe-lane/core/units";
import { holding, windowRound, type Shown, type ViewBox } from "../../lane/camera";
import type { DialogProps } from "../../lane/kit";
import { gapLabel, nearest, stoppedSensation, type Sensation } from "../../lane/things";
import { feelWords, gapKindWords, surfaceWords, thingWords, toolKindWords, wobbleWords } from "@probe-lane/core/words";

/** How a place of the machine lies across a view from one side: right of the viewer is plus. */
export function across(side: Side, x: number, y: number): number {
  switch (side) {
    case "front":
      return x;
    case "back":
      return -x;
    case "left":
      return -y;
    case "right":
      return y;
  }
}

/** Further from the viewer is larger. */
export function depth(side: Side, x: number, y: number): number {
  switch (side) {
    case "front":
      return y;
    case "back":
      return -y;
    case "left":
      return x;
    case "right":
      return -x;
  }
}

export const nextSide: Record<Side, Side> = { front: "right", right: "back", back: "left", left: "front" };

export type MillDialogProps = DialogProps<MillSeen>;

export interface Place {
  x: number;
  y: number;
  tipZ: number;
  noseZ: number;
}

/** Where the spindle axis, the tip and the nose stand, mm; the tip as far down as an eye makes the tool. */
export function placeOf(seen: MillSeen, machine: AxisCounts): Place {
  const scale = scales[seen.sheet.unit];
  const noseZ = toMm(machine.z, scale);
  return { x: toMm(machine.x, scale), y: toMm(machine.y, scale), noseZ, tipZ: noseZ - seen.heldLengthMm };
}

/** What the drawing shows, from the highest down, where an eye looks from above. */
export const solidsOf = ({ solids }: MillSeen): { name: Surface; solid: Solid }[] =>
  surfaces.flatMap((name) => {
    const solid = solids[name];
    return solid ? [{ name, solid }] : [];
  });

/** Eye distances from the tip's outside to the blank's sides and to what is below, mm. */
export function daylight(seen: MillSeen, machine: AxisCounts): { side: number; above: number; top: number } {
  const { stock } = seen.solids;
  const { x, y, tipZ } = placeOf(seen, machine);
  const below = (seen.below && seen.solids[seen.below]?.highZ) ?? stock.highZ;
  return { side: planGap(stock, x, y) - seen.heldShape.tipRadiusMm, above: tipZ - stock.highZ, top: tipZ - below };
}

/** A tool of the sheet by its kind: "end mill ⌀ 10"; instruments by name. */
export function thingLabel(seen: Pick<MillSeen, "sheet">, thing: Thing): string {
  const tool = seen.sheet.tools.find(({ number }) => number === toolNumber(thing));
  return tool
    ? `${thingWords(thing)}, ${toolKindWords[tool.kind]} ⌀ ${showLength(tool.diameterMm, scales[seen.sheet.unit], seen.sheet.unit === "mm" ? 1 : 3)}`
    : thingWords(thing);
}

/** The hands of a dial as an eye reads them: hundredths on the large one, whole turns on the small one. */
export function dialHands(readsMm: number): { large: string; small: string } {
  const turns = readsMm / TASTER_TURN_MM;
  const share = turns - Math.floor(turns + 1e-6);
  const whole = Math.floor(turns + 1e-6);
  const sign = (turn: number) => (turn < 0 ? `−${-turn}` : String(turn));
  return {
    large: (Math.abs(share) * 100).toFixed(1),
    small: share < 0.02 ? `at ${sign(whole)}` : `between ${sign(whole)} and ${sign(whole + 1)}`,
  };
}

function tipSensation({ tip, spindle, holds }: MillSeen): Sensation | null {
  if (!tip || !holds) return null;
  switch (tip.kind) {
    case "destroyed":
      return { strong: `${thingWords(holds)} in pieces`, soft: "take it out and load another", isContact: true };
    case "aside":
      return {
        strong: "tip kicked aside",
        soft: spindle.isOn ? "it stays there until set wobbling" : "spindle stopped",
        isContact: true,
      };
    case "running": {
      const soft =
        tip.wobble === "wide"
          ? "free of the part"
          : tip.wobble === "true"
            ? "no wobble to be seen"
            : "the part straightens it";
      return { strong: wobbleWords[tip.wobble], soft, isContact: tip.wobble !== "wide" && tip.wobble !== "true" };
    }
    case "still":
      return { strong: "tip stands still", soft: "spindle stopped", isContact: false };
    case "dial": {
      if (!tip.isTouching)
        return { strong: "dial at rest", soft: tip.isTrued ? "free of everything" : "not trued yet", isContact: false };
      const { large, small } = dialHands(tip.readsMm);
      return { strong: `large hand ${large}`, soft: `small hand ${small}`, isContact: true };
    }
    case "probe":
      return tip.isTriggered
        ? { strong: "probe lamp is on", soft: "the ball leans on something", isContact: true }
        : { strong: "probe lamp is off", soft: "free of everything", isContact: false };
  }
}

/** What eye, ear and finger say at the working point: one strong line, and one that helps. */
export function sensationOf(seen: MillSeen, machine: AxisCounts): Sensation {
  const { paper, block, resting, holds, lamp, lastTry } = seen;
  if (seen.isStopped) return stoppedSensation(seen);
  if (paper) {
    const soft = {
      slides: "nothing holds it",
      drags: "just held, still moves",
      held: "moves only with a pull",
      pinched: "will tear if pulled",
      torn: "the tip has touched",
    }[paper.feel];
    const kind = seen.sheet.gaps.find(({ id }) => id === paper.id)?.kind ?? "paper";
    return { strong: `${gapKindWords[kind]} ${feelWords[paper.feel]}`, soft, isContact: paper.feel !== "slides" };
  }
  if (block)
    return { strong: `${gapLabel(seen, block.id)} goes`, soft: "it is in the gap: do not close it", isContact: true };
  if (resting)
    return { strong: `tip rests on the ${surfaceWords(resting)}`, soft: "metal on metal: go back up", isContact: true };
  if (lamp?.isLit) return { strong: "lamp is lit", soft: `gauge on the ${surfaceWords(lamp.on)}`, isContact: true };
  if (seen.isSetterTriggered)
    return { strong: "setter has triggered", soft: "the plunger is pressed", isContact: true };
  const tip = tipSensation(seen);
  if (tip) return tip;
  if (lastTry && !lastTry.goes && lastTry.machineZ === seen.machine.z)
    return { strong: `${gapLabel(seen, lastTry.id)} does not go`, soft: "open the gap a little", isContact: true };
  if (holds === "indicator" && seen.sheet.feature) {
    const last = seen.readings.findLast(({ instrument }) => instrument === "indicator");
    const [a = 0, b = 0, c = 0, d = 0] = ["at0", "at90", "at180", "at270"].map((place) => last?.values[place] ?? 0);
    const most = Math.round(Math.max(Math.abs(a - c), Math.abs(b - d)) * 1000);
    const soft = !last
      ? "not carried round yet"
      : last.outcome === "missed"
        ? "the lever did not reach all round"
        : `opposite places differ by up to ${most} thousandths`;
    return { strong: `indicator at the ${seen.sheet.feature.kind}`, soft, isContact: last?.outcome === "found" };
  }
  const name = holds ? thingWords(holds) : "bare nose";
  const { side, top } = daylight(seen, machine);
  if (seen.below === null || seen.below === "table") {
    if (side > 0 && side < 60)
      return { strong: `${name} beside the part`, soft: `about ${nearest(side)} mm of daylight`, isContact: false };
  }
  const where = seen.below ? surfaceWords(seen.below) : "nothing";
  return {
    strong: `${name} over the ${where}`,
    soft: top > 0 ? `about ${nearest(top)} mm of daylight` : "close to the top",
    isContact: false,
  };
}

/** Room round what holds the blank, round a tip, and half of what is looked at closely, mm. */
const ROOM_MM = 12;
const TIP_ROOM_MM = 16;
const CLOSE_HALF_MM = 17;

/** Daylight from the tip to the blank, and to a gauge or setter that it could meet, as an eye tells it, mm. */
export function nearestMm(seen: MillSeen, machine: AxisCounts): number {
  const { x, y, tipZ } = placeOf(seen, machine);
  const gaps = surfaces.flatMap((name) => {
    const solid = seen.solids[name];
    if (!solid || name === "table") return [];
    const [side, over] = [planGap(solid, x, y) - seen.heldShape.tipRadiusMm, tipZ - solid.highZ];
    return [side > 0 && over > 0 ? Math.hypot(side, over) : Math.max(side, over)];
  });
  return Math.min(...gaps);
}

/** A tip higher than this over the blank is drawn over a break, mm: the way between is left out, and said. */
const BREAK_MM = 34;

/** How high over its drawn place a tip is; 0 where nothing is left out. */
export function leftOutMm(seen: MillSeen, tipZ: number, shown: Shown): number {
  return shown === "near" ? Math.max(0, tipZ - seen.boxes.stock.high.z - BREAK_MM) : 0;
}

/** What plan and section show: always the tip, and the nearest thing that it could meet. */
export function sceneWindows(seen: MillSeen, machine: AxisCounts, shown: Shown): { plan: ViewBox; section: ViewBox } {
  const scale = scales[seen.sheet.unit];
  const { sight, travelCounts, boxes } = seen;
  const { x, y, tipZ, noseZ } = placeOf(seen, machine);
  const at = across(sight, x, y);
  const { frontJaw, backJaw, plate, stock, table } = boxes;
  if (shown === "contact")
    return { plan: windowRound(x, y, CLOSE_HALF_MM), section: windowRound(at, tipZ + 5, CLOSE_HALF_MM) };
  const isAlongX = sight === "front" || sight === "back";
  const sideways = ({ left, right, bottom, top }: ViewBox): Pick<ViewBox, "left" | "right"> => {
    const [a, b] = isAlongX
      ? [across(sight, left, 0), across(sight, right, 0)]
      : [across(sight, 0, bottom), across(sight, 0, top)];
    return { left: Math.min(a, b), right: Math.max(a, b) };
  };
  if (shown === "far") {
    const plan = {
      left: toMm(travelCounts.x[0], scale) - 60,
      right: toMm(travelCounts.x[1], scale) + 60,
      bottom: toMm(travelCounts.y[0], scale) - 40,
      top: toMm(travelCounts.y[1], scale) + 40,
    };
    return { plan, section: { ...sideways(plan), bottom: table.high.z - 20, top: Math.max(20, noseZ + 20) } };
  }
  const low = frontJaw?.low ?? plate?.low ?? stock.low;
  const high = backJaw?.high ?? plate?.high ?? stock.high;
  const held = { left: low.x - ROOM_MM, right: high.x + ROOM_MM, bottom: low.y - ROOM_MM, top: high.y + ROOM_MM };
  const plan = holding(held, x, y, TIP_ROOM_MM);
  const upright = { ...sideways(plan), bottom: stock.low.z - 34, top: stock.high.z + 34 };
  return { plan, section: holding(upright, at, tipZ - leftOutMm(seen, tipZ, shown), TIP_ROOM_MM) };
}

/**
 * Where the registers of the offset in use have their zero, machine frame, mm; null where one holds nothing. Of Z it is
 * where the tip would stand that is held now, with its length as the control has it and its body as an eye sees it.
 */
export function ownZero({ registers, modal, sheet, lengthCounts, heldLengthMm }: MillSeen): {
  readonly x: number | null;
  readonly y: number | null;
  readonly tipZ: number | null;
} {
  const scale = scales[sheet.unit];
  const row = registers.work[modal.workOffset];
  const { common } = registers;
  const held = (axis: "x" | "y") => (row[axis] === 0 ? null : toMm(row[axis] + common[axis], scale));
  const hasLength = row.z !== 0 || lengthCounts !== 0;
  return {
    x: held("x"),
    y: held("y"),
    tipZ: hasLength && lengthCounts !== 0 ? toMm(row.z + common.z + lengthCounts, scale) - heldLengthMm : null,
  };
}

/** Where a programmed place lies in the scene by the student's own registers, mm; null of what has no zero yet. */
export function programmedAt(seen: MillSeen, [x = 0, y = 0, z = 0]: readonly number[], frame: string) {
  const zero = ownZero(seen);
  const { registers, modal, sheet } = seen;
  const scale = scales[sheet.unit];
  // without a zero of their own there is nowhere to draw it
  if (zero.x === null || zero.y === null) return null;
  const named = (Object.keys(registers.work) as (keyof typeof registers.work)[]).find((one) => one === frame);
  if (!named) return null;
  const [row, active] = [registers.work[named], registers.work[modal.workOffset]];
  return {
    x: toMm(row.x + registers.common.x, scale) + x,
    y: toMm(row.y + registers.common.y, scale) + y,
    tipZ: zero.tipZ === null ? null : zero.tipZ + toMm(row.z - active.z, scale) + z,
  };
}

/** Which axis keys lead to the blank from where the tip stands, as an eye tells it. */
export function towardPart(seen: MillSeen, machine: AxisCounts): { axis: Axis; direction: 1 | -1 }[] {
  const { stock } = seen.boxes;
  const place = placeOf(seen, machine);
  const flat = (["x", "y"] as const).flatMap((axis): { axis: Axis; direction: 1 | -1 }[] => {
    if (place[axis] < stock.low[axis]) return [{ axis, direction: 1 }];
    return place[axis] > stock.high[axis] ? [{ axis, direction: -1 }] : [];
  });
  return flat.length === 0 && place.tipZ > stock.high.z ? [{ axis: "z", direction: -1 }] : flat;
}

/** Where the drawing has its zero, the gauges' sizes and the rest of the sheet in a few lines, with field words. */
export function sheetLine({ sheet, cards }: MillSeen): string[] {
  const show = (mm: number) => showLength(mm, scales[sheet.unit]);
  const [x, y] = [edgeOf(sheet, "x"), edgeOf(sheet, "y")];
  const zero =
    x && y
      ? [
          `${x.approach === 1 ? "left" : "right"} edge is X ${show(x.edgeWorkMm)}`,
          `${y.approach === 1 ? "front" : "back"} edge is Y ${show(y.edgeWorkMm)}`,
        ]
      : [
          sheet.datum.kind === "middle"
            ? "X0 Y0: middle of the blank"
            : `X0 Y0: ${sheet.feature?.kind === "pocket" ? "middle" : "axis"} of the ${sheet.feature?.kind ?? "feature"}`,
        ];
  return [
    ...zero,
    `skin is Z ${show(sheet.facingAllowanceMm)}`,
    ...(sheet.instruments.includes("edgeFinder") ? [`tip ⌀ ${show(sheet.tipDiameterMm)}`] : []),
    ...(sheet.probe && sheet.instruments.includes("probe")
      ? [
          `probe r ${show(cards.probeRadius ?? sheet.probe.effectiveRadiusMm)}, length ${show(cards.probeLength ?? sheet.probe.lengthMm)}`,
        ]
      : []),
    ...sheet.gaps
      .filter(({ kind }) => sheet.instruments.includes(kind))
      .map(({ kind, nominalMm }) => `${gapKindWords[kind]} ${show(nominalMm)}`),
    ...(sheet.instruments.includes("lampGauge") ? [`height gauge ${show(sheet.lampGaugeMm)}`] : []),
    ...(sheet.setter && sheet.instruments.includes("plungerSetter")
      ? [`nose triggers at Z ${show(cards.setter ?? sheet.setter.noseTriggerMm)}`]
      : []),
  ];
}
