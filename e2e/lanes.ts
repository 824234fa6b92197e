import type { Command } from "@probe-lane/core/bench";
import { exerciseSchema, type Exercise, type Marking } from "@probe-lane/core/exercises";
import type { Habits } from "@probe-lane/students";
import { findDemoExercise } from "../demo";
import type { Step } from "./benchHands";

/** A lane that is worked through the page: the exercise, what its student does otherwise, and what is done by hand. */
export interface PageLane {
  readonly exercise: Exercise;
  readonly habits?: Habits;
  /** Not on the practice shelf of the demo: given to the class first, with this marking. */
  readonly given?: Marking;
  /** Every step by hand; otherwise what is routine is fast-forwarded. */
  readonly isWhole?: boolean;
  /** Ends early, before the first step that this is true of. */
  readonly until?: (step: Step) => boolean;
}

const demo = (id: string, habits: Habits = {}, more: Partial<PageLane> = {}): PageLane => ({
  exercise: findDemoExercise(id).exercise,
  habits,
  ...more,
});

/** An exercise with only the first two of its tools. */
function twoTools(id: string, title: string, habits: Habits = {}): PageLane {
  const { exercise, marking } = findDemoExercise(id);
  const short = exerciseSchema.parse({
    ...exercise,
    id: `${id}-two`,
    title,
    lathe: { ...exercise.lathe, tools: exercise.lathe?.tools.slice(0, 2), targets: { x: [1, 2], z: [1, 2] } },
  });
  return { exercise: short, habits, given: marking };
}

/** A setup handed over with three faults, one of them in the setter that everything is looked at with. */
function threeFaults(): PageLane {
  const { exercise, marking } = findDemoExercise("handed-over-evening");
  const three = exerciseSchema.parse({
    ...exercise,
    id: "three-things-wrong",
    title: "Three things wrong",
    handover: {
      ...exercise.handover,
      faults: ["staleWear", "radiusSign", "setterMoved"],
      count: [3, 3],
      soundShare: 0,
    },
  });
  return { exercise: three, habits: { believes: "setter" }, given: marking };
}

const secondTool = ({ command }: Step) => command.type === "load" && command.thing === "tool2";

/** Every lane that a browser test works through the page. A test beside them holds what is done by hand. */
export const pageLanes = {
  twoTermsForgotten: demo("focuser-plate-lower-left", {
    radius: { x: "forgotten" },
    paper: "forgotten",
    startsAtRememberedSpeed: true,
  }),
  signTurned: demo("roller-bracket-back-right", { radius: { y: "turned" } }),
  backedOff: demo("focuser-plate-lower-left", { backsOffFirst: { x: 30 }, startsAtRememberedSpeed: true }),
  taster: demo("clamp-corner-taster"),
  probe: demo("clamp-middle-probe"),
  probeSkewed: demo("plate-skewed"),
  sweep: demo("plate-bore-sweep"),
  setterInDoubt: demo("probe-in-doubt"),
  beam: demo("lengths-at-speed"),
  diameters: demo("diameters-part-contour"),
  lampGauge: demo("five-tools-plane-lift", {}, { until: secondTool }),
  block: demo("five-tools-block-in-wear", {}, { until: secondTool }),
  coldMachine: demo("bracket-cold-machine"),
  probeDriven: demo("clamp-middle-probe", { wrongSizeMm: -30 }),
  notBegun: demo("five-tools-free", {}, { until: () => true }),
  threeFaults: threeFaults(),
  firstTool: demo("knob-first-tool", {}, { isWhole: true }),
  partingEdge: demo("collar-parting-edge", { otherBladeEdge: true }),
  arm: twoTools("collar-five-tools-arm", "Two tools by the setter arm", { offsetNotCalled: true }),
  master: twoTools("knob-master-shift", "Master tool and one more"),
  centerHeight: demo("knob-center-height"),
  drillSweep: demo("ring-drill-sweep", { sweepsOnly: true }),
  handAtChuck: demo("knob-first-tool", { measuresWhileTurning: true }),
  library: demo(
    "ring-readout-library",
    { librarySign: true },
    { until: ({ command }) => command.type === "sightEdge" },
  ),
  gangOnBar: demo("collar-gang-two-changed"),
  gangToRegister: demo("collar-gang-two-changed", { toolToRegister: true, tightensOneSide: true }),
  cone: demo("knob-cone-neutral"),
  axisHeight: demo("ring-axis-height", { atTailstock: true }),
  noses: demo("collar-tips-and-fit", { allFit: true }, { until: ({ command }) => command.type === "stateFit" }),
  declaredAgain: demo("knob-declared-position", { declaresAgain: "elsewhere" }),
} satisfies Record<string, PageLane>;

/** What every lane does over and over: done by hand in the lanes that are worked whole, and a first time in each. */
const ROUTINE = new Set<Command["type"]>([
  "home",
  "jog",
  "setDoor",
  "runBlock",
  "index",
  "load",
  "unload",
  "startSpindle",
  "stopSpindle",
  "takeReading",
  "writeTerm",
  "writeSum",
  "lookFrom",
  "doTask",
]);

/**
 * Which steps of a plan are done by hand: in a whole lane all of them, otherwise the last step, and of every kind that
 * is not routine the first.
 */
export function byHand({ isWhole = false, until }: PageLane, steps: readonly Step[]): boolean[] {
  const seen = new Set<string>();
  return steps.map((step, at) => {
    const { type } = step.command;
    // what is done in a dialog that stays open, or is changed by a setting, is another kind
    const isFirst = !seen.has(type);
    seen.add(type);
    return isWhole || (isFirst && !ROUTINE.has(type)) || (at === steps.length - 1 && !until);
  });
}
