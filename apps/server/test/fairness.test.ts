import { describe, expect, it } from "vitest";
import { costOf, FairShare } from "../fairness";

describe("a fair share", () => {
  const shared = () => {
    const clock = { now: 0 };
    const waits: number[] = [];
    const share = new FairShare(
      () => clock.now,
      (ms) => {
        waits.push(ms);
        return Promise.resolve();
      },
    );
    return { clock, waits, share };
  };
  it("lets a class work: a held key and a batch of a whole lane wait for nothing", async () => {
    const { clock, waits, share } = shared();
    for (let second = 0; second < 60; second++) {
      for (let press = 0; press < 10; press++)
        await share.take("student", costOf("POST", "/lanes/x/commands", { commands: [1] }));
      clock.now += 1000;
    }
    expect(waits).toEqual([]);
  });
  it("makes a flood wait for itself, by what it asks beyond 400 units a second", async () => {
    const { clock, waits, share } = shared();
    for (let turn = 0; turn < 24; turn++) await share.take("flood", 100);
    expect(waits).toEqual([]);
    await share.take("flood", 100);
    await share.take("flood", 100);
    expect(waits).toEqual([250, 500]);
    await share.take("neighbor", 100);
    expect(waits).toHaveLength(2);
    clock.now += 10_000;
    await share.take("flood", 100);
    expect(waits).toHaveLength(2);
  });
  it("refuses where too many wait already, and takes nothing for it", async () => {
    const share = new FairShare(
      () => 0,
      () => new Promise(() => undefined),
    );
    const asked = Array.from({ length: 80 }, () => share.take("flood", 400));
    const refused = await Promise.all(asked.slice(46));
    expect(new Set(refused)).toEqual(new Set([false]));
    expect(await share.take("neighbor", 400)).toBe(true);
  });
  it("counts a command as one, a replay as a hundred", () => {
    expect(costOf("POST", "/lanes/x/commands", { commands: Array(20).fill(0) })).toBe(21);
    expect(costOf("GET", "/lanes/x/review", undefined)).toBe(100);
    expect(costOf("GET", "/lanes", undefined)).toBe(4);
    expect(costOf("POST", "/lanes/x/commands", { commands: "all of them" })).toBe(1);
  });
});
