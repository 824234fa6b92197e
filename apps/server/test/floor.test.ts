import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { foldFloor, lateMinutes, type FloorEntry } from "@probe-lane/core/floor";
import type {
  FloorClassView,
  FloorLaneView,
  FloorList,
  MarksView,
  SkillsView,
  StandingsView,
  StartedLane,
  WallView,
} from "@probe-lane/contract";
import { TestClient, testServer, type TestServer } from "./testServer";

let server: TestServer;
let student: TestClient;
let instructor: TestClient;
let lane = "";
beforeAll(async () => {
  server = await testServer();
  student = await new TestClient(server).signIn("sorrel");
  instructor = await new TestClient(server).signIn("marrow");
  const { body } = await student.call<FloorList>("GET", "/floor");
  const mill = body.exercises.find(({ exercise }) => exercise.machine === "mill");
  lane = (await student.call<StartedLane>("POST", `/floor/exercises/${mill?.id}/lanes`, {})).body.id;
});
afterAll(() => server.close());

const batch = (...entries: FloorEntry[]) => ({
  entries: entries.map((entry) => ({ id: randomUUID(), atMs: Date.now(), entry })),
});
const write = (client: TestClient, body: unknown) => client.call("POST", `/floor/lanes/${lane}/entries`, body);
const view = async (client: TestClient) => (await client.call<FloorLaneView>("GET", `/floor/lanes/${lane}`)).body;
const stateOf = ({ exercise, entries }: FloorLaneView) => foldFloor(exercise, entries);
/** A signature of the lane as it stands now. */
const signature = async (reason?: string): Promise<FloorEntry> => {
  const saw = [...stateOf(await view(instructor)).binding];
  return { type: "signedOff", saw, ...(reason === undefined ? {} : { reason }) };
};
const registers = { "G54.x": -334.666, "G54.y": -191.12, H1: -250.78, H2: -231.7 };
const truth = { "G54.x": -329.667, "G54.y": -191.118, H1: -250.781, H2: -231.699 };

describe("a check before the hand-in", () => {
  it("is there for its student, and says nothing: neither its figure, nor that it was found good", async () => {
    const other = await new TestClient(server).signIn("okonjo");
    const { exercises } = (await other.call<FloorList>("GET", "/floor")).body;
    const mill = exercises.find(({ exercise }) => exercise.machine === "mill");
    const { id } = (await other.call<StartedLane>("POST", `/floor/exercises/${mill?.id}/lanes`, {})).body;
    const entered = (client: TestClient, ...entries: FloorEntry[]) =>
      client.call("POST", `/floor/lanes/${id}/entries`, batch(...entries));
    await entered(other, { type: "register", register: "H1", mm: -250.78 });
    await entered(other, { type: "register", register: "H2", mm: -231.7 });
    await entered(instructor, { type: "judgedWithin", register: "H1", mm: -250.78 });
    await entered(instructor, { type: "check", register: "H2", method: "probe", mm: -231.699, uMm: 0.002 });
    const seen = (await other.call<FloorLaneView>("GET", `/floor/lanes/${id}`)).body;
    const checks = seen.entries.flatMap(({ entry }) => (entry.type === "register" ? [] : [entry]));
    expect(checks).toEqual(
      ["H1", "H2"].map((register) => ({ type: "check", register, method: "checked", mm: 0, uMm: 1 })),
    );
    expect(JSON.stringify(seen)).not.toContain("judgedWithin");
    // a student judges nothing
    expect((await entered(other, { type: "judgedWithin", register: "H2", mm: -231.7 })).status).toBe(403);
  });
});

