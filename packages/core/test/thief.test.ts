import { describe, expect, it } from "vitest";
import { LaneDriver, millLane, NonsenseBench, workLane, workUpTo, type Bench } from "@probe-lane/students";
import { demoExercises, findDemoExercise } from "../../../demo";
import { decide, observe, type Command, type LaneState, type Observation } from "../bench";
import { tableZMm, type Exercise } from "../exercises";
import type { Thing } from "../instruments";
import { scales, toCounts, toMm } from "../units";
import { movedMill, movedTurning } from "./secrets";

/**
 * Somebody who wants the answer without touching: tries refusals, tells drawn figures against each other, reads again
 * and again, weighs replies. Nothing of that may come nearer than half a step of the eye, or than an instrument's own
 * error.
 */

const idOf = ({ exercise }: { exercise: Exercise }) => exercise.id;

/** The same lane with two truths that look alike. */
function alike(state: LaneState): [LaneState, LaneState] {
  const moved = (by: number): LaneState =>
    state.kind === "mill"
      ? { ...state, truth: movedMill(state, 0.05, by) }
      : { ...state, truth: movedTurning(state, 0.05, by) };
  return [moved(0), moved(0.18)];
}

/** What a thief asks wherever the lane stands: all of it may be refused, and none by what cannot be seen. */
function questions(seen: Observation): Command[] {
  const axes = seen.kind === "mill" ? (["x", "y", "z"] as const) : (["x", "z"] as const);
  const [first, second] = axes;
  const word = (axis: "x" | "y" | "z", by: number) =>
    `${axis.toUpperCase()}${(toMm(seen.machine[axis], scales[seen.sheet.unit]) + by).toFixed(3)}`;
  const moves = [0.4, -0.4, 5, -5, 60, -60].flatMap((by): Command[] => [
    ...axes.flatMap((axis): Command[] => [
      { type: "runBlock", text: `G53 G0 ${word(axis, by)}` },
      { type: "runBlock", text: `G53 G1 ${word(axis, by)} F80` },
    ]),
    { type: "runBlock", text: `G53 G1 ${word(first, by)} ${word(second, by)} F80` },
  ]);
  const jogs = axes.flatMap((axis) =>
    ([1, -1] as const).flatMap((direction) =>
      (["rapid", "coarse", "middle", "fine"] as const).map((size): Command => ({
        type: "jog",
        axis,
        direction,
        clicks: size === "coarse" ? 7 : 3,
        size,
      })),
    ),
  );
  const shared: Command[] = [
    { type: "setDoor", isOpen: !seen.isDoorOpen },
    { type: "startSpindle", direction: "forward", rpm: 600 },
    { type: "stopSpindle" },
    { type: "home" },
    { type: "reset" },
    { type: "lookCheck" },
    { type: "expectCheck", check: "knownHeight", text: "0" },
    { type: "expectCheck", check: "overZero", text: "0" },
  ];
  return [...jogs, ...moves, ...shared, ...(seen.kind === "mill" ? onMill(seen) : onLathe(seen))];
}

function onMill({ sheet }: Extract<Observation, { kind: "mill" }>): Command[] {
  const things = ["edgeFinder", "taster", "probe", "indicator", "pointedTool", "tool1", "tool2"] as const;
  return [
    ...things.map((thing): Command => ({ type: "load", thing })),
    { type: "unload" },
    { type: "setWobbling" },
    { type: "pullPaper" },
    { type: "feelPaper" },
    { type: "trueTaster" },
    { type: "sweep" },
    { type: "standLamp" },
    { type: "takeLamp" },
    { type: "dressBurr" },
    { type: "tapPart", direction: 1, strength: "light" },
    { type: "askProbe", question: "face", axis: "x", direction: 1, size: "15" },
    { type: "askProbe", question: "surface", size: "15" },
    { type: "askBeam", what: "length", rpm: 0, isAtEdge: false },
    { type: "askSetter", what: "length", isTurning: false, offset: "0", about: "80" },
    { type: "calibrate", what: "setter", by: "pin" },
    { type: "calibrate", what: "probeLength", by: "block" },
    ...sheet.tasks.map((task): Command => ({ type: "doTask", task })),
    ...sheet.gaps.flatMap(({ id }): Command[] => [
      { type: "placePaper", id },
      { type: "tryBlock", id },
    ]),
  ];
}

