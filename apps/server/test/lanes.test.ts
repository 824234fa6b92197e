import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Command, ObservationNow } from "@probe-lane/core/bench";
import type { MillTruth } from "@probe-lane/core/exercises";
import type { BatchReply, MarksView, ProveReply, RulingView, WallView } from "@probe-lane/contract";
import { openTab, TestClient, TestTab, testServer, type TestServer } from "./testServer";

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());

const client = (login: string) => new TestClient(server).signIn(login);
const jog = (clicks = 1): Command => ({ type: "jog", axis: "x", direction: -1, clicks, size: "coarse" });
const rows = async (lane: string) =>
  (await server.pool.query<{ n: number }>("select count(*)::int n from lane_events where attempt_id = $1", [lane]))
    .rows[0]?.n ?? -1;

describe("a lane's batches", () => {
  it("a resent batch does nothing twice and is answered the same, refusals included", async () => {
    const student = await client("sorrel");
    const tab = await openTab(student, await student.startLane());
    const batch = tab.batch([{ type: "home" }, jog(5), { type: "placePaper" }, jog(1)]);
    const first = (await tab.post(batch)).body;
    const again = (await tab.post(batch)).body;
    expect(first.outcomes.map(({ kind }) => kind)).toEqual(["done", "done", "refused", "skipped"]);
    // a resent batch may have lost a reply in which the blank or a gauge moved: it gets the drawing again
    const { solids, boxes, ...sameNow } = again.observation as ObservationNow & { solids?: object; boxes?: object };
    expect({ ...again, observation: sameNow }).toEqual(first);
    expect(Object.keys(solids ?? {}).sort()).toEqual(Object.keys(boxes ?? {}).sort());
    expect(first.observation.machine.x).toBe(-500);
    // four entries and the opening: home, five clicks as one, one refused and none for what waited behind it
    expect(await rows(tab.lane)).toBeGreaterThan(3);
    expect(again.turn).toBe(first.turn);
  });

  it("a viewer is told how many commands were answered, and not how many facts they led to", async () => {
    const student = await client("sorrel");
    const tab = await openTab(student, await student.startLane());
    const before = (await student.view(tab.lane)).turn;
    // the reference return moves and says so: more than one fact, one answer
    const { turn } = (await tab.post(tab.batch([{ type: "home" }, jog(1), { type: "placePaper" }]))).body;
    expect(turn).toBe(before + 3);
    expect((await student.view(tab.lane)).turn).toBe(turn);
  });

  it("two tabs on one lane: the one that has not seen the other's work is told to reload, and nothing changes", async () => {
    const student = await client("peverill");
    const lane = await student.startLane();
    const [one, two] = [await openTab(student, lane), await openTab(student, lane)];
    await one.do(jog(1));
    const before = await rows(lane);
    const { status, body } = await two.post(two.batch([jog(1)]));
    expect({ status, code: (body as unknown as { error: { code: string } }).error.code }).toEqual({
      status: 409,
      code: "laneMoved",
    });
    expect(await rows(lane)).toBe(before);
    const reloaded = await openTab(student, lane);
    await reloaded.do(jog(1));
  });

  it("two processes on one lane collide at the log's key: one is answered, the other told, nothing is doubled", async () => {
    const student = await client("okonjo");
    const lane = await student.startLane(1);
    const other = await server.another();
    try {
      const here = await openTab(student, lane);
      const there = new TestTab(student.at(other), lane, here.afterTurn);
      await there.client.view(lane);
      const before = await rows(lane);
      const replies = await Promise.all([here.post(here.batch([jog(1)])), there.post(there.batch([jog(1)]))]);
      expect(replies.map(({ status }) => status).sort()).toEqual([200, 409]);
      expect(await rows(lane)).toBe(before + 1);
    } finally {
      await other.close();
    }
  });

  it("behind a round robin of two processes nothing is refused, lost or done twice, resent or not", async () => {
    const student = await client("sorrel");
    const lane = await student.startLane(1);
    const other = await server.another();
    try {
      const here = await openTab(student, lane);
      const there = student.at(other);
      await there.view(lane);
      const first = await rows(lane);
      const answers: number[] = [];
      for (let turn = 0; turn < 60; turn++) {
        const batch = here.batch([jog(1)]);
        const [one, two] = turn % 2 === 0 ? [student, there] : [there, student];
        const reply = await one.call<BatchReply>("POST", `/lanes/${lane}/commands`, batch);
        answers.push(reply.status);
        here.afterTurn = reply.body.turn;
        // every fifth answer is lost on the way, and the batch comes again, at the other process
        if (turn % 5 !== 4) continue;
        const again = await two.call<BatchReply>("POST", `/lanes/${lane}/commands`, batch);
        expect([again.status, again.body.turn, again.body.outcomes]).toEqual([
          200,
          reply.body.turn,
          reply.body.outcomes,
        ]);
      }
      expect(new Set(answers)).toEqual(new Set([200]));
      expect(await rows(lane)).toBe(first + 60);
      expect((await there.view(lane)).observation).toEqual((await student.view(lane)).observation);
    } finally {
      await other.close();
    }
  });

  it("a read while the first command after a start is under way puts nothing older back", async () => {
    const student = await client("sorrel");
    const lane = await student.startLane(2);
    const tab = await openTab(student, lane);
    for (let turn = 0; turn < 8; turn++) {
      // a process that has just started knows no lane
      const fresh = await server.another();
      try {
        const there = student.at(fresh);
        const batch = tab.batch([jog(1)]);
        const [reply] = await Promise.all([
          there.call<BatchReply>("POST", `/lanes/${lane}/commands`, batch),
          there.view(lane),
          there.view(lane),
        ]);
        tab.afterTurn = reply.body.turn;
        const next = await there.call<BatchReply>("POST", `/lanes/${lane}/commands`, tab.batch([jog(1)]));
        expect([reply.status, next.status]).toEqual([200, 200]);
        tab.afterTurn = next.body.turn;
      } finally {
        await fresh.close();
      }
    }
  });

  it("a tab that calls itself by a name of the server’s is a tab all the same", async () => {
    const student = await client("sorrel");
    const lane = await student.startLane(3);
    const seen = await openTab(student, lane);
    const posing = new TestTab(student, lane, seen.afterTurn, "instructor");
    await posing.do(jog(1));
    // an instructor’s entry never collides with a student’s tab; this one does
    expect((await seen.post(seen.batch([jog(1)]))).status).toBe(409);
  });

  it("another process folds the same lane from the log", async () => {
    const student = await client("hollinsworth");
    const { assignments } = (await student.call<{ assignments: { attempts: { id: string }[] }[] }>("GET", "/lanes"))
      .body;
    const lane = assignments[1]?.attempts[0]?.id ?? "";
    const other = await server.another();
    try {
      expect(await student.at(other).view(lane)).toEqual(await student.view(lane));
    } finally {
      await other.close();
    }
  });

  it("after hand-in nothing is accepted, and the ruling is there; before it is not", async () => {
    const student = await client("ashgrove");
    const tab = await openTab(student, await student.startLane(1));
    expect((await student.call("GET", `/lanes/${tab.lane}/ruling`)).body.error.code).toBe("notHandedIn");
    await tab.do({ type: "handIn" });
    const { outcomes } = await tab.do({ type: "home" });
    expect(outcomes[0]).toMatchObject({ kind: "refused", refusal: { code: "handedInAlready" } });
    const { body } = await student.call<RulingView>("GET", `/lanes/${tab.lane}/ruling`);
    expect(body.ruling.values.map(({ cause }) => cause.kind)).toEqual(["proven", "proven", "proven"]);
    expect(body.ruling.strands.find(({ name }) => name === "method")?.marks).toBe(0);
  });

  it("a program is run with a lane's registers after hand-in, by its student and their instructor, and by nobody before", async () => {
    const student = await client("okonjo");
    const tab = await openTab(student, await student.startLane(0));
    const ask = (who: TestClient, program: string) =>
      who.call<ProveReply & { error: { code: string } }>("POST", `/lanes/${tab.lane}/prove`, { program });
    const instructor = await client("marrow");
    for (const who of [student, instructor]) expect((await ask(who, "M30")).body.error.code).toBe("notHandedIn");
    await tab.do({ type: "handIn" });
    // nothing was set: G54 is machine zero, and 25 behind it the travel has ended
    const text = "T1 M6\nG54 G0 X0 Y25\nM30";
    for (const who of [student, instructor])
      expect((await ask(who, text)).body).toMatchObject({
        unit: "mm",
        proof: { kind: "contact", contact: { line: 2, kind: "past-travel", with: "y" } },
      });
    expect((await ask(student, "T1 M6\nG1 X5\nM30")).body.proof).toEqual({
      kind: "wrong",
      line: 2,
      code: "feed-missing",
    });
    expect((await ask(student, "N1 GOTO 1")).body.proof).toMatchObject({ kind: "wrong", code: "endless" });
    expect((await ask(student, "")).status).toBe(400);
    expect((await ask(await client("tamblin"), text)).status).toBe(404);
  });

  it("a long run tells how far it is, is given up by hand, and a newer one takes its place", async () => {
    const student = await client("okonjo");
    const tab = await openTab(student, await student.startLane(0));
    await tab.do({ type: "handIn" });
    const path = `/lanes/${tab.lane}/prove`;
    // about 150,000 moves high over the blank
    const long = [
      "T1 M6",
      "#1=0",
      "WHILE [#1 LT 9900] DO1",
      ...Array.from({ length: 8 }, (_, i) => `G53 G0 X-${200 + i} Y-100 Z-${10 + i}`),
      "#1=#1+1",
      "END1",
      "G53 G0 Z0",
    ].join("\n");
    const moves = async () => (await student.call<{ moves: number | null }>("GET", path)).body.moves;
    const isUnderWay = async () => ((await moves()) ?? 0) > 0;
    const ask = (signal?: AbortSignal) => student.call("POST", path, { program: long }, {}, signal);
    expect(await moves()).toBeNull();
    const giveUp = new AbortController();
    const first = ask(giveUp.signal).catch((error: unknown) => (error as Error).name);
    await expect.poll(isUnderWay, { timeout: 20_000 }).toBe(true);
    giveUp.abort();
    expect(await first).toBe("AbortError");
    await expect.poll(moves, { timeout: 20_000 }).toBeNull();
    const second = ask();
    await expect.poll(isUnderWay, { timeout: 20_000 }).toBe(true);
    const third = await student.call<ProveReply>("POST", path, { program: "M30" });
    expect(third.body.proof).toEqual({ kind: "clear" });
    const given = await second;
    expect(given.status).toBe(409);
    expect(given.body.error.code).toBe("givenUp");
    expect((await (await client("tamblin")).call("GET", path)).status).toBe(404);
  });

  it("a new attempt draws a new truth, an open one is gone on with, and attempts run out", async () => {
    const student = await client("lindqvare");
    const first = await student.startLane(0);
    expect(await student.startLane(0)).toBe(first);
    const truths = new Set<string>();
    for (let attempt = 0; attempt < 5; attempt++) {
      const lane = await student.startLane(0);
      const { rows: events } = await server.pool.query<{ event: { truth: { datumMm: unknown } } }>(
        "select event from lane_events where attempt_id = $1 and seq = 1",
        [lane],
      );
      truths.add(JSON.stringify(events[0]?.event.truth.datumMm));
      await (await openTab(student, lane)).do({ type: "handIn" });
    }
    expect(truths.size).toBe(5);
    const { body } = await student.call<{ assignments: { id: string }[] }>("GET", "/lanes");
    expect((await student.call("POST", `/assignments/${body.assignments[0]?.id}/lanes`, {})).body.error.code).toBe(
      "attemptsUsedUp",
    );
  });
});