describe("a floor lane on the server", () => {
  it("entries sent twice are there once", async () => {
    const sent = batch(
      { type: "cautionsRead" },
      ...Object.entries(registers).flatMap(([register, mm]): FloorEntry[] => [
        { type: "reading", register, mm },
        { type: "register", register, mm },
      ]),
    );
    expect((await write(student, sent)).status).toBe(204);
    expect((await write(student, sent)).status).toBe(204);
    expect((await view(student)).entries.length).toBe(9);
  });
  it("what waited on a device keeps its own time, and says when it came", async () => {
    const madeMs = Date.now() - 30 * 60_000;
    const body = {
      entries: [{ id: randomUUID(), atMs: madeMs, entry: { type: "reading", register: "H1", mm: -250.7 } }],
    };
    expect((await write(student, body)).status).toBe(204);
    const late = (await view(instructor)).entries.filter((one) => lateMinutes(one) !== null);
    expect(late.map((one) => [one.atMs, lateMinutes(one)])).toEqual([[madeMs, 30]]);
    expect((await write(student, batch({ type: "struck", entry: body.entries[0]?.id ?? "" }))).status).toBe(204);
  });
  it("a device whose clock runs ahead keeps the order of its entries", async () => {
    const ahead = Date.now() + 600_000;
    const at = (mm: number, offset: number) => ({
      id: randomUUID(),
      atMs: ahead + offset,
      entry: { type: "register", register: "H2", mm },
    });
    expect((await write(student, { entries: [at(-1, 0), at(-2, 5), at(registers.H2, 10)] })).status).toBe(204);
    const { entries } = await view(student);
    const newest = entries
      .filter(({ entry }) => entry.type === "register" && entry.register === "H2")
      .sort((a, b) => a.atMs - b.atMs)
      .at(-1);
    expect(newest?.entry).toMatchObject({ mm: registers.H2 });
    expect(newest?.atMs).toBeLessThanOrEqual(Date.now());
  });
  it("nobody signs before the check, nobody hands in before the sign-off, nobody does the other's work", async () => {
    expect((await write(student, batch({ type: "handedIn" }))).body.error.code).toBe("floorNotSigned");
    expect((await write(instructor, batch(await signature()))).body.error.code).toBe("floorNotChecked");
    expect((await write(student, batch(await signature()))).body.error.code).toBe("forbidden");
    expect((await write(student, batch({ type: "signatureWithdrawn" }))).body.error.code).toBe("forbidden");
    expect(
      (await write(student, batch({ type: "check", register: "H1", method: "probe", mm: -250.78, uMm: 0.002 }))).body
        .error.code,
    ).toBe("forbidden");
    expect((await write(instructor, batch({ type: "reading", register: "H1", mm: 1 }))).body.error.code).toBe(
      "forbidden",
    );
  });
  it("the check stays hidden from the student until hand-in, and cannot be struck by them", async () => {
    const checks = batch(
      ...Object.entries(truth).map(([register, mm]): FloorEntry => ({
        type: "check",
        register,
        method: "second touch",
        mm,
        uMm: 0.003,
      })),
    );
    expect((await write(instructor, checks)).status).toBe(204);
    const seen = await student.call<FloorLaneView>("GET", `/floor/lanes/${lane}`);
    expect(seen.body.ruling).toBeNull();
    for (const mm of [-329.667, -191.118, -250.781, -231.699]) expect(seen.text).not.toContain(String(mm));
    expect((await write(student, batch({ type: "struck", entry: checks.entries[0]?.id ?? "" }))).body.error.code).toBe(
      "forbidden",
    );
    expect((await view(instructor)).ruling?.values.map(({ verdict }) => verdict)).toEqual([
      "wrong",
      "right",
      "right",
      "right",
    ]);
  });
  it("is signed as the signer saw it, and by nobody who has not looked since", async () => {
    const code = async (client: TestClient, ...entries: FloorEntry[]) => {
      const { status, body } = await write(client, batch(...entries));
      return status === 204 ? null : body.error.code;
    };
    // G54 X is 5 mm off: without a reason nobody signs that
    expect(await code(instructor, await signature())).toBe("floorReasonWanted");
    const seen = await signature("he found it himself");
    expect((await write(student, batch({ type: "reading", register: "H2", mm: -231.7 }))).status).toBe(204);
    expect(await code(instructor, seen)).toBe("floorChangedSince");
    expect(await code(instructor, { type: "signedOff", reason: "all well as it is" })).toBe("floorChangedSince");
    const wrong = batch({ type: "check", register: "H1", method: "probe", mm: -250.7, uMm: 0.002 });
    expect((await write(instructor, wrong)).status).toBe(204);
    expect(await code(instructor, await signature("all the same"))).toBe("floorChecksDisagree");
    await write(instructor, batch({ type: "struck", entry: wrong.entries[0]?.id ?? "" }));
    expect(await code(instructor, await signature("he found it himself"))).toBeNull();
    expect(stateOf(await view(student)).signature).toMatchObject({ state: "given", by: "Corin Marrowfield" });
  });
  it("a late entry takes the signature back on both screens by its name, and the lane is not handed in", async () => {
    // written before it was signed, on a device that had no link
    const late = {
      entries: [
        { id: randomUUID(), atMs: Date.now() - 600_000, entry: { type: "register", register: "H1", mm: -250.782 } },
        { id: randomUUID(), atMs: Date.now(), entry: { type: "handedIn" } },
      ],
    };
    expect((await write(student, late)).body.error.code).toBe("floorNotSigned");
    expect((await write(student, { entries: late.entries.slice(0, 1) })).status).toBe(204);
    for (const client of [student, instructor])
      expect(stateOf(await view(client)).signature).toMatchObject({
        state: "withdrawn",
        changed: ["the value in the control of H1 length was entered (on the device 10 minutes before it came)"],
      });
    expect((await write(student, batch({ type: "handedIn" }))).body.error.code).toBe("floorNotSigned");
    expect((await write(instructor, batch({ type: "sentBack", word: "look at H1 again" }))).status).toBe(204);
    expect(stateOf(await view(student)).signature).toMatchObject({ state: "sentBack", word: "look at H1 again" });
    // signed, and taken back by hand
    expect((await write(instructor, batch(await signature("he found it himself")))).status).toBe(204);
    expect((await write(instructor, batch({ type: "signatureWithdrawn" }))).status).toBe(204);
    expect((await write(student, batch({ type: "handedIn" }))).body.error.code).toBe("floorNotSigned");
  });
  it("after sign-off and hand-in the ruling names the mistake, and only the instructor writes", async () => {
    expect((await write(instructor, batch(await signature("he found it himself")))).status).toBe(204);
    expect((await write(student, batch({ type: "handedIn" }))).status).toBe(204);
    const { ruling } = await view(student);
    expect(ruling?.values[0]?.explained?.ranked[0]?.classes[0]?.[0]).toBe("radiusForgotten");
    expect((await write(student, batch({ type: "register", register: "G54.x", mm: -329.667 }))).body.error.code).toBe(
      "floorHandedIn",
    );
    expect(
      (await write(instructor, batch({ type: "overridden", marks: 80, reason: "found it alone afterwards" }))).status,
    ).toBe(204);
    expect((await view(student)).ruling?.total).toBe(80);
    const marks = (await instructor.call<MarksView>("GET", "/marks")).body;
    expect(
      Object.values(marks.students.find(({ name }) => name === "Nessa Sorrelby")?.cells ?? {}).map(
        ({ best }) => best?.href ?? null,
      ),
    ).toContain(`/floor/${lane}`);
    // the record says who signed at which machine, and the skills follow: X was wrong, the lengths were right
    const { students, machines } = (await instructor.call<StandingsView>("GET", "/standings")).body;
    const own = students.find(({ name }) => name === "Nessa Sorrelby");
    const [signed] = Object.entries(own?.machines ?? {});
    expect(machines).toContain(signed?.[0]);
    expect(signed?.[1]).toMatchObject({ href: `/floor/${lane}`, by: "Corin Marrowfield", isPassed: true });
    expect(own?.skills.edge?.stand).toBe("notYet");
    const mine = (await student.call<SkillsView>("GET", "/skills")).body;
    expect(mine.skills.find(({ skill }) => skill === "edge")?.shown.map(({ href }) => href)).toEqual([
      `/floor/${lane}`,
    ]);
  });
  it("is refused to others, and bad input changes nothing", async () => {
    const other = await new TestClient(server).signIn("okonjo");
    for (const client of [other, new TestClient(server)]) {
      expect((await client.call("GET", `/floor/lanes/${lane}`)).status).toBe(client === other ? 404 : 401);
      expect((await write(client, batch({ type: "cautionsRead" }))).status).toBe(client === other ? 404 : 401);
      expect((await client.call("POST", "/floor/exercises", {})).status).toBe(client === other ? 403 : 401);
    }
    expect(
      (await write(instructor, { entries: [{ id: "not-an-id", atMs: 0, entry: { type: "cautionsRead" } }] })).body.error
        .code,
    ).toBe("badRequest");
    expect((await instructor.call("POST", "/floor/exercises", { title: "x" })).body.error.code).toBe("badRequest");
    expect((await instructor.call("POST", `/floor/exercises/${randomUUID()}/lanes`, {})).status).toBe(403);
    expect((await student.call("POST", `/floor/exercises/${randomUUID()}/lanes`, {})).status).toBe(404);
  });
});

