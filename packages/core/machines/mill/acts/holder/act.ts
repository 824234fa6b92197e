import type * as schema from "./schema";
import { tipAtRest, type MillAct, type MillDraft, type MillLane } from "../../lane";
import { type CommandOf } from "../../../commands";
import { type Decision } from "../../../act";
import { inGap, reachIn } from "../gapUnder";
import { accept, refuse } from "../../../../result";
import { toolNumber } from "../../../../instruments/things";
import { isInChangersWay, thingIn } from "../../pockets";
import { seenRoomMm } from "../../eye";
import { drawOwnKickMm } from "../../../../instruments/edgeFinder";
import { drawBetween } from "../../../../random";
import { isBroken } from "../../evidence";
import { type Refusal } from "../../../../lane/refusals";

const ROOM_TO_LOAD_MM = 5;

/** Dirt in the taper holds a tool lower until the taper is wiped, mm. */
const seatNowMm = (state: MillLane): number => (state.tasksDone.includes("wipeTaper") ? 0 : state.truth.taperDirtMm);

const tidy = (mm: number): number => Math.round(mm * 1e4) / 1e4 || 0;

/** The probe that follows a smashed one: of another length, and its card is by rule until somebody calibrates it. */
function nextProbe({ setup, truth, desk }: MillLane) {
  const between = (low: number, high: number, of: string) =>
    tidy(drawBetween(low, high, truth.seed, "next probe", desk.readingsMade, of));
  const longerMm = between(-2, 2, "length");
  const lengthMm = (truth.lengthsMm.probe ?? 0) + longerMm;
  return {
    longerMm,
    deeperMm: between(-0.004, 0.006, "pre-travel"),
    card: {
      probeRadius: (setup.probe?.ballDiameterMm ?? 6) / 2,
      probeLength: tidy(Math.round((lengthMm + between(-0.2, 0.2, "card")) * 10) / 10),
    },
  };
}

function load(draft: MillDraft, { thing }: CommandOf<"load">): Decision {
  const { state } = draft;
  const problem = reachIn(state) ?? inGap(state);
  if (problem) return refuse(problem);
  const number = toolNumber(thing);
  const isHere =
    number === null
      ? state.setup.instruments.some((name) => name === thing)
      : state.setup.tools.some((tool) => tool.number === number);
  if (!isHere)
    return refuse(
      number === null ? { code: "instrumentNotHere", instrument: thing } : { code: "toolNotHere", tool: number },
    );
  if (state.holds !== null) return refuse({ code: "spindleHolds", thing: state.holds });
  if (seenRoomMm(state, thing) < ROOM_TO_LOAD_MM) return refuse({ code: "noRoomToLoad" });
  if (thing === "edgeFinder" && state.finder.condition === "broken") {
    const copy = state.finder.copy + 1;
    draft.emit({ type: "finderReplaced", copy, ownKickMm: drawOwnKickMm(state.truth.seed, copy) });
  }
  if (isBroken(state, thing))
    draft.emit({ type: "instrumentReplaced", thing, ...(thing === "probe" ? { successor: nextProbe(state) } : {}) });
  draft.emit({ type: "loaded", thing, seatMm: seatNowMm(state) });
  return accept(draft.events);
}

function unload({ state }: MillDraft): Decision {
  const problem = reachIn(state) ?? (state.holds === null ? ({ code: "spindleEmpty" } as const) : inGap(state));
  return problem ? refuse(problem) : accept([{ type: "unloaded" }]);
}

function turnSpindle({ state }: MillDraft): Decision {
  const problem = reachIn(state);
  return problem ? refuse(problem) : accept([{ type: "spindleTurned", quarter: (state.carried.quarter + 1) % 4 }]);
}

/** Tools change places beside the machine, door open. */
function swapPockets({ state }: MillDraft, { a, b }: CommandOf<"swapPockets">): Decision {
  if (state.carried.pockets[a] === undefined || state.carried.pockets[b] === undefined || a === b)
    return refuse({ code: "toolNotHere", tool: state.carried.pockets[a] === undefined ? a : b });
  const problem = reachIn(state);
  return problem ? refuse(problem) : accept([{ type: "pocketsSwapped", a, b }]);
}

/** Room under the nose that a tool change wants, by eye, mm. */
const ROOM_TO_CHANGE_MM = 130;

export function changeProblem(state: MillLane, tool: number): Refusal | null {
  if (state.carried.pockets[tool] === undefined) return { code: "toolNotHere", tool };
  if (state.isDoorOpen) return { code: "doorOpenMotion" };
  if (state.spindle.isOn) return { code: "spindleTurning" };
  if (state.holds === "edgeFinder" || state.holds === "pointedTool")
    return { code: "spindleHolds", thing: state.holds };
  if (state.holds && isInChangersWay(state) && state.setup.settings.spindleGuard === "refuses")
    return { code: "spindleHolds", thing: state.holds };
  return seenRoomMm(state, null) < ROOM_TO_CHANGE_MM ? { code: "noRoomToLoad" } : null;
}

/**
 * The changer puts away what hangs in the spindle and brings what stands in the pocket: the control believes the
 * number.
 */
export function changeTool(draft: MillDraft, tool: number): void {
  const { state } = draft;
  if (state.holds && isInChangersWay(state)) {
    draft.emit({
      type: "incidentHappened",
      code: "changerStruck",
      isSilent: false,
      failsOutright: false,
      stopsMachine: true,
      thing: state.holds,
    });
    return;
  }
  const brings = thingIn(state.setup, state.carried.pockets[tool] ?? tool);
  if (state.holds === brings) return;
  if (state.holds !== null) draft.emit({ type: "unloaded" });
  draft.emit({ type: "loaded", thing: brings, seatMm: seatNowMm(state), isByChanger: true });
}

/** What hangs in the spindle: loaded by hand or by the changer, taken out, turned by hand. */
export const holder: MillAct<typeof schema> = {
  decide: { load, unload, turnSpindle, swapPockets },
  evolve: {
    loaded: (state, { thing, seatMm = 0, isByChanger = false }) => ({
      ...state,
      holds: thing,
      carried: { ...state.carried, seatMm, isByChanger },
    }),
    instrumentReplaced: (state, { thing, successor }) => ({
      ...state,
      cards: successor ? { ...state.cards, ...successor.card } : state.cards,
      harm: { ...state.harm, broken: state.harm.broken.filter((one) => one !== thing) },
      taster: thing === "taster" ? { ...state.taster, isTrued: false } : state.taster,
      probe:
        thing === "probe"
          ? {
              ...state.probe,
              bendMm: 0,
              longerMm: successor?.longerMm ?? state.probe.longerMm,
              deeperMm: successor?.deeperMm ?? state.probe.deeperMm,
            }
          : state.probe,
    }),
    unloaded: (state) => ({
      ...state,
      holds: null,
      carried: { ...state.carried, seatMm: 0, isByChanger: false },
      finder: tipAtRest(state),
      resting: null,
      taster: { ...state.taster, touch: null },
      probe: { ...state.probe, touch: null },
      // what was tried was tried with what is gone
      blocks: { ...state.blocks, last: null },
      lamp: { ...state.lamp, touch: null },
      setter: { ...state.setter, touch: null },
    }),
    pocketsSwapped: (state, { a, b }) => {
      const { pockets } = state.carried;
      return {
        ...state,
        carried: { ...state.carried, pockets: { ...pockets, [a]: pockets[b] ?? 0, [b]: pockets[a] ?? 0 } },
      };
    },
    spindleTurned: (state, { quarter }) => ({ ...state, carried: { ...state.carried, quarter } }),
  },
  whileStopped: ["unload"],
};