describe("what leaves the server", () => {
  it("no reply to a student before hand-in holds the truth, the seed or the log", async () => {
    const student = await client("merriwick");
    const lane = await student.startLane(0);
    const tab = await openTab(student, lane);
    const {
      rows: [row],
    } = await server.pool.query<{ event: { truth: MillTruth; finderOwnKickMm: number } }>(
      "select event from lane_events where attempt_id = $1 and seq = 1",
      [lane],
    );
    if (!row) throw new Error("the lane has no first event");
    const { truth, finderOwnKickMm } = row.event;
    const hidden = [
      ...Object.values(truth.datumMm),
      ...Object.values(truth.lengthsMm),
      ...Object.values(truth.burrMm),
      ...Object.values(truth.gapsMm),
      truth.edgeBreakMm,
      truth.seed,
      finderOwnKickMm,
    ]
      .map(String)
      // a short one stands in many a reply by chance: in an id, in a tolerance
      .filter((figure) => figure.length > 4);
    const said = [
      (await student.call("GET", `/lanes/${lane}`)).text,
      (await student.call("GET", "/lanes")).text,
      (
        await tab.post(
          tab.batch([
            { type: "home" },
            { type: "setDoor", isOpen: true },
            { type: "load", thing: "edgeFinder" },
            { type: "lookFrom", side: "left" },
          ]),
        )
      ).text,
    ].join("\n");
    expect(hidden.length).toBeGreaterThan(8);
    for (const figure of hidden) expect(said).not.toContain(figure);
    expect(said).not.toMatch(/truth|seed|kickPast|ownKick/i);
    expect((await student.call("GET", `/lanes/${lane}/record`)).status).toBe(403);
  });
});

