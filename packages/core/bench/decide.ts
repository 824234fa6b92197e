import { drawLane, type Exercise } from "../exercises";
import { drawOwnKickMm } from "../instruments";
import { Draft } from "../lane/draft";
import type { Decision } from "../machines/act";
import type { Command } from "../machines/commands";
import { hasCut, isBroughtToCut } from "../machines/cutAway";
import type { LaneEvent } from "../machines/events";
import { kitFor, type LaneState } from "../machines/kits";
import { refuse } from "../result";
import { evolveOn } from "./fold";

/** The first event of a lane: the sheet and the truth drawn for this seed, stored for good. */
export function openLane(exercise: Exercise, seed: string, isCoachOn: boolean): LaneEvent {
  const { setup, truth } = drawLane(exercise, seed);
  return { type: "laneOpened", isCoachOn, setup, truth, finderOwnKickMm: drawOwnKickMm(seed, 1) };
}

/** The machine is held: its stop is still pressed from the shift before. */
const stopIsHeld = ({ setup, tasksDone }: LaneState): boolean =>
  setup.tasks.includes("releaseStop") && !tasksDone.includes("releaseStop");

/** Commands that need a machine that knows where it is. */
const NEEDS_HOME = new Set<Command["type"]>(["captureRegister", "takeReading"]);

/** What stays possible while a program is under way, held or running; everything else waits for its end or a reset. */
const WHILE_RUNNING = new Set<Command["type"]>([
  "runOn",
  "holdCycle",
  "resumeCycle",
  "setPace",
  "sayGap",
  "reset",
  "lookFrom",
  "takeReading",
  "writeTerm",
  "writeSum",
  "strikeLine",
  "raiseHand",
  "lowerHand",
]);

/** What brings something to a part by hand, or by a question that a probe goes to answer. */
const BY_HAND = new Set<Command["type"]>(["jog", "runBlock", "askProbe"]);

/** Whether a decision brings what is held to where a run took metal away, on its way or at its end. */
function goesToCut(from: LaneState, command: Command, decision: Decision): boolean {
  if (!decision.ok || !BY_HAND.has(command.type) || !hasCut(from)) return false;
  let at = from;
  return decision.value.some((event) => {
    const next = evolveOn(at, event);
    const isAtCut = isBroughtToCut(at, next);
    at = next;
    return isAtCut;
  });
}

/**
 * What a command leads to: facts, or one refusal that says why and gives away nothing that could not be observed. A
 * refused command changes nothing.
 */
export function decide(state: LaneState, command: Command): Decision {
  const kit = kitFor(state.kind);
  if (state.isHandedIn) return refuse({ code: "handedInAlready" });
  if (state.isStopped && !kit.whileStopped.has(command.type)) return refuse({ code: "machineStopped" });
  if (stopIsHeld(state) && kit.needsPower.has(command.type)) return refuse({ code: "stopIsHeld" });
  if (state.program.run && !WHILE_RUNNING.has(command.type)) return refuse({ code: "programRuns" });
  if (!state.isHomed && NEEDS_HOME.has(command.type)) return refuse({ code: "notHomed" });
  const answer = kit.decide[command.type] as ((draft: Draft<LaneState>, asked: Command) => Decision) | undefined;
  if (!answer) return refuse({ code: "notOnThisMachine" });
  const draft = new Draft(state, evolveOn);
  const decision = answer(draft, command);
  return goesToCut(state, command, decision)
    ? refuse({ code: "cutAway", isMeasured: state.setup.blanks !== undefined })
    : decision;
}
