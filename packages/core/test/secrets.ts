import { drawOf, tableZMm, type MillDraw, type MillTruth, type TurningDraw, type TurningTruth } from "../exercises";
import { openLane, type LaneEvent } from "../bench";
import type { Exercise } from "../exercises";
import { eyeShiftMm } from "../lane/eye";

/** Hidden places moved by less than an eye tells: what is shown and refused must not change with them. */

/** A place at the middle of an eye's step, and so far beside it, mm. */
const inside = (mm: number, offset: number, shift: number) => Math.round((mm - offset) / 0.5) * 0.5 + offset + shift;

/** Shares by which lengths are moved: none of them takes back what a height was moved by. */
const LENGTHS_BY = [0.9, -0.4, 0.6, 0.4] as const;

/** A mill's hidden places, each moved by a little; places that an eye judges stay inside its step. */
export function movedMill({ setup, truth }: Pick<MillDraw, "setup" | "truth">, shift: number, by: number): MillTruth {
  const onGrid = (mm: number, ...keys: (string | number)[]) => inside(mm, eyeShiftMm(truth, ...keys), 0);
  return {
    ...truth,
    datumMm: {
      x: inside(truth.datumMm.x, truth.eyeOffsetMm.x, shift) + by,
      y: inside(truth.datumMm.y, truth.eyeOffsetMm.y, shift) + by,
      z: inside(truth.datumMm.z, truth.eyeOffsetMm.z, shift) + by,
    },
    // what stands beside the datum moves by itself: a difference of two heights is no more of a figure than each
    tableMm: onGrid(tableZMm(setup, truth), "table") - by,
    lengthsMm: Object.fromEntries(
      Object.entries(truth.lengthsMm).map(([thing, mm], i) => [
        thing,
        onGrid(mm ?? 0, "length", thing) + by * (LENGTHS_BY[i % LENGTHS_BY.length] ?? 0),
      ]),
    ),
    stockSizeMm: [truth.stockSizeMm[0] + by, truth.stockSizeMm[1] - by, truth.stockSizeMm[2]],
    gapsMm: Object.fromEntries(Object.entries(truth.gapsMm).map(([id, mm]) => [id, mm + by / 1000])),
    diametersMm: Object.fromEntries(Object.entries(truth.diametersMm).map(([n, mm]) => [n, mm + by / 100])),
    skewDeg: setup.isSkewed ? onGrid(truth.skewDeg, "skew") + by / 2 : 0,
    jawSkewDeg: truth.jawSkewDeg === 0 ? 0 : onGrid(truth.jawSkewDeg, "skew") + by / 2,
    offStopMm: truth.offStopMm === 0 ? 0 : onGrid(truth.offStopMm, "off stop", "x") + by,
    dirtMm: truth.dirtMm + by / 100,
    taperDirtMm: truth.taperDirtMm + by / 100,
    ...(truth.feature ? { feature: { diameterMm: truth.feature.diameterMm + by / 10 } } : {}),
    liftMm: truth.liftMm + by / 10,
    ...(truth.setter
      ? {
          setter: {
            topMm: onGrid(truth.setter.topMm, "setter") + by,
            centerErrorMm: { x: by / 10, y: -by / 10 },
          },
        }
      : {}),
    burrMm: { x: truth.burrMm.x + by / 100, y: truth.burrMm.y },
    edgeBreakMm: truth.edgeBreakMm + by / 10,
    taster: { runoutMm: truth.taster.runoutMm + by / 10, leansTo: 3 },
    probe: { pretravelMm: truth.probe.pretravelMm + by / 100, runoutMm: { x: by / 100, y: by / 100 } },
    growthMmPer1000: truth.growthMmPer1000 + by / 100,
    ...(truth.cutting ? { cutting: { ...truth.cutting, warmMm: truth.cutting.warmMm + by / 10 } } : {}),
    doubt: by === 0 ? null : { of: "setter", byMm: 0.2 },
  };
}

/** A lathe's hidden places, moved likewise. */
export function movedTurning({ truth }: Pick<TurningDraw, "truth">, shift: number, by: number): TurningTruth {
  const { lathe } = truth;
  const grid = (...keys: (string | number)[]) => eyeShiftMm(truth, ...keys);
  const { stock, handed } = lathe;
  // the blank as it is drawn: as far out as it comes anywhere, and its hole
  const outMm = inside(stock.diameterMm / 2 + stock.runoutMm + stock.ovalMm, grid("radius"), shift) + by;
  const tools = Object.entries(lathe.tools).map(([number, tool]) => [
    number,
    {
      ...tool,
      kxMm: inside(tool.kxMm, grid("x", Number(number)), shift) + by,
      qMm: inside(tool.qMm, grid("reach", Number(number)), shift) + by,
      heightMm: tool.heightMm + by / 10,
    },
  ]);
  return {
    ...truth,
    gapsMm: Object.fromEntries(Object.entries(truth.gapsMm).map(([id, mm]) => [id, mm + by / 1000])),
    lathe: {
      ...lathe,
      jawMm: lathe.jawMm + by / 10,
      tools: Object.fromEntries(tools) as typeof lathe.tools,
      // a band that was turned on it already shows where the blank was: there only the band is moved
      stock: handed
        ? stock
        : {
            runoutMm: stock.runoutMm + by / 10,
            ovalMm: stock.ovalMm + by / 10,
            diameterMm: 2 * (outMm - stock.runoutMm - stock.ovalMm - by / 5),
            boreMm: stock.boreMm === null ? null : 2 * (inside(stock.boreMm / 2, grid("bore"), shift) + by),
          },
      ...(handed
        ? { handed: { ...handed, bandRadiusMm: inside(handed.bandRadiusMm, grid("radius"), shift) + by } }
        : {}),
    },
  };
}

/** The same lane with its hidden places moved inside one step of the eye; nothing is touched in either. */
export function movedLanes(exercise: Exercise, seed: string, shift: number): [LaneEvent, LaneEvent] {
  const first = openLane(exercise, seed, true);
  if (first.type !== "laneOpened") throw new Error("not opened");
  const draw = drawOf(first);
  const move = (by: number): LaneEvent => ({
    ...first,
    truth: draw.kind === "mill" ? movedMill(draw, shift, by) : movedTurning(draw, shift, by),
    finderOwnKickMm: 0.005 + by / 1000,
  });
  return [move(0), move(0.11)];
}
