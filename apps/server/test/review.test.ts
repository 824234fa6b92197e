import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { MarksView, MyLanes, ReviewView, RulingView, SkillsView } from "@probe-lane/contract";
import { TestClient, testServer, type TestServer } from "./testServer";

let server: TestServer;
let student: TestClient;
let instructor: TestClient;
let lane = "";
beforeAll(async () => {
  server = await testServer();
  student = await new TestClient(server).signIn("brandvold");
  instructor = await new TestClient(server).signIn("marrow");
  const { assignments } = (await student.call<MyLanes>("GET", "/lanes")).body;
  lane = assignments.flatMap(({ attempts }) => attempts).find(({ handedInAt }) => handedInAt !== null)?.id ?? "";
});
afterAll(() => server.close());

const review = async (client: TestClient) => (await client.call<ReviewView>("GET", `/lanes/${lane}/review`)).body;
const ruling = async (client: TestClient) => (await client.call<RulingView>("GET", `/lanes/${lane}/ruling`)).body;

describe("the replay", () => {
  it("gives a student the own lane entry by entry, with observations and never the events or the truth", async () => {
    const reply = await student.call<ReviewView>("GET", `/lanes/${lane}/review`);
    const {
      rows: [count],
    } = await server.pool.query<{ n: number }>("select count(*)::int n from lane_events where attempt_id = $1", [lane]);
    expect(reply.body.review.moments.length).toBe(count?.n);
    expect(reply.body).toMatchObject({ canWrite: false, notes: [], review: { first: { isHandedIn: false } } });
    expect(reply.text).not.toMatch(/"(truth|seed|kickPastMm|errorMm|finderOwnKickMm)"/);
    expect((await (await new TestClient(server).signIn("okonjo")).call("GET", `/lanes/${lane}/review`)).status).toBe(
      404,
    );
  });

  it("a note pinned to a moment is read by the student, in the replay and the ruling, until it is taken away", async () => {
    expect(
      (await instructor.call("POST", `/lanes/${lane}/notes`, { seq: 5, text: "  Look before you lower the tip.  " }))
        .status,
    ).toBe(204);
    const [note] = (await review(student)).notes;
    expect(note).toMatchObject({ seq: 5, text: "Look before you lower the tip.", by: "Corin Marrowfield" });
    expect((await ruling(student)).notes).toEqual([note]);
    expect((await instructor.call("DELETE", `/lanes/${lane}/notes/${note?.id}`)).status).toBe(204);
    expect((await review(student)).notes).toEqual([]);
  });
});

describe("marks that an instructor gives", () => {
  const total = async () => (await ruling(student)).ruling.total;
  const marked = async () => {
    const { students } = (await instructor.call<MarksView>("GET", "/marks")).body;
    return students
      .flatMap(({ cells }) => Object.values(cells))
      .find(({ best }) => best?.href === `/lanes/${lane}/ruling`)?.best?.total;
  };

  it("count everywhere, stand beside the log's own with the reason, and can be taken back; the stored ruling is never changed", async () => {
    const {
      rows: [stored],
    } = await server.pool.query<{ body: unknown }>("select body from rulings where attempt_id = $1", [lane]);
    const before = await total();
    const strand = (await ruling(student)).ruling.strands.find(({ name }) => name === "method");
    expect(
      (
        await instructor.call("POST", `/lanes/${lane}/overrides`, {
          strand: "method",
          marks: 3,
          reason: "Asked a neighbor for the speed.",
        })
      ).status,
    ).toBe(204);
    const after = (await ruling(student)).ruling;
    expect(after.total).toBeCloseTo(before - (strand?.marks ?? 0) + 3, 9);
    expect(after.strands.find(({ name }) => name === "method")).toMatchObject({
      marks: 3,
      given: { earned: strand?.marks, by: "Corin Marrowfield", reason: "Asked a neighbor for the speed." },
    });
    expect(await marked()).toBeCloseTo(after.total, 9);
    const mine = (await student.call<MyLanes>("GET", "/lanes")).body.assignments
      .flatMap(({ attempts }) => attempts)
      .find(({ id }) => id === lane);
    expect(mine?.total).toBeCloseTo(after.total, 9);
    expect(
      (
        await instructor.call("POST", `/lanes/${lane}/overrides`, {
          strand: "method",
          marks: null,
          reason: "It was somebody else.",
        })
      ).status,
    ).toBe(204);
    expect(await total()).toBeCloseTo(before, 9);
    const {
      rows: [now],
    } = await server.pool.query<{ body: unknown }>("select body from rulings where attempt_id = $1", [lane]);
    expect(now?.body).toEqual(stored?.body);
  });

  it("are refused in words when they are more than the strand is out of, for no strand, or without a reason", async () => {
    const before = await total();
    const give = async (body: unknown) =>
      (await instructor.call("POST", `/lanes/${lane}/overrides`, body)).body.error.code;
    expect(await give({ strand: "method", marks: 900, reason: "too kind" })).toBe("tooManyMarks");
    expect(await give({ strand: "charm", marks: 1, reason: "very kind" })).toBe("badRequest");
    expect(await give({ strand: "method", marks: 1, reason: " " })).toBe("badRequest");
    expect(await give({ strand: "method", marks: -1, reason: "unkind" })).toBe("badRequest");
    expect(
      (await student.call("POST", `/lanes/${lane}/overrides`, { strand: "method", marks: 15, reason: "I say so" })).body
        .error.code,
    ).toBe("forbidden");
    expect(await total()).toBe(before);
  });
});

