import { expect, it } from "vitest";
import { openLane, type LaneEvent } from "@probe-lane/core/bench";
import { findDemoExercise } from "../../../demo";
import { advance, LaneCache } from "../areas/lanes/laneCache";
import type { LaneHeaderRow, LaneStore, StoredEntry } from "../areas/lanes/store";

const opened: LaneEvent = openLane(findDemoExercise("focuser-plate-lower-left").exercise, "cache", false);
const entry = (seq: number, event: LaneEvent): StoredEntry => ({
  seq,
  atMs: seq,
  writer: "tab:a",
  clientSeq: seq,
  event,
});
const log = [entry(1, opened), entry(2, { type: "homed" })];
const header = { id: "lane", studentId: "student" } as LaneHeaderRow;

/** A store whose answers come when the test lets them come, each with the log as it was when it was asked. */
function slowStore() {
  const waiting: (() => void)[] = [];
  const state = { entries: 1 };
  const store: Pick<LaneStore, "header" | "log" | "head"> = {
    header: () => Promise.resolve(header),
    log: () => {
      const asked = log.slice(0, state.entries);
      return new Promise((resolve) => waiting.push(() => resolve(asked)));
    },
    head: () => Promise.resolve({ seq: state.entries, studentId: "student" }),
  };
  const asked = async () => {
    while (waiting.length === 0) await new Promise((resolve) => setImmediate(resolve));
  };
  const answer = async () => {
    await asked();
    waiting.shift()?.();
  };
  return { store, state, asked, answer };
}

it("two who ask for a lane at once fold it once", async () => {
  const { store, answer } = slowStore();
  const cache = new LaneCache(store);
  const both = Promise.all([cache.get("lane"), cache.get("lane")]);
  await answer();
  const [one, two] = await both;
  expect(one).toBe(two);
});

it("a load that was under way while a command went on puts nothing older back", async () => {
  const { store, state, asked, answer } = slowStore();
  const cache = new LaneCache(store);
  const reading = cache.get("lane");
  await asked();
  const first = await (async () => {
    const own = new LaneCache({ ...store, log: () => Promise.resolve(log.slice(0, 1)) });
    return own.get("lane");
  })();
  if (!first) throw new Error("no lane");
  // the command is answered while the read is still folding what was there before
  state.entries = 2;
  cache.put("lane", advance(first, { seq: 2, atMs: 2, writer: "tab:a", clientSeq: 2, event: { type: "homed" } }));
  await answer();
  expect((await reading)?.headSeq).toBe(2);
  expect((await cache.get("lane"))?.headSeq).toBe(2);
});

it("a load that was under way when the lane was dropped is not kept", async () => {
  const { store, state, asked, answer } = slowStore();
  const cache = new LaneCache(store);
  const reading = cache.get("lane");
  await asked();
  cache.drop("lane");
  state.entries = 2;
  await answer();
  expect((await reading)?.headSeq).toBe(1);
  const next = cache.get("lane");
  await answer();
  expect((await next)?.headSeq).toBe(2);
});

it("who asks for the lane as it is now gets what another process wrote", async () => {
  const { store, state, answer } = slowStore();
  const cache = new LaneCache(store);
  const before = cache.get("lane");
  await answer();
  expect((await before)?.headSeq).toBe(1);
  state.entries = 2;
  expect((await cache.get("lane"))?.headSeq).toBe(1);
  const fresh = cache.fresh("lane");
  await answer();
  expect((await fresh)?.headSeq).toBe(2);
});
