import { drawBetween, drawNormal, drawNormalNotNegative, drawUnit } from "../random";

/**
 * Edge finder: a tip on a spring that runs out of true until the part straightens it, then kicks aside.
 * The kick comes κ past tangency (κ: own N(5, 2) µm ≥ 0 for the finder, and N(0, 0.7) µm at each approach).
 */
export const EDGE_FINDER_LOWEST_RPM = 400;
export const EDGE_FINDER_HIGHEST_RPM = 1200;
/** Only near three times its rating is it thrown apart; between, its kick cannot be relied on. */
export const EDGE_FINDER_THROWN_RPM = 3300;

/** How the tip runs, wide to true: what an eye tells apart. */
export const wobbleNames = ["wide", "large", "middling", "small", "slight", "shiver", "true"] as const;
export type Wobble = (typeof wobbleNames)[number];

/** Gap in mm at which the wobble falls to the next step; each approach jitters them by up to a quarter. */
const THRESHOLDS_MM = [0.45, 0.2, 0.1, 0.05, 0.02, 0.008] as const;
const JITTER = 0.25;
/**
 * Well clear: an approach is over, and the next one drawn anew, about this far from the face (jittered like the steps).
 */
const APPROACH_OVER_MM = 0.8;
/** Below the rated speed the kick is lazy and comes this many times later. */
const SLOW_KICK_FACTOR = 3;

export interface EdgeFinderApproach {
  readonly number: number;
  readonly kickPastMm: number;
  readonly overMm: number;
  readonly thresholdsMm: readonly number[];
  /** How much later, or earlier, the kick comes when the spindle turns faster than the finder is rated, mm. */
  readonly scatterMm?: number | undefined;
}

/** κ of one finder for its whole life in this lane, mm. */
export const drawOwnKickMm = (seed: string, copy: number): number =>
  drawNormalNotNegative(5, 2, seed, "edge finder", copy, "own") / 1000;

/** Above its rating a kick comes this far from its place, one way or the other, mm. */
const SCATTER_MM = { least: 0.012, most: 0.045 } as const;

function drawScatter(seed: string, copy: number, number: number): number {
  const size = drawBetween(SCATTER_MM.least, SCATTER_MM.most, seed, "edge finder", copy, "scatter", number);
  return Math.round((drawUnit(seed, "edge finder", copy, "scatter side", number) < 0.5 ? -size : size) * 1e5) / 1e5;
}

/** How far past tangency an approach kicks at a speed, mm. */
export const kickPastAt = ({ kickPastMm, scatterMm = 0 }: EdgeFinderApproach, rpm: number): number =>
  kickPastMm + (rpm > EDGE_FINDER_HIGHEST_RPM ? scatterMm : 0);

/** What one approach brings: its kick and the jittered steps of the wobble law. */
export function drawApproach(seed: string, copy: number, number: number, ownKickMm: number): EdgeFinderApproach {
  const kickPastMm = Math.max(0, ownKickMm + drawNormal(0, 0.7, seed, "edge finder", copy, "approach", number) / 1000);
  const jittered = (mm: number, step: string | number) =>
    mm * (1 + JITTER * (2 * drawUnit(seed, "edge finder", copy, "threshold", number, step) - 1));
  return {
    number,
    kickPastMm,
    overMm: jittered(APPROACH_OVER_MM, "over"),
    thresholdsMm: THRESHOLDS_MM.map(jittered),
    scatterMm: drawScatter(seed, copy, number),
  };
}

/** The wobble seen at a gap (mm, below zero past tangency). */
export function wobbleAt(gapMm: number, thresholdsMm: readonly number[]): Wobble {
  const passed = thresholdsMm.filter((mm) => gapMm <= mm).length;
  return wobbleNames[passed] ?? "true";
}

/**
 * True when the tip jumps aside: past tangency by κ, later when the spindle turns below the rated speed, never when it
 * stands still.
 */
export const hasKicked = (gapMm: number, kickPastMm: number, rpm: number): boolean =>
  rpm > 0 && gapMm <= -kickPastMm * (rpm < EDGE_FINDER_LOWEST_RPM ? SLOW_KICK_FACTOR : 1);

/** How much later a kick comes for a spindle that turns too slowly, mm. */
export const slowByMm = (kickPastMm: number, rpm: number): number =>
  rpm < EDGE_FINDER_LOWEST_RPM ? kickPastMm * (SLOW_KICK_FACTOR - 1) : 0;

/** Pushed past the face by more than half its radius, the tip bends and says nothing; past its radius it breaks. */
export const overTravel = (gapMm: number, tipRadiusMm: number): "none" | "bent" | "broken" => {
  if (gapMm < -tipRadiusMm) return "broken";
  return gapMm < -tipRadiusMm / 2 ? "bent" : "none";
};

/** How far a bent tip stands out of true, mm: it then meets every face early by this much. */
export const drawBendMm = (seed: string, copy: number, turn: number): number =>
  drawBetween(0.03, 0.07, seed, "edge finder", copy, "bend", turn);

/** How late a contact is made on an edge break when the tip reaches only `depthMm` below the top, mm. */
export const lateOnEdgeBreakMm = (depthMm: number, edgeBreakMm: number): number => Math.max(0, edgeBreakMm - depthMm);