function onLathe({ sheet }: Exclude<Observation, { kind: "mill" }>): Command[] {
  const faces = ["face", "diameter", "bore"] as const;
  return [
    ...sheet.lathe.tools.flatMap(({ number: station }): Command[] => [
      { type: "index", station, withOffset: true },
      { type: "index", station, withOffset: false },
    ]),
    ...faces.flatMap((on) =>
      [...sheet.gaps.map(({ id }) => id), "straightEdge"].flatMap((id): Command[] => [
        { type: "placeGap", id, on },
        { type: "tryGap", id, on },
      ]),
    ),
    { type: "placeGap", id: "straightEdge", on: "face", side: "behind" },
    ...(["micrometer", "caliper", "boreGauge"] as const).flatMap((by) =>
      (["turned", "bored", "pip"] as const).map((what): Command => ({ type: "measureTurned", what, by })),
    ),
    { type: "pullGap" },
    { type: "turnChuck" },
    { type: "swingArm", isDown: true },
    { type: "sweep" },
    { type: "sightEdge" },
    { type: "changeInsert" },
    { type: "raiseToGauge", from: "below" },
    { type: "runCone", isHeld: true },
    { type: "readGauge", from: "below" },
    { type: "slideTool" },
  ];
}

const answer = (state: LaneState, command: Command): string => {
  const decided = decide(state, command);
  return decided.ok ? "done" : decided.error.code;
};

/** The lane with its machine a little further along an axis, as hands could have left it: where a refusal may flip. */
function nearby(state: LaneState): LaneState[] {
  const { scale } = state;
  const axes = state.kind === "mill" ? (["x", "y", "z"] as const) : (["x", "z"] as const);
  const offsets = [...Array(14).keys()].map((step) => 0.2 - step * 0.2);
  return axes.flatMap((axis) =>
    offsets.map((mm) => ({
      ...state,
      position: { ...state.position, [axis]: state.position[axis] + toCounts(mm, scale) },
    })),
  );
}
/** What is done with hands or by a cycle close to the part. */
const TOUCHES: ReadonlySet<Command["type"]> = new Set([
  "placePaper",
  "tryBlock",
  "placeGap",
  "tryGap",
  "askProbe",
  "askSetter",
  "askBeam",
  "sweep",
  "measure",
  "measureTurned",
  "standLamp",
  "load",
  "unload",
  "index",
  "dressBurr",
  "doTask",
  "sightEdge",
  "setWobbling",
  "lookCheck",
]);

/** How many questions two truths that look alike were asked; fails at the first that they answer otherwise. */
function askBoth(state: LaneState, commands: readonly Command[], where: string): number {
  const [one, two] = alike(state);
  const [told, other] = [one, two].map((lane) => commands.map((command) => answer(lane, command)));
  const at = commands.findIndex((_command, n) => told?.[n] !== other?.[n]);
  // what an eye tells apart may be answered apart; it is looked at only then, because looking takes longest
  if (at !== -1 && JSON.stringify(observe(one, "student")) === JSON.stringify(observe(two, "student")))
    expect.fail(`${where}: ${JSON.stringify(commands[at])}: ${told?.[at]} or ${other?.[at]}`);
  return commands.length;
}

/** A student's bench that is looked at before every command. */
function watched(lane: LaneDriver, look: (next: Command) => void): Bench {
  return {
    get seen() {
      return lane.seen;
    },
    attempt: (command) => {
      look(command);
      return lane.attempt(command);
    },
    do: (command) => {
      look(command);
      return lane.do(command);
    },
  };
}

