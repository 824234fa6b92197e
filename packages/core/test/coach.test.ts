import { describe, expect, it } from "vitest";
import { LaneDriver, workLane, workUpTo } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import type { MillSeen } from "../bench";
import { coachWords } from "../words";

const { exercise } = findDemoExercise("focuser-plate-lower-left");
/** What the coach said beside each look of a careful lane, with what was to be seen then. */
function said(): { seen: MillSeen; code: string; words: string }[] {
  const lane = new LaneDriver<MillSeen>(exercise, "coach says", { isCoachOn: true });
  const looks: { seen: MillSeen; code: string; words: string }[] = [];
  const watched = new Proxy(lane, {
    get: (target, key) => {
      const value = Reflect.get(target, key) as unknown;
      if (key !== "do" && key !== "attempt") return value;
      return (command: Parameters<typeof lane.do>[0]) => {
        const answer = (value as (one: typeof command) => unknown).call(target, command);
        const { seen } = target;
        if (seen.coach) looks.push({ seen, code: seen.coach.code, words: coachWords(seen.coach, seen) });
        return answer;
      };
    },
  });
  workLane(watched, {});
  return looks;
}

describe("the coach never says what is not so", () => {
  const looks = said();
  it("a tip that the part has straightened is a click before its kick, and no tip that runs true", () => {
    const straight = looks.filter(
      ({ seen }) => seen.tip?.kind === "running" && seen.tip.wobble === "true" && seen.evidence.kicks.x === 0,
    );
    const beside = straight.filter(({ code }) => code === "finestClicks");
    // before it was set wobbling it hung far from the part
    for (const { code, words } of straight)
      expect(["finestClicks", "setWobbling", "lookAcross"], words).toContain(code);
    expect(beside.every(({ words }) => !words.includes("runs true"))).toBe(true);
  });
  it("paper drags only where it just drags: pinched and torn are told as they are", () => {
    const codes = (feel: string) => looks.filter(({ seen }) => seen.paper?.feel === feel).map(({ code }) => code);
    expect(codes("slides")).toContain("lowerOntoPaper");
    expect(codes("slides")).not.toContain("setLength");
    expect(codes("drags")).toContain("setLength");
    // from where it just drags a hand goes on
    const lane = new LaneDriver<MillSeen>(exercise, "paper", { isCoachOn: true });
    workUpTo(lane, (command) => command.type === "takeReading" && command.register === "H1");
    expect(lane.seen.paper?.feel).toBe("drags");
    const heard = new Map<string, string>();
    for (let click = 0; click < 200 && lane.seen.paper?.feel !== "torn" && !lane.seen.isStopped; click++) {
      const seen = lane.do({ type: "jog", axis: "z", direction: -1, clicks: 1, size: "fine" });
      if (seen.paper && seen.coach) heard.set(seen.paper.feel, coachWords(seen.coach, seen));
    }
    expect(heard.get("pinched")).toMatch(/^That is too far/);
    for (const [feel, words] of heard) if (feel !== "drags") expect(words, feel).not.toContain("It drags:");
  });
});