describe("another look", () => {
  const ask = (client: TestClient, text: string) => client.call("POST", `/lanes/${lane}/look`, { text });
  const answer = (client: TestClient, text: string) => client.call("POST", `/lanes/${lane}/look/answer`, { text });
  const waiting = async () => (await instructor.call<MarksView>("GET", "/marks")).body.looks;

  it("is asked for with a word, stands among the marks until it is answered, and both read it at the ruling", async () => {
    expect((await ask(student, "no")).status).toBe(400);
    expect((await ask(student, " My radius was on the sheet as 5. ")).status).toBe(201);
    expect((await ask(student, "And another thing")).body.error.code).toBe("lookAsked");
    expect(await waiting()).toEqual([
      expect.objectContaining({
        laneId: lane,
        asked: "My radius was on the sheet as 5.",
        studentName: "Ottilie Brandvold",
      }),
    ]);
    expect((await answer(student, "I say yes")).status).toBe(403);
    expect((await answer(instructor, "The sheet says diameter 10.")).status).toBe(204);
    expect((await answer(instructor, "Once more")).body.error.code).toBe("noLookAsked");
    expect(await waiting()).toEqual([]);
    expect((await ruling(student)).looks).toMatchObject([
      { asked: "My radius was on the sheet as 5.", answer: "The sheet says diameter 10.", by: "Corin Marrowfield" },
    ]);
    const { assignments } = (await student.call<MyLanes>("GET", "/lanes")).body;
    const told = assignments.flatMap(({ attempts }) => attempts).filter(({ isAnswered }) => isAnswered);
    expect(told.map(({ id }) => id)).toEqual([lane]);
    // and once more, about the same lane
    expect((await ask(student, "Thank you, and the Y?")).status).toBe(201);
    expect((await ruling(instructor)).looks.map((one) => one.answer)).toEqual(["The sheet says diameter 10.", null]);
  });
  it("is nobody's to ask for but whose lane it is, and not before the hand-in", async () => {
    const other = await new TestClient(server).signIn("sorrel");
    expect((await ask(other, "Let me see")).status).toBe(404);
    expect((await ask(instructor, "Let me see")).status).toBe(403);
    const open = await other.startLane();
    expect((await other.call("POST", `/lanes/${open}/look`, { text: "too early" })).body.error.code).toBe(
      "notHandedIn",
    );
  });
});

describe("skills", () => {
  it("are read from the rulings, name what to practice, and the instructor sees the same", async () => {
    const mine = (await student.call<SkillsView>("GET", "/skills")).body;
    const tried = mine.skills.filter(({ shown }) => shown.length > 0);
    expect(tried.map(({ skill }) => skill)).toEqual(expect.arrayContaining(["safety", "sequence", "edge", "working"]));
    expect(mine.skills.filter(({ stand }) => stand === "untried").length).toBe(mine.skills.length - tried.length);
    const wrong = tried.filter(({ stand }) => stand === "notYet").map(({ skill }) => skill);
    expect(wrong.length).toBeGreaterThan(0);
    expect(wrong).toContain(mine.practice?.skill);
    const { students } = (await instructor.call<MarksView>("GET", "/marks")).body;
    const me = students.find(({ name }) => name === mine.studentName);
    expect((await instructor.call<SkillsView>("GET", `/students/${me?.id}/skills`)).body).toEqual(mine);
    const { practice } = await ruling(student);
    expect(
      (await student.call<{ id: string }>("POST", `/assignments/${practice?.assignmentId}/lanes`, {})).status,
    ).toBe(201);
  });
});
