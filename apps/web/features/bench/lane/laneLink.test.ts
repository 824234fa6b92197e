import { describe, expect, it } from "vitest";
import type { BatchReply, CommandBatch } from "@probe-lane/contract";
import { decide, foldFrom, observe, type Command, type TurningSeen } from "@probe-lane/core/bench";
import { LaneDriver, latheLane, workLane } from "@probe-lane/students";
import { findDemoExercise } from "../../../../../demo";
import { benchKitFor } from "../machines";
import { LaneLink, positions, type LinkPorts } from "./laneLink";

const { exercise } = findDemoExercise("focuser-plate-lower-left");

/** A server in memory that answers when told to, may lose requests or replies, and counts a resent batch once. */
class FakeServer {
  readonly lane: LaneDriver;
  constructor(of = exercise) {
    this.lane = new LaneDriver(of, "link");
  }
  readonly got: CommandBatch[] = [];
  private waiting: (() => void)[] = [];
  private answered = new Map<number, BatchReply>();
  isDown: "no" | "request" | "reply" = "no";
  isHeld = false;
  retries: (() => void)[] = [];

  readonly ports: LinkPorts = {
    send: (batch) =>
      new Promise((resolve, reject) => {
        this.waiting.push(() => {
          if (this.isDown === "request") return reject(new Error("lost"));
          if (this.isHeld) return reject(new Error("held"));
          this.got.push(structuredClone(batch));
          const reply = this.answer(batch);
          return this.isDown === "reply" ? reject(new Error("lost")) : resolve(reply);
        });
      }),
    failure: (error) =>
      error instanceof Error && error.message === "lost"
        ? { status: "lost", message: "no answer" }
        : error instanceof Error && error.message === "held"
          ? { status: "paused", message: "held for everybody" }
          : { status: "moved", message: "elsewhere" },
    noticed: (seen) => benchKitFor(seen.kind).noticed(seen),
    later: (work) => {
      this.retries.push(work);
      return () => undefined;
    },
  };

  private answer(batch: CommandBatch): BatchReply {
    const [first] = batch.commands;
    const before = this.answered.get(first?.clientSeq ?? 0);
    if (before) return before;
    const outcomes: BatchReply["outcomes"] = batch.commands.map(({ clientSeq, command }) => {
      const refusal = this.lane.attempt(command);
      return refusal ? { clientSeq, kind: "refused", refusal, message: refusal.code } : { clientSeq, kind: "done" };
    });
    const reply: BatchReply = { turn: this.lane.log.length, observation: this.lane.seen, outcomes };
    this.answered.set(first?.clientSeq ?? 0, reply);
    return reply;
  }
  async flush(): Promise<void> {
    const turn = this.waiting;
    this.waiting = [];
    for (const answer of turn) answer();
    for (let tick = 0; tick < 6; tick++) await Promise.resolve();
  }
  async flushAll(): Promise<void> {
    for (let turn = 0; turn < 60 && this.waiting.length > 0; turn++) await this.flush();
  }
  link(): LaneLink {
    return new LaneLink(this.ports, "tab-one", { turn: this.lane.log.length, observation: this.lane.seen });
  }
}
const jog = (size: "fine" | "middle" | "coarse" | "rapid", clicks = 1): Command => ({
  type: "jog",
  axis: "x",
  direction: -1,
  clicks,
  size,
});