describe("a class at one machine", () => {
  it("stands in a table: the newest lane of each student, what it holds, and what its checks say", async () => {
    const { exercises } = (await instructor.call<FloorList>("GET", "/floor")).body;
    const mill = exercises.find(({ exercise }) => exercise.machine === "mill");
    const path = `/floor/exercises/${mill?.id}/class`;
    const table = async () => (await instructor.call<FloorClassView>("GET", path)).body;
    const of = async (id: string) => (await table()).lanes.find((one) => one.id === id);
    expect((await student.call("GET", path)).status).toBe(403);

    const client = await new TestClient(server).signIn("dunmarrow");
    const { id } = (await client.call<StartedLane>("POST", `/floor/exercises/${mill?.id}/lanes`, {})).body;
    const sent = (who: TestClient, ...entries: FloorEntry[]) =>
      who.call("POST", `/floor/lanes/${id}/entries`, batch(...entries));
    const none = { mm: null, shouldMm: null, isDisputed: false, isJudged: false };
    expect(await of(id)).toMatchObject({ isHandedIn: false, signature: "none", held: { H1: none } });
    await sent(client, { type: "register", register: "H1", mm: -250.8 });
    await sent(instructor, { type: "check", register: "H1", method: "probe", mm: -250.781, uMm: 0.002 });
    expect((await of(id))?.held["H1"]).toEqual({
      ...none,
      mm: -250.8,
      shouldMm: expect.closeTo(-250.781, 9) as number,
    });
    // checks that contradict each other say nothing of what it should hold
    await sent(instructor, { type: "check", register: "H1", method: "probe", mm: -250.2, uMm: 0.002 });
    expect((await of(id))?.held["H1"]).toEqual({ ...none, mm: -250.8, isDisputed: true });
    await sent(instructor, { type: "judgedWithin", register: "H1", mm: -250.8 });
    expect((await of(id))?.held["H1"]?.isJudged).toBe(true);
    const names = (await table()).lanes.map(({ studentName }) => studentName);
    expect(new Set(names).size).toBe(names.length);
  });
});

