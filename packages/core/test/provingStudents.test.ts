import { describe, expect, it } from "vitest";
import { LaneDriver, workLane } from "@probe-lane/students";
import { demoExercises } from "../../../demo";
import { rule } from "../grading";

/** Those whose program may come with a fault. */
const programmed = demoExercises.filter(({ exercise }) => (exercise.program?.faults.length ?? 0) > 0);
/** Among so many seeds every fault of an exercise is drawn, and none at all. */
const SEEDS = 60;
/** Another row may hold a longer length, other tools cut another part; a run in the air, or a gauging, cuts nothing. */
const MAY_PASS = new Set(["otherRow", "otherTools", "liftLeft", "otherWay"]);

describe("students who prove a program", () => {
  for (const { exercise, marking } of programmed)
    it(`${exercise.id}: whoever looks finds what is wrong, whatever it is; whoever just runs is struck or lucky`, () => {
      const seen = new Set<string>();
      for (let turn = 0; turn < SEEDS; turn++) {
        const careful = new LaneDriver(exercise, `proving ${turn}`);
        const fault = careful.state.truth.programFault?.kind ?? "sound";
        if (seen.has(fault)) continue;
        seen.add(fault);
        workLane(careful, {});
        const ruling = rule(careful.log, marking);
        expect(ruling.total, `${turn} ${fault}`).toBeCloseTo(100, 6);
        const hasty = new LaneDriver(exercise, `proving ${turn}`);
        workLane(hasty, { looksNothingUp: true, justRuns: true });
        const struck = hasty.state.program.last?.why === "contact";
        if (fault === "sound") expect(struck, String(turn)).toBe(false);
        else if (!MAY_PASS.has(fault)) expect(struck, `${turn} ${fault}`).toBe(true);
        const proving = rule(hasty.log, marking).strands.find(({ name }) => name === "proving");
        expect(proving?.marks, `${turn} ${fault}`).toBeLessThan(proving?.outOf ?? 0);
      }
      for (const { kind } of exercise.program?.faults ?? []) expect([...seen]).toContain(kind);
    });
});
