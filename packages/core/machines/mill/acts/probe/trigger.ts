import { type MillLane } from "../../lane";
import { burrNowMm } from "../../solids";
/** Ball less pre-travel, plus what the stylus runs out toward this side, mm: where the trigger comes. */
export function effectiveRadiusMm(state: MillLane, axis: "x" | "y", approach: 1 | -1): number {
  const { setup, truth, probe } = state;
  // a burr meets the ball before the face does
  return (
    burrNowMm(state, axis) +
    (setup.probe?.ballDiameterMm ?? 6) / 2 -
    truth.probe.pretravelMm +
    approach * truth.probe.runoutMm[axis] +
    probe.bendMm
  );
}