describe("the tab's end of a lane", () => {
  it("keeps what does not show the place as it was while only that changes, and takes anything else at once", async () => {
    const server = new FakeServer();
    const link = server.link();
    const { steady, observation } = link.snapshot();
    link.send({ type: "home" });
    await server.flush();
    const homed = link.snapshot();
    expect(homed.steady).not.toBe(steady);
    expect(homed.steady.isHomed).toBe(true);
    expect(homed.observation.registers, "what is equal stays the one that it was").toBe(observation.registers);
    link.send({ type: "jog", axis: "z", direction: -1, clicks: 3, size: "coarse" });
    await server.flush();
    const moved = link.snapshot();
    expect(moved.observation.machine.z).toBe(-300);
    expect(moved.steady).toBe(homed.steady);
    link.send({ type: "setDoor", isOpen: true });
    await server.flush();
    expect(link.snapshot().steady).toBe(link.snapshot().observation);
  });
  it("moves the readout in the frame of the key press, before any answer", async () => {
    const server = new FakeServer();
    const link = server.link();
    const before = link.snapshot().shown.machine.x;
    link.send(jog("coarse", 3));
    expect(link.snapshot().shown.machine.x).toBe(before - 300);
    expect(link.snapshot().observation.machine.x).toBe(before);
    await server.flush();
    expect(link.snapshot().observation.machine.x).toBe(before - 300);
    expect(link.snapshot().shown).toMatchObject({ machine: { x: before - 300 } });
  });
  it("at the finest sizes sends one click at a time and drops a held key's repeats meanwhile", async () => {
    const server = new FakeServer();
    const link = server.link();
    for (let press = 0; press < 3; press++) link.send(jog("fine"));
    for (let repeat = 0; repeat < 10; repeat++) link.send(jog("fine"), true);
    await server.flushAll();
    expect(server.got.map(({ commands }) => commands.length)).toEqual([1, 1, 1]);
    expect(server.lane.state.position.x).toBe(-40_003);
  });
  it("gathers coarse presses that wait into one command", async () => {
    const server = new FakeServer();
    const link = server.link();
    for (let press = 0; press < 9; press++) link.send(jog("coarse"));
    await server.flushAll();
    expect(
      server.got.map(({ commands }) => commands.map(({ command }) => command.type === "jog" && command.clicks)),
    ).toEqual([[1], [8]]);
    expect(server.lane.state.position.x).toBe(-40_900);
  });
  it("a refusal is shown in words and drops the presses behind it", async () => {
    const server = new FakeServer();
    const link = server.link();
    link.send({ type: "setDoor", isOpen: true });
    await server.flushAll();
    link.send(jog("rapid"));
    link.send(jog("fine"));
    await server.flushAll();
    expect(link.snapshot().message).toBe("doorOpenRapid");
    expect(server.lane.state.position.x).toBe(-40_000);
  });
  it.each(["request", "reply"] as const)(
    "when the %s is lost the machine holds, and on return nothing is missing or doubled",
    async (what) => {
      const server = new FakeServer();
      const link = server.link();
      server.isDown = what;
      link.send(jog("coarse", 4));
      await server.flush();
      expect(link.snapshot().status).toBe("lost");
      link.send(jog("coarse", 50));
      expect(link.snapshot().shown.machine.x).toBe(-40_400);
      server.isDown = "no";
      server.retries.forEach((retry) => retry());
      await server.flushAll();
      expect(link.snapshot().status).toBe("linked");
      expect(link.snapshot().observation.machine.x).toBe(-40_400);
      expect(server.lane.state.position.x).toBe(-40_400);
      link.send(jog("coarse", 1));
      await server.flushAll();
      expect(server.lane.state.position.x).toBe(-40_500);
    },
  );
  it("takes in an answered hand while idle, and not over a command of its own", async () => {
    const server = new FakeServer();
    const link = server.link();
    link.send({ type: "raiseHand" });
    await server.flushAll();
    server.lane.do({ type: "lowerHand" });
    const now = { turn: server.lane.log.length, observation: server.lane.seen };
    link.send(jog("coarse"));
    link.refresh(now);
    expect(link.snapshot().observation.isHandUp).toBe(true);
    await server.flushAll();
    server.lane.do({ type: "raiseHand" });
    link.refresh({ turn: server.lane.log.length, observation: server.lane.seen });
    expect(link.snapshot().observation.isHandUp).toBe(true);
    link.refresh(now);
    expect(link.snapshot().observation.isHandUp).toBe(true);
  });
  it("does not predict a click that door or travel will refuse", () => {
    const { state } = new LaneDriver(exercise, "edge of travel");
    const opened = foldFrom(state, [{ type: "homed" }, { type: "doorSet", isOpen: true }]);
    const seen = observe(opened, "student");
    const plus: Command & { type: "jog" } = { type: "jog", axis: "x", direction: 1, clicks: 5, size: "coarse" };
    expect(positions(seen, [plus]).machine.x).toBe(0);
    expect(positions(seen, [{ ...plus, direction: -1, size: "rapid" }]).machine.x).toBe(0);
    expect(decide(opened, plus)).toMatchObject({ ok: false });
  });
});

