import { LaneDriver, workLane, type Bench, type Habits } from "@probe-lane/students";
import type { MillSeen } from "../bench";
import { findDemoExercise } from "../../../demo";
import { describe, expect, it } from "vitest";
import { rule, type Ruling } from "../grading";
import { causeWords } from "../words";

const FOCUSER = "focuser-plate-lower-left";
const ROLLER = "roller-bracket-back-right";

function ruled(exerciseId: string, habits: Habits, seed = "a"): Ruling {
  const { exercise, marking } = findDemoExercise(exerciseId);
  const lane = new LaneDriver(exercise, seed);
  workLane(lane, habits);
  return rule(lane.log, marking);
}

const valueOf = (ruling: Ruling, axis: "x" | "y" | "z") => {
  const value = ruling.values.find(({ target }) => target.id === (axis === "z" ? "z1" : axis));
  if (!value) throw new Error(`no value for ${axis}`);
  return value;
};
const provenIds = (ruling: Ruling, axis: "x" | "y" | "z"): string[] => {
  const { cause } = valueOf(ruling, axis);
  return cause.kind === "proven" ? cause.terms.map(({ id }) => id) : [cause.kind];
};
const words = (ruling: Ruling, axis: "x" | "y" | "z") => causeWords(valueOf(ruling, axis), ruling.sheet);

describe("a careful student", () => {
  for (const exerciseId of [FOCUSER, ROLLER]) {
    for (const way of ["capture", "motion", "add"] as const) {
      for (const school of ["part-touch", "plane-lift"] as const) {
        it(`has full marks on ${exerciseId} by ${way} and ${school}`, () => {
          for (let seed = 0; seed < 6; seed++) {
            const ruling = ruled(exerciseId, { way, school }, `careful ${seed}`);
            expect(ruling.total, JSON.stringify({ seed, ruling }, null, 1)).toBeCloseTo(100, 6);
            expect(ruling.school).toBe(school);
            expect(ruling.values.map(({ cause }) => cause.kind)).toEqual(["none", "none", "none"]);
          }
        });
      }
    }
  }
});