describe("a worksheet typed in by who teaches", () => {
  const paper = (...entries: FloorEntry[]) => ({
    entries: batch(...entries).entries.map((one) => ({ ...one, isFromPaper: true })),
  });
  it("counts as the student's, says who typed it, and is signed and handed in as any other", async () => {
    const { exercises } = (await instructor.call<FloorList>("GET", "/floor")).body;
    const mill = exercises.find(({ exercise }) => exercise.machine === "mill");
    const { students } = (await instructor.call<MarksView>("GET", "/marks")).body;
    const whose = students.find(({ name }) => name === "Calla Merriwick")?.id ?? "";
    const open = (client: TestClient, body: unknown) =>
      client.call<StartedLane>("POST", `/floor/exercises/${mill?.id}/lanes`, body);
    // nobody's lane is opened for nobody, and no student opens another's
    expect((await open(instructor, {})).status).toBe(403);
    expect((await open(instructor, { studentId: randomUUID() })).status).toBe(404);
    expect((await open(student, { studentId: whose })).status).toBe(403);
    const { id } = (await open(instructor, { studentId: whose })).body;
    expect((await open(instructor, { studentId: whose })).body.id).toBe(id);
    const sent = (client: TestClient, body: unknown) => client.call("POST", `/floor/lanes/${id}/entries`, body);
    const seen = async (client: TestClient) => (await client.call<FloorLaneView>("GET", `/floor/lanes/${id}`)).body;

    const set: FloorEntry[] = [
      { type: "cautionsRead" },
      ...Object.entries(truth).map(([register, mm]): FloorEntry => ({ type: "register", register, mm })),
    ];
    // as an instructor's own it is none, nor is a check from paper, nor does a student say that it was paper
    expect((await sent(instructor, batch(...set))).status).toBe(403);
    expect((await sent(instructor, paper({ type: "judgedWithin", register: "H1", mm: 1 }))).status).toBe(403);
    const own = await new TestClient(server).signIn("merriwick");
    expect((await sent(own, paper(...set))).status).toBe(403);
    expect((await sent(instructor, paper(...set))).status).toBe(204);
    const typed = (await seen(own)).entries;
    expect(typed.map(({ by, isFromPaper }) => [by, isFromPaper])).toEqual(set.map(() => ["Corin Marrowfield", true]));

    // the student adds to it, and the instructor takes back only what was typed in
    const added = batch({ type: "reading", register: "H1", mm: -250.9 });
    expect((await sent(own, added)).status).toBe(204);
    expect((await sent(instructor, paper({ type: "struck", entry: added.entries[0]?.id ?? "" }))).status).toBe(403);
    const slip = paper({ type: "reading", register: "H2", mm: 231.7 });
    expect((await sent(instructor, slip)).status).toBe(204);
    expect((await sent(instructor, paper({ type: "struck", entry: slip.entries[0]?.id ?? "" }))).status).toBe(204);
    expect(stateOf(await seen(own)).readings.map(({ mm }) => mm)).toEqual([-250.9]);

    expect((await sent(instructor, paper({ type: "handedIn" }))).body.error.code).toBe("floorNotSigned");
    const judged = Object.entries(truth).map(([register, mm]): FloorEntry => ({ type: "judgedWithin", register, mm }));
    expect((await sent(instructor, batch(...judged))).status).toBe(204);
    const saw = [...stateOf(await seen(instructor)).binding];
    expect((await sent(instructor, batch({ type: "signedOff", saw }))).status).toBe(204);
    expect((await sent(instructor, paper({ type: "handedIn" }))).status).toBe(204);
    expect((await seen(own)).ruling?.values.map(({ verdict }) => verdict)).toEqual(set.slice(1).map(() => "within"));
    expect((await sent(instructor, paper({ type: "reading", register: "H1", mm: 1 }))).body.error.code).toBe(
      "floorHandedIn",
    );
  });
});

