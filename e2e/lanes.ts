import type { Command } from "@probe-lane/core/bench";
import { exerciseSchema, type Exercise, type Marking } from "@probe-lane/core/exercises";
import type { Habits } from "@probe-lane/students";
import type { RegisterId, Registers } from "@probe-lane/core/registers";
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
  /** Of what is routine, what is done by hand here nevertheless, a first time. */
  readonly about?: readonly Command["type"][];
  /** Ends early, before the first step that this is true of. */
  readonly until?: (step: Step, at: number, steps: readonly Step[]) => boolean;
  /** Done after what the student does, by what the registers hold then. */
  readonly then?: (registers: Registers) => readonly Command[];
  /** Done instead of what a student would do: what no lane needs, but a bench has. */
  readonly script?: readonly Command[];
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

/** What fingers do to a figure on its way from the paper to the keys: each of these is a cause of its own. */
const SLIPS: readonly ((mm: number) => number)[] = [
  (mm) => -mm,
  (mm) => mm + 10,
  (mm) => mm / 10,
  (mm) => mm * 2,
  (mm) => mm + 0.9,
  (mm) => mm - 25,
  (mm) => mm + 0.47,
  () => 0,
];

/** Eight tools, every length spoiled in a way of its own after it was set. */
function eightTools(): PageLane {
  const { exercise, marking } = findDemoExercise("five-tools-part-touch");
  const [first] = exercise.tools;
  const more = [6, 7, 8].map((number) => ({ ...first, number, lengthMm: [60 + number, 64 + number] }));
  const eight = exerciseSchema.parse({
    ...exercise,
    id: "eight-tools",
    title: "Eight tools, each wrong in its own way",
    tools: [...exercise.tools, ...more],
    targets: { ...exercise.targets, lengths: [1, 2, 3, 4, 5, 6, 7, 8] },
  });
  return {
    exercise: eight,
    given: marking,
    habits: { stopsAfter: "zero" },
    then: (registers) => [
      ...SLIPS.map((slip, i): Command => {
        const held = (registers.lengthGeometry[i + 1] ?? 0) / 1000;
        return {
          type: "typeRegister",
          register: `H${i + 1}` as RegisterId,
          text: slip(held).toFixed(3),
          how: "set",
          isConfirmed: true,
        };
      }),
      { type: "handIn" },
    ],
  };
}

/** The focuser plate with its program always too deep at the edge of the vise, proved in the air. */
function tooDeep(title: string): PageLane {
  const { exercise, marking } = findDemoExercise("plate-program-top");
  const { program } = exercise;
  const deep = exerciseSchema.parse({
    ...exercise,
    id: title.toLowerCase().replaceAll(" ", "-"),
    title,
    program: {
      ...program,
      faults: program?.faults.filter(({ kind }) => kind === "tooDeep"),
      soundShare: 0,
      proving: ["airRun"],
    },
  });
  return { exercise: deep, given: marking };
}

/** The knob with a sound program, up to where it is loaded. */
function soundKnob(): PageLane {
  const { exercise, marking } = findDemoExercise("knob-program-first");
  const { program } = exercise;
  return {
    exercise: exerciseSchema.parse({
      ...exercise,
      id: "approach-held",
      title: "Approach held and compared",
      program: { ...program, faults: [], soundShare: 1, proving: ["gapCompared"] },
    }),
    given: marking,
    until: ({ command }) => command.type === "loadProgram",
  };
}

/** An exercise whose program is signed for before the first cut; its signature is asked for. */
function signed(of: string, title: string, number: number): PageLane {
  const { exercise, marking } = findDemoExercise(of);
  const id = title.toLowerCase().replaceAll(" ", "-");
  return {
    exercise: exerciseSchema.parse({ ...exercise, id, title, program: { ...exercise.program, signOff: true } }),
    given: marking,
    script: [{ type: "home" }, { type: "loadProgram", number, isConfirmed: false }, { type: "askSignature" }],
  };
}

/** A program of one's own on a machine that is only homed: started, held, stepped and left for another. */
const ownProgram = (there: string, back: string, other: number): Command[] => [
  { type: "home" },
  { type: "takeProgram", text: ["%", "G21", there, back, "M30", "%"].join("\n"), isConfirmed: false },
  { type: "startCycle" },
  { type: "holdCycle" },
  { type: "setPace", isSingle: true, feedPercent: 50 },
  { type: "resumeCycle" },
  { type: "reset" },
  { type: "loadProgram", number: other, isConfirmed: true },
];

const after =
  (type: Command["type"]): PageLane["until"] =>
  (_step, at, steps) =>
    steps[at - 1]?.command.type === type;

const setterCalibrated: PageLane["until"] = (_step, at, steps) => {
  const last = steps[at - 1]?.command;
  return last?.type === "calibrate" && last.what === "setter";
};
const heldBehind: PageLane["until"] = (_step, at, steps) => {
  const last = steps[at - 1]?.command;
  return last?.type === "placeGap" && last.side === "behind";
};