describe("the second law: no refusal reads the truth finer than an eye", () => {
  it("whatever is asked wherever nonsense has led, on any machine", () => {
    let asked = 0;
    for (const { exercise } of demoExercises) {
      const lane = new LaneDriver(exercise, "law");
      let turn = 0;
      const look = () => {
        if (turn++ % 61 === 0) asked += askBoth(lane.state, questions(lane.seen), exercise.id);
      };
      try {
        workLane(new NonsenseBench(watched(lane, look), 3, 0.08), {});
      } catch {
        // nonsense led where the student finds no way on; what was asked up to there counts
      }
    }
    expect(asked).toBeGreaterThan(12_000);
  });
  const bisected = demoExercises.map(({ exercise }) => {
    let asked = 0;
    it(`and bisected where hands and cycles meet things: ${exercise.id}`, () => {
      const lane = new LaneDriver(exercise, "law");
      const met = new Set<Command["type"]>();
      const look = (next: Command) => {
        if (met.has(next.type) || !TOUCHES.has(next.type)) return;
        met.add(next.type);
        for (const state of nearby(lane.state)) asked += askBoth(state, [next], exercise.id);
      };
      workLane(watched(lane, look), {});
    });
    return () => asked;
  });
  it("in thousands of places", () => {
    expect(bisected.reduce((sum, asked) => sum + asked(), 0)).toBeGreaterThan(2000);
  });
});