it("at a lathe, too, waiting presses are dropped when something is felt: the straight edge is not pushed off", async () => {
  const { exercise: parting } = findDemoExercise("collar-parting-edge");
  // a careful student's commands, up to the click at which the tool meets the straight edge
  const plan: Command[] = [];
  const careful = latheLane(parting, "link");
  workLane({
    get seen() {
      return careful.seen;
    },
    attempt: (command) => careful.attempt(command),
    do: (command) => {
      plan.push(command);
      return careful.do(command);
    },
  });
  const feelOf = ({ seen }: typeof careful) => (seen.lathe.gap?.id === "straightEdge" ? seen.lathe.gap.feel : null);
  const scratch = latheLane(parting, "link");
  const meets = plan.findIndex((command) => {
    const before = feelOf(scratch);
    scratch.attempt(command);
    return before === "slides" && feelOf(scratch) !== "slides" && command.type === "jog" && command.size === "fine";
  });
  expect(meets).toBeGreaterThan(0);
  const server = new FakeServer(parting);
  for (const command of plan.slice(0, meets)) server.lane.attempt(command);
  const last = plan[meets];
  if (last?.type !== "jog") throw new Error("no click");
  const link = server.link();
  for (let press = 0; press < 8; press++) link.send({ ...last, clicks: 20 });
  await server.flushAll();
  const { kind, lathe } = server.lane.seen as TurningSeen;
  expect(kind).toBe("turret");
  expect(lathe.gap?.feel).toBe(feelOf(scratch));
});

describe("a class that is held", () => {
  it("takes no more presses, and goes on where it was when it is let go on", async () => {
    const server = new FakeServer();
    const link = server.link();
    link.hold("held by one");
    expect(link.snapshot()).toMatchObject({ status: "paused", message: "held by one" });
    link.send({ type: "home" });
    expect(server.got).toHaveLength(0);
    link.hold(null);
    expect(link.snapshot()).toMatchObject({ status: "linked", message: null });
    link.send({ type: "home" });
    await server.flushAll();
    expect(server.lane.seen.isHomed).toBe(true);
  });
  it("keeps what was under way: it is sent again, and done once", async () => {
    const server = new FakeServer();
    const link = server.link();
    server.isHeld = true;
    link.send({ type: "home" });
    await server.flushAll();
    expect(link.snapshot()).toMatchObject({ status: "paused", isWaiting: true });
    expect(server.lane.seen.isHomed).toBe(false);
    // it is tried again while the class is still held, and once more when it goes on
    server.retries.splice(0).forEach((again) => again());
    await server.flushAll();
    expect(link.snapshot().status).toBe("paused");
    server.isHeld = false;
    link.hold(null);
    await server.flushAll();
    expect(link.snapshot()).toMatchObject({ status: "linked", isWaiting: false });
    expect(server.lane.log.filter(({ event }) => event.type === "homed")).toHaveLength(1);
  });
  it("stands still although the answer to the last press comes in", async () => {
    const server = new FakeServer();
    const link = server.link();
    link.send({ type: "home" });
    link.hold("held by one");
    await server.flushAll();
    expect(link.snapshot()).toMatchObject({ status: "paused", message: "held by one" });
    expect(server.lane.seen.isHomed).toBe(true);
    link.hold(null);
    expect(link.snapshot().status).toBe("linked");
  });
});