describe("a floor exercise of one's own", () => {
  const list = async (client: TestClient) => (await client.call<FloorList>("GET", "/floor")).body.exercises;
  const titled = async (client: TestClient, title: string) =>
    (await list(client)).find(({ exercise }) => exercise.title === title);

  it("is copied, changed before anybody has begun it, hidden, shown, and deleted; what is in use is only hidden", async () => {
    const [used] = (await list(instructor)).filter(({ lanes }) => lanes.length > 0);
    const path = `/floor/exercises/${used?.id}`;
    const change = {
      title: "Clamp, second vise",
      machineNumber: "M 7",
      drawingNumber: "FH-118",
      tolerancesMm: { "G54.x": 0.05, nothing: 1 },
    };
    expect((await instructor.call("PUT", path, change)).body.error.code).toBe("floorInUse");
    expect((await instructor.call("DELETE", path)).body.error.code).toBe("floorInUse");
    const made = await instructor.call<StartedLane>("POST", `${path}/copy`, {});
    expect(made.status).toBe(201);
    const copy = `/floor/exercises/${made.body.id}`;
    expect((await titled(instructor, `${used?.exercise.title} (copy)`))?.lanes).toEqual([]);
    for (const odd of [{ title: "x" }, { tolerancesMm: { H1: -1 } }, { tolerancesMm: { H1: "wide" } }])
      expect((await instructor.call("PUT", copy, { ...change, ...odd })).status).toBe(400);
    expect((await instructor.call("PUT", copy, change)).status).toBe(204);
    const row = await titled(instructor, "Clamp, second vise");
    expect(row?.exercise).toMatchObject({ machineNumber: "M 7", drawingNumber: "FH-118" });
    const before = new Map(used?.exercise.registers.map((one) => [one.id, one.toleranceMm]));
    for (const { id, toleranceMm } of row?.exercise.registers ?? [])
      expect(toleranceMm).toBe(id === "G54.x" ? 0.05 : before.get(id));
    // hidden: not there for who has not begun it, and not lost for who has
    const other = await new TestClient(server).signIn("quillfeather");
    const first = await new TestClient(server).signIn("tamblin");
    expect((await first.call("POST", `${copy}/lanes`, {})).status).toBe(201);
    expect((await instructor.call("PUT", `${copy}/hidden`, { isHidden: true })).status).toBe(204);
    expect(await titled(other, "Clamp, second vise")).toBeUndefined();
    expect((await other.call("POST", `${copy}/lanes`, {})).status).toBe(404);
    expect((await titled(first, "Clamp, second vise"))?.isHidden).toBe(true);
    expect((await first.call("POST", `${copy}/lanes`, {})).status).toBe(201);
    expect((await instructor.call("PUT", `${copy}/hidden`, { isHidden: false })).status).toBe(204);
    expect((await titled(other, "Clamp, second vise"))?.isHidden).toBe(false);
    // one that nobody has begun goes for good
    const spare = (await instructor.call<StartedLane>("POST", `${copy}/copy`, {})).body.id;
    expect((await instructor.call("DELETE", `/floor/exercises/${spare}`)).status).toBe(204);
    expect(await titled(instructor, "Clamp, second vise (copy)")).toBeUndefined();
    expect((await instructor.call("DELETE", `/floor/exercises/${spare}`)).status).toBe(404);
  });
});