describe("drawn figures", () => {
  const LANES = 24;
  /** A figure that came this near to a hidden one in every lane, but for a constant, would give it away, mm. */
  const NEAR_MM = 0.06;
  /** What a card, a kept register or somebody's ledger states is no secret. */
  const STATED =
    /^(sheet\.(probe|setter|leftovers|handover)|registers|work|lengthCounts|ledger|counter|cards|readings)/;

  /** What is shown of a tool when it hangs there. */
  const TOLD_BY_TOOL = /^(heldLengthMm|heldShape|lathe\.tip)/;
  const held = ({ lathe, tools }: Exercise): [string, ...Command[]][] =>
    lathe
      ? lathe.tools.map(({ number: station }) => [
          `tool ${station}`,
          { type: "home" },
          { type: "index", station, withOffset: false },
        ])
      : tools.map(({ number }) => [
          `tool ${number}`,
          { type: "home" },
          { type: "setDoor", isOpen: true },
          { type: "unload" },
          { type: "load", thing: `tool${number}` as Thing },
        ]);

  function figures(value: unknown, path: string, into: Map<string, number>): void {
    if (STATED.test(path)) return;
    if (typeof value === "number") into.set(path, value);
    else if (value !== null && typeof value === "object")
      for (const [key, one] of Object.entries(value)) figures(one, path === "" ? key : `${path}.${key}`, into);
  }

  function hiddenOf(state: LaneState): [string, number][] {
    if (state.kind === "mill") {
      const { truth, setup } = state;
      const table = tableZMm(setup, truth);
      const lengths = Object.entries(truth.lengthsMm).filter(([thing]) => thing.startsWith("tool"));
      return [
        ["datum x", truth.datumMm.x],
        ["datum y", truth.datumMm.y],
        ["datum z", truth.datumMm.z],
        ["table", table],
        ["lift of the datum over the table", truth.datumMm.z - table],
        ...lengths.flatMap(([thing, mm = 0]): [string, number][] => [
          [thing, mm],
          [`${thing} on the datum`, mm + truth.datumMm.z],
          [`${thing} on the table`, mm + table],
        ]),
        ...(setup.isSkewed ? [["skew", truth.skewDeg] as [string, number]] : []),
      ];
    }
    const { lathe } = state.truth;
    return Object.entries(lathe.tools).flatMap(([number, { kxMm, qMm }]): [string, number][] => [
      [`X ${number}`, kxMm],
      [`reach ${number}`, qMm],
      [`Z ${number}`, qMm + lathe.skinMm],
    ]);
  }

  /** Figures that scatter by NEAR_MM at most lie no further apart than this, any two of them, mm. */
  const FURTHEST_MM = Math.sqrt(2 * (LANES - 1)) * NEAR_MM;
  /** Whether a figure of every lane scatters by less than NEAR_MM; two that lie too far apart end the question. */
  function areNear(figure: (lane: number) => number): boolean {
    const first = figure(0);
    const off: number[] = [];
    for (let lane = 0; lane < LANES; lane++) {
      const mm = figure(lane) - first;
      if (Math.abs(mm) > FURTHEST_MM) return false;
      off.push(mm);
    }
    const mean = off.reduce((sum, mm) => sum + mm, 0) / LANES;
    return Math.sqrt(off.reduce((sum, mm) => sum + (mm - mean) ** 2, 0) / (LANES - 1)) < NEAR_MM;
  }

  it.each(demoExercises.map((file) => [idOf(file), file.exercise] as const))(
    "of %s: none, and no sum or difference of two, gives a hidden figure away",
    (_id, exercise) => {
      const lanes = [...Array(LANES).keys()].map((seed) => {
        const lane = new LaneDriver(exercise, `thief ${seed}`);
        const sent = new Map<string, number>();
        figures(lane.seen, "", sent);
        // and with each tool in the spindle or in the working position
        for (const [tool, ...commands] of held(exercise)) {
          for (const command of commands) lane.attempt(command);
          const shown = new Map<string, number>();
          figures(lane.seen, "", shown);
          for (const [path, mm] of shown) if (TOLD_BY_TOOL.test(path)) sent.set(`${tool}: ${path}`, mm);
        }
        return { sent, hidden: new Map(hiddenOf(lane.state)) };
      });
      const [one] = lanes;
      if (!one) throw new Error("no lane");
      const column = (path: string) => lanes.map(({ sent }) => sent.get(path));
      const columns = [...one.sent.keys()]
        .map((path) => [path, column(path)] as const)
        .filter((entry): entry is readonly [string, number[]] => entry[1].every((mm) => mm !== undefined))
        // what was kept is there to be believed, where nothing has changed since
        .filter(([path, list]) => new Set(list).size > 1 && !path.startsWith("sheet.kept.registers"));
      let told = 0;
      for (const name of one.hidden.keys()) {
        const hidden = lanes.map((lane) => lane.hidden.get(name) ?? 0);
        if (new Set(hidden).size < 2) continue;
        const tells = (figure: (lane: number) => number, path: () => string) => {
          told += 1;
          for (const sign of [1, -1])
            if (areNear((lane) => figure(lane) - sign * (hidden[lane] ?? 0)))
              expect.fail(`${path()} gives ${name} away`);
        };
        for (const [i, [a, list]] of columns.entries()) {
          tells(
            (lane) => list[lane] ?? 0,
            () => a,
          );
          for (const [b, other] of columns.slice(i + 1))
            for (const sign of [1, -1])
              tells(
                (lane) => (list[lane] ?? 0) + sign * (other[lane] ?? 0),
                () => `${a} ${sign === 1 ? "+" : "−"} ${b}`,
              );
        }
      }
      expect(told).toBeGreaterThan(0);
    },
  );
  it("no hidden figure is the same in every lane, but where the exercise has it so", () => {
    const lifts = [...Array(LANES).keys()].map((seed) => {
      const { state } = millLane(findDemoExercise("five-tools-plane-lift").exercise, `lift ${seed}`);
      return state.truth.datumMm.z - tableZMm(state.setup, state.truth);
    });
    expect(new Set(lifts.map((mm) => mm.toFixed(3))).size).toBe(LANES);
    expect(Math.max(...lifts) - Math.min(...lifts)).toBeGreaterThan(1);
  });
});

