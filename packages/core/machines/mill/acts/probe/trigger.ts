import { type MillLane } from "../../lane";
import { burrNowMm } from "../../solids";
/** Ball less pre-travel, plus what the stylus runs out toward this side, mm: where the trigger comes. */
export function effectiveRadiusMm(state: MillLane, axis: "x" | "y", approach: 1 | -1): number {
  const { setup, truth, probe } = state;
  // a burr meets the ball before the face does
  return (
    burrNowMm(state, axis) +
    (setup.probe?.ballDiameterMm ?? 6) / 2 -
    truth.probe.pretravelMm -
    probe.deeperMm +
    approach * truth.probe.runoutMm[axis] +
    probe.bendMm
  );
}

/**
 * The part of the ball that a wall can meet beside a tip at `tipZ`: its equator where the ball hangs whole below the
 * wall's top; where the top edge lies under the equator, the ball's smaller girth there, so that it answers late by
 * r − √(r² − h²). Null when no part of it is that low. mm.
 */
export function ballBeside(
  state: MillLane,
  wall: { readonly highZ: number },
  tipZ: number,
  axis: "x" | "y",
  approach: 1 | -1,
): { radiusMm: number; fromMm: number; toMm: number } | null {
  const ball = (state.setup.probe?.ballDiameterMm ?? 6) / 2;
  const full = effectiveRadiusMm(state, axis, approach);
  const depth = wall.highZ - tipZ;
  if (depth >= ball) return { radiusMm: full, fromMm: ball - 0.2, toMm: ball + 0.2 };
  if (depth <= 0) return null;
  const over = ball - depth;
  const radiusMm = full - (ball - Math.sqrt(ball * ball - over * over));
  return radiusMm > 0 ? { radiusMm, fromMm: 0, toMm: depth } : null;
}