describe("at the machines, on the wall", () => {
  const begun = async (login: string, isAgain?: boolean) => {
    const client = await new TestClient(server).signIn(login);
    const { exercises } = (await client.call<FloorList>("GET", "/floor")).body;
    const mill = exercises.find(({ exercise }) => exercise.machine === "mill");
    const path = `/floor/exercises/${mill?.id}/lanes`;
    const { id } = (await client.call<StartedLane>("POST", path, isAgain === undefined ? {} : { isAgain })).body;
    return { client, id, exerciseId: mill?.id ?? "" };
  };
  const enter = (client: TestClient, id: string, ...entries: FloorEntry[]) =>
    client.call("POST", `/floor/lanes/${id}/entries`, batch(...entries));
  const row = async (id: string) =>
    (await instructor.call<WallView>("GET", "/wall")).body.floor.find(({ laneId }) => laneId === id);

  it("a hand stands there until it is answered, and only a helper answers it", async () => {
    const { client, id } = await begun("peverill");
    expect(await row(id)).toBeUndefined();
    await enter(client, id, { type: "cautionsRead" }, { type: "handRaised" });
    expect(await row(id)).toMatchObject({ studentName: "Aldous Peverill", isWaiting: false, signature: "none" });
    expect((await row(id))?.handUpAt).not.toBeNull();
    expect((await enter(client, id, { type: "handAnswered" })).status).toBe(403);
    expect((await enter(instructor, id, { type: "handRaised" })).status).toBe(403);
    await enter(instructor, id, { type: "handAnswered" });
    expect(await row(id)).toMatchObject({ handUpAt: null });
  });
  it("whoever has entered everything waits for a check; handed in, they are gone from it", async () => {
    const { client, id } = await begun("tamblin");
    const set = Object.entries(registers).map(([register, mm]): FloorEntry => ({ type: "register", register, mm }));
    await enter(client, id, { type: "cautionsRead" }, ...set);
    expect(await row(id)).toMatchObject({ isWaiting: true });
    await enter(
      instructor,
      id,
      ...Object.entries(registers).map(([register, mm]): FloorEntry => ({ type: "judgedWithin", register, mm })),
    );
    const seen = (await instructor.call<FloorLaneView>("GET", `/floor/lanes/${id}`)).body;
    await enter(instructor, id, { type: "signedOff", saw: [...stateOf(seen).binding] });
    expect(await row(id)).toMatchObject({ isWaiting: false, signature: "given" });
    await enter(client, id, { type: "handedIn" });
    expect(await row(id)).toBeUndefined();
  });
  it("another attempt is begun once the one before is handed in, and the best of them counts", async () => {
    const first = await begun("tamblin");
    // not asked for, it is the same lane
    const again = await begun("tamblin", true);
    expect(again.id).not.toBe(first.id);
    expect((await begun("tamblin", true)).id).toBe(again.id);
    expect((await begun("tamblin")).id).toBe(again.id);
    expect((await again.client.call<FloorLaneView>("GET", `/floor/lanes/${again.id}`)).body).toMatchObject({
      attempt: 2,
      entries: [],
    });
    const { students } = (await instructor.call<MarksView>("GET", "/marks")).body;
    const cell = students.find(({ name }) => name === "Ysolde Tamblin")?.cells[again.exerciseId];
    expect(cell).toMatchObject({ attempts: 2, isOpen: true, best: { attempt: 1, href: `/floor/${first.id}` } });
    // one that is at work is no other's
    const other = await begun("peverill", true);
    expect((await begun("peverill")).id).toBe(other.id);
  });
});

