import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type {
  DemonstrationView,
  LaneView,
  LiveView,
  MarksView,
  MyLanes,
  PlanView,
  RulingView,
  StartedLane,
  TogetherView,
  WallView,
} from "@probe-lane/contract";
import { replay, upgradeEvent, type Command } from "@probe-lane/core/bench";
import { millLane, workLane } from "@probe-lane/students";
import { findDemoExercise } from "../../../demo";
import { TestClient, testServer, type TestServer } from "./testServer";

let server: TestServer;
let other: TestServer;
let instructor: TestClient;
let student: TestClient;
let neighbor: TestClient;
let lane = "";
beforeAll(async () => {
  server = await testServer();
  other = await server.another();
  instructor = await new TestClient(server).signIn("marrow");
  student = await new TestClient(server).signIn("sorrel");
  neighbor = await new TestClient(server).signIn("tamblin");
  lane = await student.startLane();
});
afterAll(async () => {
  await other.close();
  await server.close();
});

const together = async (client: TestClient, id: string) =>
  (await client.call<TogetherView>("GET", `/lanes/${id}/together`)).body;
const say = (client: TestClient, text: string, laneId: string | null) =>
  client.call("POST", "/wall/messages", { text, laneId });
let seq = 0;
async function press(client: TestClient, id: string, commands: Command[]) {
  const { turn } = (await client.call<LaneView>("GET", `/lanes/${id}`)).body;
  return client.call("POST", `/lanes/${id}/commands`, {
    writer: crypto.randomUUID(),
    afterTurn: turn,
    commands: commands.map((command) => ({ clientSeq: ++seq, command })),
  });
}

describe("words during class", () => {
  it("reach every bench of the class, or one alone, with who said them", async () => {
    const next = await neighbor.startLane(1);
    expect((await say(instructor, "  Ten minutes left. ", null)).status).toBe(201);
    expect((await say(instructor, "Look at the sign of the radius.", lane)).status).toBe(201);
    expect((await together(student, lane)).messages.map(({ text, by, isToAll }) => [text, by, isToAll])).toEqual([
      ["Ten minutes left.", "Corin Marrowfield", true],
      ["Look at the sign of the radius.", "Corin Marrowfield", false],
    ]);
    expect((await together(neighbor, next)).messages.map(({ text }) => text)).toEqual(["Ten minutes left."]);
    // a lane that is opened later was not meant
    const later = await neighbor.startLane(5);
    expect((await together(neighbor, later)).messages).toEqual([]);
  });
  it("are nobody's to say but who teaches or helps, and nobody's to read but whose lane it is", async () => {
    expect((await say(student, "Hello", null)).status).toBe(403);
    expect((await neighbor.call("GET", `/lanes/${lane}/together`)).status).toBe(404);
    expect((await neighbor.call("GET", `/lanes/${lane}/together/stream`)).status).toBe(404);
    expect((await say(instructor, " ", null)).status).toBe(400);
    expect((await say(instructor, "x".repeat(301), null)).status).toBe(400);
    expect((await say(instructor, "Hello", "00000000-0000-4000-8000-000000000000")).status).toBe(404);
  });
  it("a note on a live lane is seen there", async () => {
    await instructor.call("POST", `/lanes/${lane}/notes`, { seq: 1, text: "Begin with the reference." });
    expect((await together(student, lane)).notes.map(({ text }) => text)).toEqual(["Begin with the reference."]);
  });
});

