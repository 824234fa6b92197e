import type * as schema from "./schema";
import { type MillAct, type MillDraft, type Seat } from "../../lane";
import { type Decision } from "../../../act";
import { accept, refuse } from "../../../../result";
import { isBroken } from "../../evidence";
import { skewNowDeg } from "../../solids";
import { readEnds } from "../../../../instruments/sweep";
import { reachIn, roomForHand } from "../gapUnder";
import { type SetupTask } from "../../../../exercises/schools";
import { type CommandOf } from "../../../commands";
import { drawBetween } from "../../../../random";
import { withPartRaised } from "../../evidence";

function dressBurr({ state }: MillDraft): Decision {
  if (state.isBurrDressed) return refuse({ code: "burrDressedAlready" });
  const problem = reachIn(state) ?? roomForHand(state);
  return problem ? refuse(problem) : accept([{ type: "burrDressed" }]);
}

const NEEDS_HANDS: Record<SetupTask, boolean> = {
  releaseStop: false,
  lowRapid: false,
  wipeTaper: true,
  seatOnParallels: true,
  pushToStop: true,
  tapDown: true,
  dressBurr: true,
  sweepJaw: true,
};

/** The dial is carried along the fixed jaw over this length, mm; it reads no further than its range. */
const ALONG_JAW_MM = 100;

/** The indicator carried along the fixed jaw: what it reads at both ends, from wherever its dial stands. */
function sweepJaw({ state }: MillDraft): Decision {
  if (state.holds !== "indicator") return refuse({ code: "notHeld", thing: "indicator" });
  if (isBroken(state, "indicator")) return refuse({ code: "instrumentBroken", thing: "indicator" });
  const number = state.desk.readingsMade + 1;
  const outMm = ALONG_JAW_MM * Math.tan((skewNowDeg(state) * Math.PI) / 180);
  const ends: readonly [number, number] | null = readEnds([-outMm / 2, outMm / 2], state.truth.seed, number);
  const values: Record<string, number> = ends ? { left: ends[0], right: ends[1], apart: ALONG_JAW_MM } : {};
  return accept([
    {
      type: "readingShown",
      number,
      instrument: "indicator",
      what: "jaw",
      values,
      outcome: ends ? "found" : "missed",
    },
  ]);
}

/** Something that gets machine, vise or blank ready. Order matters: what lies on dirt is not seated by tapping. */
function doTask(draft: MillDraft, { task }: CommandOf<"doTask">): Decision {
  const { state } = draft;
  if (task === "dressBurr") return dressBurr(draft);
  if (!state.setup.tasks.includes(task)) return refuse({ code: "taskNotHere" });
  // a jaw is swept as often as one likes
  if (state.tasksDone.includes(task) && task !== "sweepJaw") return refuse({ code: "taskDoneAlready" });
  if (NEEDS_HANDS[task]) {
    const problem = reachIn(state) ?? (task === "wipeTaper" ? null : roomForHand(state));
    if (problem) return refuse(problem);
  }
  if (task === "sweepJaw") return sweepJaw(draft);
  if (task === "wipeTaper" && state.holds !== null) return refuse({ code: "spindleHolds", thing: state.holds });
  if (
    task === "tapDown" &&
    state.setup.tasks.includes("seatOnParallels") &&
    !state.tasksDone.includes("seatOnParallels")
  )
    return refuse({ code: "seatFirst" });
  return accept([{ type: "taskDone", task }]);
}

/**
 * A tap with the hammer turns the blank about its corner, by a share that nobody knows beforehand, and moves it a
 * little.
 */
function tapPart({ state }: MillDraft, { direction, strength }: CommandOf<"tapPart">): Decision {
  const isOnPlate = state.setup.fixture.kind === "plate";
  if (!isOnPlate && !state.setup.tasks.includes("sweepJaw")) return refuse({ code: "partIsGripped" });
  const problem = reachIn(state) ?? roomForHand(state);
  if (problem) return refuse(problem);
  const { seat, truth } = state;
  const turn = state.desk.linesWritten + state.desk.readingsMade * 7 + Math.round(seat.skewDeg * 1e4);
  const range: [number, number] = strength === "hard" ? [0.12, 0.2] : [0.008, 0.016];
  const byDeg = drawBetween(...range, truth.seed, "tap", turn) * direction;
  const tidy = (mm: number) => Math.round(mm * 1e4) / 1e4 || 0;
  const along = (axis: "x" | "y") =>
    tidy(
      seat.shiftMm[axis] +
        drawBetween(-0.1, 0.1, truth.seed, "tap shift", axis, turn) * (strength === "hard" ? 1 : 0.2),
    );
  return accept([
    { type: "partTapped", skewDeg: tidy(seat.skewDeg + byDeg), shiftMm: { x: along("x"), y: along("y") } },
  ]);
}

/** So much of a blank the jaws have to hold, and so much of it stands over them at least, mm. */
const GRIP_MM = 3;
const PROUD_MM = 1;

/** Other parallels: the blank comes out and goes back in, higher or lower; how it is seated is to be done again. */
function changeParallels({ state }: MillDraft, { byMm }: CommandOf<"changeParallels">): Decision {
  const { fixture, partSizeMm, programs } = state.setup;
  if (fixture.kind !== "vise" || programs === undefined) return refuse({ code: "noParallels" });
  const problem = reachIn(state) ?? roomForHand(state);
  if (problem) return refuse(problem);
  const raisedMm = state.seat.raisedMm + byMm;
  const proudMm = fixture.proudMm + raisedMm;
  if (partSizeMm[2] - proudMm < GRIP_MM) return refuse({ code: "gripTooLittle" });
  if (proudMm < PROUD_MM) return refuse({ code: "blankTooLow" });
  return accept([{ type: "parallelsChanged", raisedMm }]);
}

const LIES: Partial<Record<SetupTask, Partial<Seat>>> = {
  pushToStop: { isAtStop: true },
  tapDown: { isTapped: true },
  sweepJaw: { isJawTrue: true },
};

const SEATING: ReadonlySet<SetupTask> = new Set(["pushToStop", "tapDown"]);

/** Machine, vise and blank made ready. */
export const blank: MillAct<typeof schema> = {
  decide: { doTask, dressBurr, tapPart, changeParallels },
  evolve: {
    taskDone: (state, { task }) => {
      const lies = LIES[task];
      return {
        ...state,
        tasksDone: state.tasksDone.includes(task) ? state.tasksDone : [...state.tasksDone, task],
        seat: lies ? { ...state.seat, ...lies } : state.seat,
      };
    },
    burrDressed: (state) => ({ ...state, isBurrDressed: true, tasksDone: [...state.tasksDone, "dressBurr"] }),
    parallelsChanged: (state, { raisedMm }) => {
      const isAsked = (task: SetupTask) => state.setup.tasks.includes(task);
      return {
        ...state,
        tasksDone: state.tasksDone.filter((task) => !SEATING.has(task)),
        seat: {
          ...state.seat,
          raisedMm,
          isAtStop: state.seat.isAtStop && !isAsked("pushToStop"),
          isTapped: state.seat.isTapped && !isAsked("tapDown"),
        },
        evidence: withPartRaised(state.evidence),
      };
    },
    partTapped: (state, { skewDeg, shiftMm }) => ({
      ...state,
      // a jaw that was moved has to be swept again
      tasksDone: state.tasksDone.filter((task) => task !== "sweepJaw"),
      seat: { ...state.seat, skewDeg, shiftMm },
      evidence: state.evidence.angleReadings > 0 ? { ...state.evidence, isAngleSet: true } : state.evidence,
    }),
  },
};