describe("the instructor", () => {
  it("watches a lane read only, answers a hand without disturbing the student's tab, and exports the record", async () => {
    const student = await client("tamblin");
    const tab = await openTab(student, await student.startLane(0));
    await tab.do({ type: "raiseHand" });
    const instructor = await client("marrow");
    expect(await instructor.view(tab.lane)).toMatchObject({ isReadOnly: true, observation: { isHandUp: true } });
    expect((await instructor.call("POST", `/lanes/${tab.lane}/commands`, tab.batch([jog()]))).body.error.code).toBe(
      "readOnly",
    );
    expect((await instructor.call("POST", `/lanes/${tab.lane}/hand`, {})).status).toBe(204);
    const { observation } = await tab.do(jog(2));
    expect(observation.isHandUp).toBe(false);
    const { body } = await instructor.call<{ format: string; events: unknown[] }>("GET", `/lanes/${tab.lane}/record`);
    expect(body).toMatchObject({ format: "probe-lane/lane", version: 1 });
    expect(body.events.length).toBe(await rows(tab.lane));
  });

  it("sees the class sorted by need, and the marks", async () => {
    const instructor = await client("marrow");
    const wall = (await instructor.call<WallView>("GET", "/wall")).body;
    const need = wall.rows.map(({ isHandUp, isStopped, isHandedIn }) => {
      if (isHandedIn) return 3;
      if (isHandUp) return 0;
      return isStopped ? 1 : 2;
    });
    expect(need).toEqual([...need].sort());
    const marks = (await instructor.call<MarksView>("GET", "/marks")).body;
    const careful = marks.students.find(({ name }) => name === "Jasper Quillfeather");
    expect(
      Object.values(careful?.cells ?? {})
        .slice(0, 2)
        .map(({ best }) => Math.round(best?.total ?? 0)),
    ).toEqual([100, 100]);
  });

  it("hears of a change through the stream, by id only and at most four times a second", async () => {
    const instructor = await client("marrow");
    const student = await client("brandvold");
    const tab = await openTab(student, await student.startLane(0));
    const abort = new AbortController();
    const cookie = (instructor as unknown as { cookie: string }).cookie;
    const stream = await fetch(`${server.url}/api/wall/stream`, { headers: { cookie }, signal: abort.signal });
    let heard = "";
    const reading = (async () => {
      const decoder = new TextDecoder();
      for await (const chunk of stream.body as unknown as AsyncIterable<Uint8Array>) heard += decoder.decode(chunk);
    })().catch(() => undefined);
    const until = Date.now() + 1000;
    let sent = 0;
    while (Date.now() < until) {
      await tab.do(jog(1));
      sent += 1;
    }
    await new Promise((resolve) => setTimeout(resolve, 500));
    abort.abort();
    await reading;
    expect(heard.replace(/^retry: 2000\n\n/, "")).toMatch(/^(event: lane\ndata: [0-9a-f-]{36}\n\n|: on\n\n)*$/);
    const messages = heard.split("\n").filter((line) => line === `data: ${tab.lane}`);
    expect(sent).toBeGreaterThan(10);
    expect(messages.length).toBeGreaterThanOrEqual(3);
    expect(messages.length).toBeLessThanOrEqual(6);
  });
});
