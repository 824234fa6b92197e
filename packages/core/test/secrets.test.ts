import { describe, expect, it } from "vitest";
import { millLane, workUpTo } from "@probe-lane/students";
import { demoExercises, findDemoExercise } from "../../../demo";
import { decide, evolve, foldFrom, observe, type Command } from "../bench";
import { movedLanes } from "./secrets";

describe("non-interference", () => {
  const far: Command[] = [
    { type: "jog", axis: "x", direction: -1, clicks: 3, size: "coarse" },
    { type: "home" },
    { type: "index", station: 2, withOffset: true },
    { type: "startSpindle", direction: "forward", rpm: 900 },
    { type: "jog", axis: "z", direction: -1, clicks: 5, size: "coarse" },
    { type: "stopSpindle" },
    { type: "turnChuck" },
    { type: "takeReading", register: "Z2" },
    { type: "setDoor", isOpen: true },
    { type: "dressBurr" },
    { type: "load", thing: "edgeFinder" },
    { type: "setWobbling" },
    { type: "setDoor", isOpen: false },
    { type: "startSpindle", direction: "forward", rpm: 600 },
    { type: "runBlock", text: "G53 G0 X-300 Y-150" },
    { type: "runBlock", text: "G53 G0 Z-230" },
    { type: "lookFrom", side: "left" },
    { type: "captureRegister", register: "G54.x", asText: "1.5" },
    { type: "placePaper" },
    { type: "runBlock", text: "G0 G54 X4 Y-250" },
    { type: "stopSpindle" },
    { type: "runBlock", text: "G53 G0 Z0" },
    { type: "setDoor", isOpen: true },
    { type: "unload" },
    { type: "load", thing: "tool1" },
    { type: "placePaper" },
    { type: "feelPaper" },
    { type: "pullPaper" },
    { type: "unload" },
    { type: "load", thing: "pointedTool" },
    { type: "setDoor", isOpen: false },
    { type: "runBlock", text: "G53 G0 X-280 Y-160" },
    { type: "lookFrom", side: "front" },
    { type: "takeReading", register: "H1" },
    { type: "captureRegister", register: "H1", asText: "0" },
    { type: "raiseHand" },
    { type: "expectCheck", check: "overZero", text: "0" },
    { type: "lookCheck" },
    { type: "judgeCheck", isAsExpected: true },
    { type: "expectCheck", check: "knownHeight", text: "40" },
    { type: "lookCheck" },
    { type: "judgeCheck", isAsExpected: false },
    { type: "setDoor", isOpen: true },
    { type: "jog", axis: "z", direction: 1, clicks: 200, size: "coarse" },
    { type: "unload" },
    { type: "load", thing: "taster" },
    { type: "turnSpindle" },
    { type: "trueTaster" },
    { type: "expectCheck", check: "ruleBeside", text: "100" },
    { type: "lookCheck" },
    { type: "unload" },
    { type: "load", thing: "probe" },
    { type: "setDoor", isOpen: false },
    { type: "askProbe", question: "face", axis: "x", direction: 1, size: "5" },
    { type: "askProbe", question: "surface", size: "3" },
    { type: "setDoor", isOpen: true },
    { type: "sweep" },
    { type: "doTask", task: "pushToStop" },
    { type: "tapPart", direction: 1, strength: "light" },
    { type: "standLamp" },
    { type: "takeLamp" },
    { type: "swapPockets", a: 1, b: 2 },
  ];
  it("two truths within one eye step answer the same commands byte for byte", () => {
    for (const [index, { exercise }] of demoExercises.entries()) {
      for (let seed = 0; seed < (index < 2 ? 8 : 2); seed++) {
        for (const shift of [-0.2, 0, 0.1]) {
          const [one, two] = movedLanes(exercise, `ni ${seed}`, shift).map((first) => {
            let state = evolve(null, first);
            return [
              JSON.stringify(observe(state, "student")),
              ...far.map((command) => {
                const decided = decide(state, command);
                if (decided.ok) state = foldFrom(state, decided.value);
                return JSON.stringify(decided.ok ? observe(state, "student") : decided.error);
              }),
            ];
          });
          expect(one, `${exercise.id} ${seed} ${shift}`).toEqual(two);
        }
      }
    }
  });
  it("a program that runs and touches nothing answers byte for byte alike, held, stepped or whole", () => {
    const { exercise } = findDemoExercise("plate-program-top");
    const slices = (count: number, ms: number) => Array.from({ length: count }, (): Command => ({ type: "runOn", ms }));
    const inTheAir: Command[] = [
      { type: "home" },
      { type: "loadProgram", number: 2041, isConfirmed: false },
      ...(["x", "y", "z"] as const).map((axis): Command => ({
        type: "typeRegister",
        register: `G54.${axis}`,
        // far over everything: nothing is met, whatever is where
        text: { x: "-320", y: "-190", z: "-170" }[axis],
        how: "set",
        isConfirmed: true,
      })),
      { type: "lookUp", ask: "rows", tool: 3, text: "3", isSound: true },
      { type: "lookUp", ask: "held", tool: 3, text: "0", isSound: false },
      { type: "setPace", isSingle: true, rapidPercent: 25 },
      { type: "startCycle" },
      ...slices(6, 4000),
      { type: "sayGap", text: "40", isAlike: true },
      { type: "resumeCycle" },
      ...slices(4, 4000),
      { type: "setPace", isSingle: false },
      { type: "resumeCycle" },
      ...slices(3, 1500),
      { type: "holdCycle" },
      { type: "sayGap", text: "12", isAlike: false },
      { type: "resumeCycle" },
      ...slices(12, 20_000),
      { type: "runBlock", text: "T2 M6" },
      { type: "runBlock", text: "G54 G43 H2 G0 Z-8" },
      { type: "judgeDeepest", tool: 2, outcome: "clear" },
    ];
    for (let seed = 0; seed < 6; seed++)
      for (const shift of [-0.2, 0.1]) {
        const [one, two] = movedLanes(exercise, `running ${seed}`, shift).map((first) => {
          let state = evolve(null, first);
          return inTheAir.map((command) => {
            const decided = decide(state, command);
            if (decided.ok) state = foldFrom(state, decided.value);
            return JSON.stringify(decided.ok ? [observe(state, "student"), decided.value.length] : decided.error);
          });
        });
        expect(one?.some((answer) => answer.includes('"isAlike":false'))).toBe(true);
        expect(one, `${seed} ${shift}`).toEqual(two);
      }
  });
  it("an observation carries no truth: no hidden figure, no seed", () => {
    const lane = millLane(findDemoExercise("focuser-plate-lower-left").exercise, "secret");
    workUpTo(lane, ({ type }) => type === "captureRegister");
    const wire = JSON.stringify(lane.seen);
    const { truth, finder } = lane.state;
    for (const hidden of [
      truth.datumMm.x,
      truth.datumMm.y,
      truth.datumMm.z,
      truth.lengthsMm.edgeFinder,
      truth.gapsMm.paper,
      truth.burrMm.x,
      finder.ownKickMm,
      finder.approach?.kickPastMm,
    ]) {
      expect(wire).not.toContain(String(hidden));
    }
    expect(wire).not.toContain("secret");
  });
  it("nowhere in the pack does the sheet give a hidden place, length or turn away, but for what a card or a kept register states", () => {
    for (const file of demoExercises.filter(({ exercise: { lathe } }) => !lathe)) {
      const lane = millLane(file.exercise, "hidden");
      const wire = JSON.stringify({
        ...lane.seen,
        sheet: { ...lane.seen.sheet, probe: null, setter: null, leftovers: [], handover: undefined },
        ledger: [],
        registers: null,
        work: null,
        lengthCounts: null,
      });
      const { truth } = lane.state;
      const hidden = [
        truth.datumMm.x,
        truth.datumMm.y,
        truth.datumMm.z,
        ...Object.values(truth.lengthsMm),
        ...Object.values(truth.diametersMm),
        truth.skewDeg,
        truth.offStopMm,
        truth.liftMm,
        truth.growthMmPer1000,
      ].filter((mm) => mm !== 0 && String(mm).length > 6);
      for (const mm of hidden) expect(wire, `${file.exercise.id}: ${mm}`).not.toContain(String(mm));
      expect(wire).not.toContain('"doubt"');
    }
  });
});
