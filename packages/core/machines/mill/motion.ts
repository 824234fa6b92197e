import { type MillDraft, type Senses } from "./lane";
import { type AxisCounts, type RegisterId } from "../../registers/mill";
import { quickContact, senseHard, strike } from "./contact";
import { type CommandOf } from "../commands";
import { type Decision } from "../act";
import { accept, refuse } from "../../result";
import { jogMm } from "../../lane/names";
import { turnWheel } from "../../motion/clicks";
/** What is noticed on a mill after a step by hand, and after a quick move that struck nothing. */
export interface MillSenses {
  afterStep(draft: MillDraft, fromStep: AxisCounts, clickMm: number): boolean;
  afterMove(draft: MillDraft, fromStep: AxisCounts): boolean;
}

/** Everything that the acts of a mill notice, in their order; something struck ends it. */
export function millSenses(inGap: readonly Senses[], tips: readonly Senses[]): MillSenses {
  const all = (list: readonly Senses[], draft: MillDraft, from: AxisCounts, clickMm: number) =>
    list.map((senses) => senses(draft, from, clickMm)).some(Boolean);
  return {
    afterStep: (draft, from, clickMm) => {
      const before = draft.state.incidents.length;
      const isStruck = () => draft.state.incidents.length > before && draft.state.isStopped;
      const isGapFelt = all(inGap, draft, from, clickMm);
      if (isStruck()) return true;
      const isHard = senseHard(draft, from, clickMm);
      if (isStruck()) return true;
      return all(tips, draft, from, clickMm) || isGapFelt || isHard;
    },
    afterMove: (draft, from) => all([...inGap, ...tips], draft, from, 1),
  };
}

/** Clicks of a wheel; at rapid the tip is hard to everything, and a strike ends the click where it happens. */
export function jog(senses: MillSenses, draft: MillDraft, command: CommandOf<"jog">): Decision {
  const { size, axis } = command;
  if (size === "rapid" && draft.state.isDoorOpen) return refuse({ code: "doorOpenRapid" });
  const clickMm = jogMm(draft.state.setup.unit, size);
  turnWheel(draft, command, (trial, from) => {
    const isQuick = size === "rapid";
    const isFelt = isQuick
      ? senseQuick(senses, trial, from, trial.state.position)
      : senses.afterStep(trial, from, clickMm);
    const isStruck = isFelt && isQuick && trial.state.isStopped;
    return {
      events: trial.events.filter(({ type }) => type !== "moved"),
      isFelt,
      ...(isStruck ? { endsAt: trial.state.position } : {}),
    };
  });
  return draft.events.length === 0 ? refuse({ code: "pastTravel", axis }) : accept(draft.events);
}

/** A rapid click: the tip is hard to everything; a strike stops the machine where it happens. */
function senseQuick(senses: MillSenses, draft: MillDraft, from: AxisCounts, to: AxisCounts): boolean {
  const hit = quickContact(draft.state, from, to);
  if (!hit) return senses.afterMove(draft, from);
  draft.emit({ type: "moved", to: hit.at, isRapid: true });
  clearGap(draft);
  strike(draft, hit.on);
  return true;
}

function clearGap(draft: MillDraft): void {
  if (draft.state.paper) draft.emit({ type: "paperPulled" });
  if (draft.state.block) draft.emit({ type: "blockPulled" });
}

/** A straight typed move, all axes together, by the registers that it reads. */
export function moveStraight(
  senses: MillSenses,
  draft: MillDraft,
  to: AxisCounts,
  how: { readonly isRapid: boolean; readonly reads?: RegisterId[] | undefined },
): void {
  const from = draft.state.position;
  const hit = quickContact(draft.state, from, to);
  draft.emit({ type: "moved", to: hit?.at ?? to, ...how });
  if (hit) {
    clearGap(draft);
    strike(draft, hit.on);
    return;
  }
  if (draft.state.resting) draft.emit({ type: "leftHard" });
  senses.afterMove(draft, from);
}

/** The reference return: up first, away from everything, then home. `retracted` is what ends with the retract. */
export function referenceReturn(retracted: readonly ((draft: MillDraft) => void)[], draft: MillDraft): Decision {
  const { state } = draft;
  if (state.paper) return refuse({ code: "paperInGap" });
  if (state.block) return refuse({ code: "blockInGap" });
  if (state.position.z !== 0) draft.emit({ type: "moved", to: { ...state.position, z: 0 }, isRapid: true });
  for (const ends of retracted) ends(draft);
  draft.emit({ type: "homed" });
  return accept(draft.events);
}
