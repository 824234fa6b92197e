import type { LatheDraft, TurningLane } from "../../lane";
import { coneRoomMm, depthMm, depthOfCutMm, isInside, metalRoomMm, tipAt, toolAt } from "../../contact";
import { carve, type Outline } from "../../outline";
import { advance } from "../../../../motion/advance";
import type { AxisCounts } from "../../../../registers/mill";
import type { EventOf } from "../../../events";
import { cutLook } from "./look";

type Tread = EventOf<"turnedAslant">["treads"][number];

/** A slope is cut in treads no longer than this, mm, and in no more than so many. */
const TREAD_MM = 0.2;
const MOST_TREADS = 120;

const round = (mm: number): number => Math.round(mm * 1e5) / 1e5;

/** What the edge takes off where it stands: everything before it along Z, from its own radius on. */
const treadHere = (state: TurningLane): Tread => {
  const { radiusMm, zMm } = tipAt(state);
  const { bladeMm = 2000, sideMm = 0 } = toolAt(state);
  return {
    fromMm: round(zMm + sideMm),
    toMm: round(zMm + sideMm + bladeMm),
    radiusMm: round(Math.max(0, radiusMm)),
  };
};

export const carvedBy = (outline: Outline, kind: "outer" | "bore", treads: readonly Tread[], number: number): Outline =>
  treads.reduce((part, { fromMm, toMm: end, radiusMm }) => carve(part, kind, fromMm, end, radiusMm, number), outline);

/**
 * A feed move in both axes at once, into whatever stands there: it cuts a slope as long as an insert takes it, which is
 * no face and no band to count from. A drill that is dragged sideways breaks, and so does an edge that comes too deep.
 * Whether it meets metal changes nothing but what happens; it is never refused.
 */
export function cutAslant(
  { state }: LatheDraft,
  at: (share: number) => AxisCounts,
  lengthMm: number,
  deepestMm: number,
): {
  readonly end: AxisCounts;
  readonly isBroken: boolean;
  readonly facts: EventOf<"turnedAslant" | "scratched" | "coneDug">[];
} {
  const to = at(1);
  const none = { end: to, isBroken: false, facts: [] };
  const first = advance(lengthMm, (share) => metalRoomMm(state, at(share), null));
  if (first === null) return none;
  if (toolAt(state).kind === "drill") return { end: at(first), isBroken: true, facts: [] };
  const kind = isInside(toolAt(state)) ? "bore" : "outer";
  const number = state.lathe.cuts + 1;
  const steps = Math.max(1, Math.min(MOST_TREADS, Math.ceil(((1 - first) * lengthMm) / TREAD_MM)));
  const treads: Tread[] = [];
  let lane: TurningLane = state;
  let end = to;
  let dugMm = 0;
  let isBroken = false;
  for (let step = 1; step <= steps && !isBroken; step++) {
    end = at(step === steps ? 1 : first + ((1 - first) * step) / steps);
    lane = { ...lane, position: end };
    dugMm = Math.max(dugMm, -(coneRoomMm(lane) ?? 0));
    // as thick as what the part had there, and not as the last tread left it
    isBroken = Math.max(depthOfCutMm({ ...state, position: end }), dugMm) > deepestMm;
    if (isBroken || depthMm(lane) === 0) continue;
    const tread = treadHere(lane);
    const outline = carvedBy(lane.lathe[kind], kind, [tread], number);
    if (outline === lane.lathe[kind]) continue;
    treads.push(tread);
    lane = { ...lane, lathe: { ...lane.lathe, [kind]: outline } };
  }
  const looks = cutLook({ ...state, position: end }, TREAD_MM);
  const facts: EventOf<"turnedAslant" | "scratched" | "coneDug">[] = [];
  // heel first nothing comes off, and that is heard
  if (looks === "rubs" && treads.length > 0)
    facts.push({ type: "scratched", on: kind === "bore" ? "bore" : "diameter", axis: "z", at: end, clickMm: 0, looks });
  if (looks !== "rubs" && treads.length > 0) facts.push({ type: "turnedAslant", kind, treads, number, at: end, looks });
  if (looks !== "rubs" && dugMm > 0) facts.push({ type: "coneDug", depthMm: round(dugMm), at: end, looks });
  return { end, isBroken, facts };
}
