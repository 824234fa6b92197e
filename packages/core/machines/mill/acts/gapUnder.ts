import { type MillLane } from "../lane";
import { type Surface } from "../../../exercises/scene";
import { tipPoint, trueScene } from "../solids";
import { FACE_MILL_RECESS_MM, heldAs, toolNumber } from "../../../instruments/things";
import { type Refusal } from "../../../lane/refusals";
import { seenRoomMm } from "../eye";

/** Gap under the tip down to a surface, mm. */
export function gapOverMm(state: MillLane, on: Surface): number {
  return tipPoint(state, state.position).z - (trueScene(state)[on]?.highZ ?? -Infinity);
}

/**
 * How far a face mill's middle stands above its inserts; a feeler or gauge under the middle would be met by nothing,
 * mm.
 */
export function recessMm({ holds, setup }: MillLane): number {
  const tool = setup.tools.find(({ number }) => number === toolNumber(holds));
  return tool?.kind === "faceMill" ? FACE_MILL_RECESS_MM : 0;
}

export const inGap = (state: MillLane): Refusal | null => {
  if (state.paper) return { code: "paperInPlace" };
  return state.block ? { code: "blockInGap" } : null;
};

export const needsSolidTip = ({ holds }: MillLane): boolean => heldAs(holds)?.isSensing !== true;

/** The command needs hands in the machine: door open, spindle still. */
export function reachIn(state: MillLane): Refusal | null {
  if (!state.isDoorOpen) return { code: "doorShutReach" };
  return state.spindle.isOn ? { code: "spindleTurning" } : null;
}

/** Room that a hand with a file or a hammer wants between tip and part, mm. */
const ROOM_FOR_A_HAND_MM = 30;

export const roomForHand = (state: MillLane): Refusal | null =>
  seenRoomMm(state, state.holds) < ROOM_FOR_A_HAND_MM ? { code: "spindleInTheWay" } : null;