const secondTool = ({ command }: Step) => command.type === "load" && command.thing === "tool2";

/** Every lane that a browser test works through the page. A test beside them holds what is done by hand. */
export const pageLanes = {
  twoTermsForgotten: demo(
    "focuser-plate-lower-left",
    { radius: { x: "forgotten" }, paper: "forgotten", startsAtRememberedSpeed: true },
    { about: ["dressBurr", "setWobbling", "pullPaper", "handIn"] },
  ),
  // the first exercise as it is meant to be worked
  whole: demo("focuser-plate-lower-left"),
  handedInAtOnce: demo("focuser-plate-lower-left", {}, { script: [{ type: "home" }, { type: "handIn" }] }),
  // the first edge, from the reference return to the register
  firstEdge: demo(
    "focuser-plate-lower-left",
    {},
    { until: (_step, at, steps) => at > 0 && steps[at - 1]?.command.type === "captureRegister" },
  ),
  // up to where the tip is closed in on the first face, for hands that hold a key down
  closingIn: demo(
    "focuser-plate-lower-left",
    {},
    { until: ({ command }) => command.type === "jog" && command.axis !== "z" && command.size === "middle" },
  ),
  // a program looked up, proved and run to its end
  programProved: demo("plate-program-top"),
  programOwn: demo("plate-program-top", {}, { script: ownProgram("G53 G0 X-100.", "G53 G0 X-20.", 2014) }),
  parallelsRaised: demo(
    "plate-program-top",
    {},
    {
      script: [
        { type: "home" },
        { type: "setDoor", isOpen: true },
        { type: "dressBurr" },
        { type: "changeParallels", byMm: 2 },
        { type: "changeParallels", byMm: 2 },
      ],
    },
  ),
  knobProved: demo("knob-program-first"),
  // cut, measured, put right in wear, and cut again
  clampSecondPart: demo("clamp-first-part"),
  plateFirstPart: demo("plate-first-part"),
  // gauged by the program, by a probe that is right, and by one whose card is not
  gaugedSlot: demo("clamp-gauged-slot"),
  probeBelieved: demo("clamp-probe-believed", { trustsCard: true }),
  setupTakenBack: demo("clamp-setup-kept"),
  knobSecondPart: demo("knob-first-part"),
  approachHeld: soundKnob(),
  knobOwn: demo("knob-program-first", {}, { script: ownProgram("G28 U0", "G28 W0", 3014) }),
  // asked to be signed, on both machines
  toBeSigned: signed("plate-program-top", "Signed before it cuts", 2041),
  knobToBeSigned: signed("knob-program-first", "Signed before it turns", 3041),
  // nobody looks, and the program runs into the jaw; or somebody leaves the lift of an air run in
  programStrikes: { ...tooDeep("Too deep at the jaw"), habits: { looksNothingUp: true, justRuns: true } },
  liftLeftIn: {
    ...tooDeep("Run in the air first"),
    habits: { stopsAfter: "zero" },
    then: () => [
      { type: "runBlock", text: "G53 G0 Z0" },
      { type: "setDoor", isOpen: true },
      { type: "unload" },
      { type: "setDoor", isOpen: false },
      { type: "typeRegister", register: "common.z", text: "30", how: "set", isConfirmed: true },
      { type: "loadProgram", number: 2041, isConfirmed: false },
      { type: "startCycle" },
      ...Array.from({ length: 20 }, (): Command => ({ type: "runOn", ms: 20_000 })),
      { type: "handIn" },
    ],
  } satisfies PageLane,
  signTurned: demo("roller-bracket-back-right", { radius: { y: "turned" } }),
  backedOff: demo("focuser-plate-lower-left", { backsOffFirst: { x: 30 }, startsAtRememberedSpeed: true }),
  wrongThrice: demo("focuser-plate-lower-left", {
    radius: { x: "turned" },
    oneKick: true,
    saysAsExpected: true,
  }),
  scratched: demo("knob-insert-changed", { scrapes: true }),
  taster: demo("clamp-corner-taster"),
  probe: demo("clamp-middle-probe"),
  probeSkewed: demo("plate-skewed"),
  sweep: demo("plate-bore-sweep", {}, { isWhole: true }),
  setterInDoubt: demo("probe-in-doubt"),
  fromPoints: demo("clamp-middle-finder", { setsFromPoints: true }, { until: after("setFromPoints") }),
  calibrated: demo("probe-calibrated", {}, { until: setterCalibrated }),
  beam: demo("beam-calibrated"),
  diameters: demo("diameters-part-contour"),
  lampGauge: demo("five-tools-plane-lift", {}, { until: secondTool }),
  block: demo("five-tools-block-in-wear", {}, { until: secondTool }),
  coldMachine: demo("bracket-cold-machine"),
  probeDriven: demo("clamp-middle-probe", { wrongSizeMm: -30 }),
  notBegun: demo("five-tools-free", {}, { until: () => true }),
  threeFaults: threeFaults(),
  eightTools: eightTools(),
  firstTool: demo("knob-first-tool", {}, { isWhole: true }),
  partingBehind: demo("collar-parting-behind", {}, { until: heldBehind }),
  partingEdge: demo("collar-parting-edge", { otherBladeEdge: true }),
  arm: twoTools("collar-five-tools-arm", "Two tools by the setter arm", { offsetNotCalled: true }),
  master: twoTools("knob-master-shift", "Master tool and one more"),
  centerHeight: demo("knob-center-height"),
  settingGauge: demo("knob-setting-gauge", {}, { until: after("raiseToGauge") }),
  jawTapped: demo("bracket-jaw-tapped", {}, { until: after("tapPart") }),
  drillSweep: demo("ring-drill-sweep", { sweepsOnly: true }),
  handAtChuck: demo("knob-first-tool", { measuresWhileTurning: true }),
  library: demo("ring-readout-library", { librarySign: true }, { until: after("sightEdge") }),
  gangOnBar: demo("collar-gang-two-changed"),
  gangToRegister: demo("collar-gang-two-changed", { toolToRegister: true, tightensOneSide: true }, { isWhole: true }),
  cone: demo("knob-cone-neutral"),
  axisHeight: demo("ring-axis-height", { atTailstock: true }, { isWhole: true }),
  noses: demo("collar-tips-and-fit", { allFit: true }, { until: after("stateFit") }),
  declaredAgain: demo("knob-declared-position", { declaresAgain: "elsewhere" }),
  desk: demo(
    "plate-skewed",
    {},
    {
      script: [
        { type: "home" },
        { type: "raiseHand" },
        { type: "lowerHand" },
        { type: "startSpindle", direction: "forward", rpm: 600 },
        { type: "stopSpindle" },
        { type: "jog", axis: "x", direction: -1, clicks: 12, size: "coarse" },
        { type: "zeroCounter", axis: "x" },
        { type: "typeRegister", register: "G54.x", text: "5", how: "set", isConfirmed: false },
        { type: "undoRegister" },
        { type: "takeInRegisters", rows: [{ register: "G54.x", text: "-3.25" }] },
        { type: "setDoor", isOpen: true },
        { type: "tapPart", direction: 1, strength: "light" },
        { type: "load", thing: "probe" },
        { type: "unload" },
        { type: "reset" },
      ],
    },
  ),
  paper: demo(
    "five-tools-free",
    {},
    {
      script: [
        { type: "home" },
        { type: "setDoor", isOpen: true },
        { type: "askPresetter", tool: 2 },
        { type: "takeReading", register: "H2", from: 1 },
        { type: "writeTerm", register: "H2", term: "other", text: "-1" },
        { type: "strikeLine", line: 2 },
        { type: "writeSum", register: "H2", text: "80" },
        { type: "lookFrom", side: "left" },
        { type: "placePaper" },
        { type: "feelPaper" },
      ],
    },
  ),
  dial: demo(
    "clamp-corner-taster",
    {},
    {
      script: [
        { type: "home" },
        { type: "setDoor", isOpen: true },
        { type: "load", thing: "taster" },
        { type: "turnSpindle" },
      ],
    },
  ),
  deskOfTurret: demo(
    "knob-first-tool",
    {},
    {
      script: [
        { type: "home" },
        { type: "raiseHand" },
        { type: "lowerHand" },
        { type: "typeRegister", register: "X1", text: "5", how: "set", isConfirmed: false },
        { type: "undoRegister" },
        { type: "takeInRegisters", rows: [{ register: "X1", text: "-280.5" }] },
        { type: "setDoor", isOpen: true },
        { type: "changeInsert" },
        { type: "reset" },
      ],
    },
  ),
  judged: demo(
    "lathe-handed-over",
    {},
    {
      script: [{ type: "home" }, { type: "judgeSetup", isSound: false }],
    },
  ),
} satisfies Record<string, PageLane>;

/** What lanes do over and over: done by hand where a lane is worked whole, by a script, or is about it. */
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
  "captureRegister",
  "typeRegister",
  "expectCheck",
  "lookCheck",
  "judgeCheck",
  "measureTurned",
  "turnChuck",
  "handIn",
  "dressBurr",
  "setWobbling",
  "placePaper",
  "pullPaper",
]);

/** What a page does by itself once a cycle is started cannot be done by another between. */
const RUNS = new Set<Command["type"]>(["startCycle", "runOn", "resumeCycle", "setPace", "sayGap", "takeBlank"]);

/**
 * Which steps of a plan are done by hand: in a whole lane and by a script all of them, otherwise the first of every
 * kind that is not routine or that the lane is about.
 */
export function byHand({ isWhole = false, script, about = [] }: PageLane, steps: readonly Step[]): boolean[] {
  const seen = new Set<string>();
  return steps.map(({ command: { type } }) => {
    const isFirst = !seen.has(type);
    seen.add(type);
    return (
      isWhole || script !== undefined || RUNS.has(type) || (isFirst && (!ROUTINE.has(type) || about.includes(type)))
    );
  });
}