describe("one mistake is named from the log, with its evidence", () => {
  const cases: { name: string; exercise: string; habits: Habits; axis: "x" | "y" | "z"; ids: string[] }[] = [
    {
      name: "radius forgotten on the left edge reads one tip radius low",
      exercise: FOCUSER,
      habits: { radius: { x: "forgotten" } },
      axis: "x",
      ids: ["radiusForgotten"],
    },
    {
      name: "sign turned in Y",
      exercise: ROLLER,
      habits: { radius: { y: "turned" } },
      axis: "y",
      ids: ["radiusSignTurned"],
    },
    {
      name: "diameter for radius",
      exercise: FOCUSER,
      habits: { radius: { y: "diameter" } },
      axis: "y",
      ids: ["diameterForRadius"],
    },
    {
      name: "the edge's own coordinate left out",
      exercise: ROLLER,
      habits: { edgeWork: { x: "forgotten" } },
      axis: "x",
      ids: ["edgeWorkForgotten"],
    },
    {
      name: "radius and coordinate both wrong",
      exercise: ROLLER,
      habits: { radius: { x: "forgotten" }, edgeWork: { x: "turned" } },
      axis: "x",
      ids: ["edgeWorkSignTurned", "radiusForgotten"],
    },
    {
      name: "captured after backing off",
      exercise: FOCUSER,
      habits: { backsOffFirst: { x: 35 } },
      axis: "x",
      ids: ["capturedAfterLeaving"],
    },
    {
      name: "captured after backing off with the radius forgotten",
      exercise: FOCUSER,
      habits: { backsOffFirst: { x: 35 }, radius: { x: "forgotten" } },
      axis: "x",
      ids: ["radiusForgotten", "capturedAfterLeaving"],
    },
    { name: "burr left on", exercise: FOCUSER, habits: { keepsBurr: true }, axis: "x", ids: ["burr"] },
    {
      name: "paper forgotten in Z",
      exercise: FOCUSER,
      habits: { paper: "forgotten" },
      axis: "z",
      ids: ["paperForgotten"],
    },
    {
      name: "paper counted the wrong way",
      exercise: ROLLER,
      habits: { paper: "wrongWay" },
      axis: "z",
      ids: ["paperWrongWay"],
    },
    {
      name: "facing allowance forgotten",
      exercise: ROLLER,
      habits: { facing: "forgotten" },
      axis: "z",
      ids: ["facingForgotten"],
    },
    {
      name: "old work Z left in",
      exercise: ROLLER,
      habits: { leavesOldWorkZ: true },
      axis: "z",
      ids: ["leftoverWorkZ"],
    },
    {
      name: "entered in another work offset",
      exercise: FOCUSER,
      habits: { otherRow: "y", skipsLook: true },
      axis: "y",
      ids: ["otherRegister"],
    },
  ];
  // the larger share comes first: which one that is hangs on the lane
  for (const { name, exercise, habits, axis, ids } of cases) {
    it(name, () => {
      for (let seed = 0; seed < 6; seed++)
        expect([...provenIds(ruled(exercise, habits, `m${seed}`), axis)].sort()).toEqual([...ids].sort());
    });
  }

  it("a coarse last click is late by up to the click", () => {
    const ruling = ruled(FOCUSER, { coarseLastClick: { x: true } }, "coarse 1");
    const value = valueOf(ruling, "x");
    expect(value.closureMm).toBeGreaterThan(0);
    expect(value.closureMm).toBeLessThan(0.11);
    expect(provenIds(ruling, "x")).toEqual(Math.abs(value.closureMm) > value.toleranceMm ? ["coarseClick"] : ["none"]);
  });

  it("a tip pushed too far is bent silently and the next axis pays for it", () => {
    const ruling = ruled(FOCUSER, { overTravels: true }, "bent 2");
    expect(provenIds(ruling, "y")).toEqual(["bentFinder"]);
    expect(ruling.findings.some((finding) => finding.code === "incident" && finding.incident === "finderBent")).toBe(
      true,
    );
  });

  it("the words carry the student's numbers", () => {
    const ruling = ruled(FOCUSER, { radius: { x: "forgotten" } });
    const { headline, body, proof } = words(ruling, "x");
    expect(headline).toMatch(/^G54 X is [235]\.\d{3} mm low\. Cause: one tip radius, left out\.$/);
    expect(body).toContain("That radius is missing");
    expect(proof).toContain("not a guess");
  });
});

describe("safety", () => {
  it("an edge finder started at the remembered speed is thrown, and another one can still finish the lane", () => {
    const ruling = ruled(FOCUSER, { startsAtRememberedSpeed: true });
    const incident = ruling.findings.find((finding) => finding.code === "incident");
    expect(incident).toMatchObject({ incident: "finderThrown", rpm: 3400, cost: 6 });
    expect(ruling.strands.find(({ name }) => name === "safety")?.marks).toBe(9);
    expect(ruling.strands.find(({ name }) => name === "values")?.marks).toBeCloseTo(45, 6);
  });
  it("paper under a turning tool fails safety outright", () => {
    expect(ruled(FOCUSER, { paperUnderTurningTool: true }).strands.find(({ name }) => name === "safety")?.marks).toBe(
      0,
    );
  });
});

it("looking along the kick, the coach says to look across before the tip can bend", () => {
  const lane = new LaneDriver<MillSeen>(findDemoExercise(FOCUSER).exercise, "along", { isCoachOn: true });
  const said = new Set<string>();
  const along: Bench<MillSeen> = {
    get seen() {
      return lane.seen;
    },
    attempt: (command) => lane.attempt(command),
    do: (command) => {
      // X is touched looking from the front
      const seen = lane.do(command.type === "lookFrom" ? { ...command, side: "front" } : command);
      if (seen.tip?.kind === "running") said.add(seen.coach?.code ?? "none");
      if (seen.tip?.kind === "running" && said.size > 1) throw new Error("seen enough");
      return seen;
    },
  };
  try {
    workLane(along, { stopsAfter: "x" });
  } catch {
    // the tip is not seen to kick, and what follows is another story
  }
  expect([...said]).toEqual(["lookAcross"]);
});