describe("reading again", () => {
  const open = (id: string) => {
    const lane = millLane(findDemoExercise(id).exercise, "again");
    lane.do({ type: "home" });
    lane.do({ type: "setDoor", isOpen: true });
    return lane;
  };
  it("tells nothing new, whatever a client calls it", () => {
    const lane = open("five-tools-gauge-line");
    lane.do({ type: "load", thing: "tool1" });
    const told = [...Array(20).keys()].map((turn) => {
      lane.do({ type: "measure", what: "toolReach", by: "rule", id: `made up ${turn}` });
      return JSON.stringify(lane.seen.readings.at(-1)?.values);
    });
    expect(new Set(told).size).toBe(1);
    expect(told[0]).not.toContain("made up");
  });
  it("of a cutter by the micrometer is one reading, and its error is the instrument’s", () => {
    const misses = [...Array(40).keys()].map((seed) => {
      const lane = millLane(findDemoExercise("diameters-part-contour").exercise, `mic ${seed}`);
      lane.do({ type: "home" });
      lane.do({ type: "setDoor", isOpen: true });
      const told = [0, 1, 2, 3].map(() => {
        lane.do({ type: "measure", what: "toolDiameter", by: "micrometer", tool: 1 });
        return Object.values(lane.seen.readings.at(-1)?.values ?? {})[0] ?? 0;
      });
      expect(new Set(told).size).toBe(1);
      return (told[0] ?? 0) - (lane.state.truth.diametersMm[1] ?? 0);
    });
    // N(0, 2 µm), rounded to a micrometre
    const rms = Math.sqrt(misses.reduce((sum, mm) => sum + mm * mm, 0) / misses.length);
    expect(rms).toBeGreaterThan(0.0012);
    expect(rms).toBeLessThan(0.0031);
  });
  it("by the presetter, and after a calibration, is the same again", () => {
    const lane = open("five-tools-gauge-line");
    const exercise = demoExercises.find(({ exercise: { instruments } }) => instruments.includes("presetter"));
    if (exercise) {
      const other = millLane(exercise.exercise, "again");
      const told = [0, 1, 2].map(() => {
        other.do({ type: "askPresetter", tool: 1 });
        return JSON.stringify(other.seen.readings.at(-1)?.values);
      });
      expect(new Set(told).size).toBe(1);
    }
    lane.do({ type: "setDoor", isOpen: false });
    const beam = millLane(findDemoExercise("beam-calibrated").exercise, "again");
    beam.do({ type: "home" });
    const found = [0, 1, 2].map(() => {
      beam.do({ type: "calibrate", what: "setter", by: "pin" });
      return beam.seen.cards.setter;
    });
    expect(new Set(found).size).toBe(1);
  });
});

it("a kick that is not seen changes nothing that is sent: not a figure, not a length, not a count", () => {
  const { exercise } = findDemoExercise("focuser-plate-lower-left");
  const lane = workUpTo(
    millLane(exercise, "unseen"),
    (command, { seen }) => command.type === "jog" && command.size === "fine" && seen.tip?.kind === "running",
  );
  const axis = lane.log.findLast(({ event }) => event.type === "jogged")?.event;
  if (axis?.type !== "jogged") throw new Error("nothing was approached");
  lane.do({ type: "lookFrom", side: axis.axis === "x" ? "front" : "left" });
  const toward = { type: "jog", axis: axis.axis, direction: axis.direction, clicks: 1, size: "fine" } as const;
  let isKicked = false;
  for (let click = 0; click < 400 && !isKicked; click++) {
    const before = lane.seen;
    lane.do(toward);
    isKicked = lane.log.some(({ event }) => event.type === "kicked" && !event.isSeen);
    if (!isKicked) continue;
    // but for the place of the axis everything reads as before
    const still = ({ machine: _m, work: _w, counter: _c, turn: _t, ...rest }: Record<string, unknown>) =>
      JSON.stringify(rest);
    expect(still({ ...lane.seen })).toBe(still({ ...before }));
  }
  expect(isKicked).toBe(true);
});