describe("a lane shown to the class", () => {
  const shown = async (client: TestClient) =>
    (await client.call<DemonstrationView>("GET", "/demonstration")).body.shown;
  const show = (client: TestClient, laneId: string | null) => client.call("PUT", "/wall/demonstration", { laneId });
  it("is the instructor's own, as whoever works in it sees it, in every process, until it is over", async () => {
    expect(await shown(student)).toBeNull();
    // nobody's work but one's own is put before the class
    expect((await show(instructor, lane)).status).toBe(403);
    expect((await show(student, lane)).status).toBe(403);
    expect((await show(instructor, "00000000-0000-4000-8000-000000000000")).status).toBe(404);
    const [first] = (await instructor.call<PlanView>("GET", "/plan")).body.rows;
    const { id } = (await instructor.call<StartedLane>("POST", `/plan/${first?.id}/try`)).body;
    expect((await show(instructor, id)).status).toBe(204);
    expect(await shown(student)).toMatchObject({ laneId: id, by: "Corin Marrowfield", turn: 1 });
    expect((await together(student, lane)).isShowing).toBe(true);
    // the lane itself stays closed to students
    expect((await student.call("GET", `/lanes/${id}`)).status).toBe(404);
    await press(instructor, id, [{ type: "home" }]);
    const now = await shown(neighbor);
    expect(now?.observation.isHomed).toBe(true);
    // what is shown is what the instructor sees, and neither has the truth in it
    const own = (await instructor.call<LaneView>("GET", `/lanes/${id}`)).body;
    expect(now?.observation).toEqual(own.observation);

    // somebody goes on from there, in a lane of their own that counts nowhere
    const lanesOf = async () => (await neighbor.call<MyLanes>("GET", "/lanes")).body;
    const before = await lanesOf();
    const own2 = (await neighbor.call<StartedLane>("POST", "/demonstration/lanes")).body.id;
    expect((await instructor.call("POST", "/demonstration/lanes")).status).toBe(403);
    const taken = (await neighbor.call<LaneView>("GET", `/lanes/${own2}`)).body;
    expect(taken.lane).toMatchObject({ isTrial: true, attempt: 1, handedInAt: null });
    expect(taken.observation).toEqual(own.observation);
    expect(taken.turn).toBe(own.turn);
    await press(instructor, id, [{ type: "jog", axis: "x", direction: -1, clicks: 3, size: "coarse" }]);
    await press(neighbor, own2, [{ type: "jog", axis: "y", direction: -1, clicks: 1, size: "coarse" }]);
    const [theirs, mine] = await Promise.all([shown(neighbor), neighbor.call<LaneView>("GET", `/lanes/${own2}`)]);
    expect(theirs?.observation.machine.x).toBeLessThan(0);
    expect(mine.body.observation.machine).toMatchObject({ x: 0 });
    expect(mine.body.observation.machine.y).toBeLessThan(0);
    // handed in it is ruled, and nothing of it is in the marks, the skills or the attempts
    await press(neighbor, own2, [{ type: "handIn" }]);
    const after = await lanesOf();
    expect(before.goneOn).toEqual([]);
    expect(after.assignments).toEqual(before.assignments);
    const { students } = (await instructor.call<MarksView>("GET", "/marks")).body;
    const cells = Object.values(students.find(({ name }) => name === "Ysolde Tamblin")?.cells ?? {});
    expect(cells.some(({ best }) => best?.href.includes(own2))).toBe(false);
    const ruling = (await neighbor.call<RulingView>("GET", `/lanes/${own2}/ruling`)).body;
    const row = before.assignments.find(({ id: one }) => one === first?.id);
    expect(ruling.lane.isTrial).toBe(true);
    expect(ruling.attemptsLeft).toBe((row?.attemptsAllowed ?? 0) - (row?.attempts.length ?? 0));
    expect((await neighbor.call("POST", `/lanes/${own2}/look`, { text: "why is that so?" })).status).toBe(403);
    const counted = await neighbor.startLane(before.assignments.findIndex((one) => one.id === first?.id));
    expect((await neighbor.call<LaneView>("GET", `/lanes/${counted}`)).body.lane).toMatchObject({ isTrial: false });
    const elsewhere = await new TestClient(other).signIn("sorrel");
    await expect.poll(async () => (await shown(elsewhere))?.laneId ?? null).toBe(id);
    expect((await show(instructor, null)).status).toBe(204);
    expect(await shown(student)).toBeNull();
    // a lane that is over is shown to nobody, and nobody is told that it was
    await show(instructor, id);
    expect((await together(student, lane)).isShowing).toBe(true);
    await press(instructor, id, [{ type: "handIn" }]);
    expect(await shown(student)).toBeNull();
    expect((await together(student, lane)).isShowing).toBe(false);
    expect((await neighbor.call("POST", "/demonstration/lanes")).status).toBe(404);
    await expect.poll(() => shown(elsewhere)).toBeNull();
  });
});