describe("a lane that is open on a phone and beside it", () => {
  it("is told at once of what is entered there, by its id only, and of nobody else's", async () => {
    const { exercises } = (await student.call<FloorList>("GET", "/floor")).body;
    const id = exercises.find(({ exercise }) => exercise.machine === "mill")?.id ?? "";
    const opened = async (login: string) => {
      const client = await new TestClient(server).signIn(login);
      const { body } = await client.call<StartedLane>("POST", `/floor/exercises/${id}/lanes`, {});
      return { client, lane: body.id };
    };
    const [own, other] = [await opened("tamblin"), await opened("peverill")];
    const raised = ({ client, lane: of }: typeof own) =>
      client.call("POST", `/floor/lanes/${of}/entries`, batch({ type: "handRaised" }));
    expect((await other.client.call("GET", `/floor/lanes/${own.lane}/stream`)).status).toBe(404);
    const abort = new AbortController();
    const { cookie } = own.client as unknown as { cookie: string };
    const stream = await fetch(`${server.url}/api/floor/lanes/${own.lane}/stream`, {
      headers: { cookie },
      signal: abort.signal,
    });
    const parts = (stream.body as unknown as AsyncIterable<Uint8Array>)[Symbol.asyncIterator]();
    const next = async () => new TextDecoder().decode((await parts.next()).value as Uint8Array);
    expect(await next()).toBe("retry: 2000\n\n");
    expect((await raised(other)).status).toBe(204);
    expect((await raised(own)).status).toBe(204);
    expect(await next()).toBe(`event: lane\ndata: ${own.lane}\n\n`);
    abort.abort();
  });
});