describe("everybody held", () => {
  it("holds every lane of the class in every process, changes none, and lets them go on", async () => {
    const before = (await student.call<LaneView>("GET", `/lanes/${lane}`)).body;
    expect((await instructor.call("PUT", "/wall/pause", { isPaused: true })).status).toBe(204);
    expect((await press(student, lane, [{ type: "home" }])).body.error.code).toBe("classPaused");
    const elsewhere = student.at(other);
    await expect.poll(async () => (await press(elsewhere, lane, [{ type: "home" }])).status).toBe(409);
    expect((await student.call<LaneView>("GET", `/lanes/${lane}`)).body.turn).toBe(before.turn);
    expect((await together(student, lane)).pausedBy).toBe("Corin Marrowfield");
    expect((await instructor.call<WallView>("GET", "/wall")).body.pausedBy).toBe("Corin Marrowfield");
    // a process that starts meanwhile knows of it
    const third = await server.another();
    expect((await press(student.at(third), lane, [{ type: "home" }])).status).toBe(409);
    await third.close();
    expect((await instructor.call("PUT", "/wall/pause", { isPaused: false })).status).toBe(204);
    expect((await press(student, lane, [{ type: "home" }])).status).toBe(200);
    await expect.poll(async () => (await press(elsewhere, lane, [{ type: "setDoor", isOpen: true }])).status).toBe(200);
  });
  it("is an instructor's alone, and asks for a plain yes or no", async () => {
    expect((await student.call("PUT", "/wall/pause", { isPaused: true })).status).toBe(403);
    expect((await instructor.call("PUT", "/wall/pause", { isPaused: "please" })).status).toBe(400);
  });
});

describe("a lane as it stands now", () => {
  const live = async (client: TestClient, id: string) => client.call<LiveView>("GET", `/lanes/${id}/live`);

  it("tells the instructor what is off and why while it is worked, and the student nothing", async () => {
    const { exercise } = findDemoExercise("focuser-plate-lower-left");
    const id = await new TestClient(server).signIn("okonjo").then(async (client) => {
      const own = await client.startLane();
      // the same part, worked by somebody who forgets the radius in X, up to the length of the tool
      const { rows } = await server.pool.query<{ event: unknown }>(
        "select event from lane_events where attempt_id = $1 and seq = 1",
        [own],
      );
      const copy = millLane(exercise, "copy");
      copy.state = replay([upgradeEvent(rows[0]?.event)]) as typeof copy.state;
      const commands: Command[] = [];
      const attempt = copy.attempt.bind(copy);
      copy.attempt = (command) => {
        commands.push(command);
        return attempt(command);
      };
      workLane(copy, { radius: { x: "forgotten" } });
      const until = commands.findIndex(({ type }) => type === "placePaper");
      for (let at = 0; at < until; at += 20) await press(client, own, commands.slice(at, Math.min(until, at + 20)));
      expect((await live(client, own)).status).toBe(403);
      return own;
    });
    const { values } = (await live(instructor, id)).body;
    expect(values.map(({ state }) => state)).toEqual(["off", "right", "notYet"]);
    expect(values[0]?.words).toMatch(/^G54 X is .* mm low\. Cause: one tip radius, left out\.$/);
  });
  it("says of a lane that was only opened that nothing is set yet, and of one that is handed in nothing", async () => {
    const fresh = await neighbor.startLane(0);
    expect((await live(instructor, fresh)).body.values.every(({ state }) => state === "notYet")).toBe(true);
    await press(neighbor, fresh, [{ type: "home" }, { type: "handIn" }]);
    expect((await live(instructor, fresh)).status).toBe(403);
  });
});
