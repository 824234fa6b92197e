import type { ClassView, LaneView, MarksView, Me, MyLanes, WallView, JoinReply } from "@probe-lane/contract";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { TestClient, testServer, type TestServer } from "./testServer";

let server: TestServer;
let marrow: TestClient;
beforeAll(async () => {
  server = await testServer();
  marrow = await new TestClient(server).signIn("marrow");
});
afterAll(() => server.close());

const me = async (client: TestClient): Promise<Me> => (await client.call<Me>("GET", "/session")).body;
const view = async (client: TestClient): Promise<ClassView> => (await client.call<ClassView>("GET", "/class")).body;
const enter = (client: TestClient, classId: string) => client.call("POST", "/session/class", { classId });
const invite = async (role: string): Promise<string> =>
  (await marrow.call<{ code: string }>("POST", "/class/invitations", { role })).body.code;
const join = async (code: string, login: string, name: string): Promise<[TestClient, number, string]> => {
  const client = new TestClient(server);
  const reply = await client.call("POST", "/session/join", { code, login, name, password: "edge finder and dial" });
  return [client, reply.status, reply.status < 400 ? "" : reply.body.error.code];
};
const first = async (client: TestClient): Promise<Me["classes"][number]> => {
  const { classes } = await me(client);
  const held = classes.find(({ name }) => name === "Tuesday Evening Setup");
  if (!held) throw new Error("not in the demo class");
  return held;
};

/** What a click on a lane is answered with: an error's code, or nothing. */
async function goesOn(client: TestClient, lane: string): Promise<string> {
  const { turn } = (await client.call<LaneView>("GET", `/lanes/${lane}`)).body;
  const commands = [{ clientSeq: 1, command: { type: "home" } }];
  const reply = await client.call("POST", `/lanes/${lane}/commands`, {
    writer: crypto.randomUUID(),
    afterTurn: turn,
    commands,
  });
  return reply.status === 200 ? "" : reply.body.error.code;
}

describe("classes of one instructor", () => {
  let second = "";
  it("are made with the shelf or the plan of the open one, without its days, and nobody of it", async () => {
    const plan = (await (await new TestClient(server).signIn("okonjo")).call<MyLanes>("GET", "/lanes")).body
      .assignments;
    expect(plan.some(({ dueAt }) => dueAt !== null)).toBe(true);
    const made = await marrow.call<{ id: string }>("POST", "/classes", {
      name: "Friday Morning Setup",
      term: "Spring 2027",
      copiesPlan: true,
    });
    expect(made.status).toBe(201);
    second = made.body.id;
    // made, and not entered: a page that is open elsewhere goes on as it was
    expect((await me(marrow)).className).toBe("Tuesday Evening Setup");
    expect((await enter(marrow, second)).status).toBe(200);
    expect(await me(marrow)).toMatchObject({ role: "instructor", className: "Friday Morning Setup", classId: second });
    const open = await view(marrow);
    expect(open).toMatchObject({ term: "Spring 2027", students: [], isArchived: false });
    expect(open.staff.map(({ login, role, isMe }) => [login, role, isMe])).toEqual([["marrow", "instructor", true]]);
    const [student] = await join(open.joinCode ?? "", "fennwright", "Nell Fennwright");
    const theirs = (await student.call<MyLanes>("GET", "/lanes")).body.assignments;
    expect(theirs.map(({ title, isCoachOn, attemptsAllowed }) => [title, isCoachOn, attemptsAllowed])).toEqual(
      plan.map(({ title, isCoachOn, attemptsAllowed }) => [title, isCoachOn, attemptsAllowed]),
    );
    expect(theirs.every(({ dueAt }) => dueAt === null)).toBe(true);
  });

  it("are closed to one another: wall, marks and lanes are those of the class that is open", async () => {
    const student = await new TestClient(server).signIn("fennwright", "edge finder and dial");
    const lane = await student.startLane();
    expect((await marrow.call("GET", `/lanes/${lane}`)).status).toBe(200);
    const wall = (await marrow.call<WallView>("GET", "/wall")).body;
    expect(wall.rows.map(({ studentName }) => studentName)).toEqual(["Nell Fennwright"]);
    await enter(marrow, (await first(marrow)).id);
    expect((await marrow.call("GET", `/lanes/${lane}`)).status).toBe(404);
    expect((await marrow.call("POST", `/lanes/${lane}/hand`)).status).toBe(404);
    const marks = (await marrow.call<MarksView>("GET", "/marks")).body;
    expect(marks.students.map(({ name }) => name)).not.toContain("Nell Fennwright");
    // an instructor of another class of the school has nothing to do with it, and cannot enter it
    const code = await invite("instructor");
    const [other] = await join(code, "tessaly", "Oona Tessaly");
    expect((await enter(other, second)).status).toBe(404);
    expect((await other.call("GET", `/lanes/${lane}`)).status).toBe(404);
  });

  it("an archived one is read, and nothing new begins in it", async () => {
    await enter(marrow, second);
    const { joinCode } = await view(marrow);
    const change = { name: "Friday Morning", term: "Spring 2027", isArchived: true };
    expect((await marrow.call("PUT", "/class", change)).status).toBe(204);
    const student = await new TestClient(server).signIn("fennwright", "edge finder and dial");
    const { assignments } = (await student.call<MyLanes>("GET", "/lanes")).body;
    expect((await student.call("GET", `/lanes/${assignments[0]?.attempts[0]?.id ?? ""}`)).status).toBe(200);
    // what was open stands still, and is seen as it stood
    expect(assignments.every(({ closed }) => closed === "archived")).toBe(true);
    expect(await goesOn(student, assignments[0]?.attempts[0]?.id ?? "")).toBe("classArchived");
    const begun = await student.call("POST", `/assignments/${assignments[2]?.id ?? ""}/lanes`);
    expect([begun.status, begun.body.error.code]).toEqual([409, "classArchived"]);
    expect((await join(joinCode ?? "", "latecomer", "Lou Latecomer"))[2]).toBe("joinRefused");
    // of several, the one that is not archived opens at the next sign-in
    expect((await me(await new TestClient(server).signIn("marrow"))).className).toBe("Tuesday Evening Setup");
    expect((await me(marrow)).classes.map(({ name, isArchived }) => [name, isArchived])).toEqual([
      ["Tuesday Evening Setup", false],
      ["Friday Morning", true],
    ]);
    await enter(marrow, (await first(marrow)).id);
  });

  it("the one that was open last opens at the next sign-in", async () => {
    const third = (
      await marrow.call<{ id: string }>("POST", "/classes", { name: "Third", term: "", copiesPlan: false })
    ).body.id;
    await enter(marrow, third);
    expect((await me(await new TestClient(server).signIn("marrow"))).classId).toBe(third);
    await enter(marrow, (await first(marrow)).id);
    expect((await me(await new TestClient(server).signIn("marrow"))).className).toBe("Tuesday Evening Setup");
  });
});

describe("who teaches and helps", () => {
  it("is invited by a code that works once, for whoever is new and for whoever has an account", async () => {
    const code = await invite("assistant");
    expect((await view(marrow)).invitations).toContainEqual({ code, role: "assistant" });
    const both = await Promise.all([join(code, "helpwell", "Iven Helpwell"), join(code, "quick", "Ada Quick")]);
    expect(both.map(([, status]) => status).sort()).toEqual([201, 403]);
    expect((await view(marrow)).invitations).toEqual([]);
    const helps = both.find(([, status]) => status === 201)?.[0] ?? marrow;
    expect(await me(helps)).toMatchObject({ role: "assistant", className: "Tuesday Evening Setup" });
    // made more, by another code; what the session is, it is until the class is opened again
    const more = await invite("instructor");
    expect((await helps.call("POST", "/session/classes", { code: more })).status).toBe(201);
    expect((await helps.call("GET", "/marks")).status).toBe(403);
    await enter(helps, (await first(helps)).id);
    expect((await helps.call("GET", "/marks")).status).toBe(200);
    // one that nobody used is taken back
    const unused = await invite("assistant");
    expect((await marrow.call("DELETE", `/class/invitations/${unused}`)).status).toBe(204);
    expect((await join(unused, "nobody", "Nobody Yet"))[2]).toBe("joinRefused");
  });

  it("a student is not made one of the staff by a code, nor a member twice", async () => {
    const student = await new TestClient(server).signIn("sorrel");
    const reply = await student.call("POST", "/session/classes", { code: await invite("instructor") });
    expect([reply.status, reply.body.error.code]).toEqual([409, "inClassAlready"]);
    // and no invitation makes an instructor less: a class keeps one
    const less = await marrow.call("POST", "/session/classes", { code: await invite("assistant") });
    expect([less.status, less.body.error.code]).toEqual([409, "inClassAlready"]);
    const { joinCode } = await view(marrow);
    expect((await marrow.call("POST", "/session/classes", { code: joinCode })).body.error.code).toBe("inClassAlready");
  });

  it("an assistant checks at the machine, signs nothing and sees no marks", async () => {
    const [helps] = await join(await invite("assistant"), "feelwell", "Uma Feelwell");
    const { exercises } = (
      await helps.call<{ exercises: { lanes: { id: string; total: number | null }[] }[] }>("GET", "/floor")
    ).body;
    const lanes = exercises.flatMap((one) => one.lanes);
    expect(lanes.length).toBeGreaterThan(0);
    expect(lanes.every(({ total }) => total === null)).toBe(true);
    const lane = lanes[0]?.id ?? "";
    const held = (await helps.call<{ mayMark: boolean; ruling: unknown }>("GET", `/floor/lanes/${lane}`)).body;
    expect(held).toMatchObject({ mayMark: false, ruling: null });
    const entered = (entry: object, n: number) =>
      helps.call("POST", `/floor/lanes/${lane}/entries`, {
        entries: [{ id: `00000000-0000-4000-8000-0000000000${n}`, atMs: 1, entry }],
      });
    expect(
      (await entered({ type: "check", register: "G54.x", method: "edge finder", mm: -329.667, uMm: 0.004 }, 11)).status,
    ).toBe(204);
    expect((await entered({ type: "signedOff", saw: [] }, 12)).status).toBe(403);
    expect((await entered({ type: "overridden", marks: 100, reason: "asked nicely" }, 13)).status).toBe(403);
    expect((await entered({ type: "sentBack", word: "not yet" }, 14)).status).toBe(403);
    expect((await entered({ type: "struck", entry: "00000000-0000-4000-8000-000000000011" }, 15)).status).toBe(204);
    const wall = (await helps.call<WallView>("GET", "/wall")).body;
    expect(wall.rows.length).toBeGreaterThan(0);
    expect(wall.rows.every(({ total }) => total === null)).toBe(true);
  });

  it("is taken off, at once and everywhere, but for the last instructor", async () => {
    const [other] = await join(await invite("instructor"), "offgone", "Rhea Offgone");
    const { id } = await me(other);
    expect((await marrow.call("DELETE", `/class/staff/${id}`)).status).toBe(204);
    expect((await other.call("GET", "/marks")).status).toBe(401);
    expect(
      (await new TestClient(server).call("POST", "/session", { login: "offgone", password: "edge finder and dial" }))
        .status,
    ).toBe(401);
    // and comes back by another invitation, with the account that is there
    const [back, status] = await join(await invite("assistant"), "offgone", "Rhea Offgone");
    expect([status, (await me(back)).role, (await me(back)).id]).toEqual([201, "assistant", id]);
    await enter(marrow, (await me(marrow)).classes.find(({ name }) => name === "Third")?.id ?? "");
    const alone = await marrow.call("DELETE", `/class/staff/${(await me(marrow)).id}`);
    expect([alone.status, alone.body.error.code]).toEqual([409, "lastInstructor"]);
    await enter(marrow, (await first(marrow)).id);
  });

  it("nobody who teaches elsewhere is let in anew by the class in which they learn", async () => {
    const third = (await me(marrow)).classes.find(({ name }) => name === "Third")?.id ?? "";
    await enter(marrow, third);
    const [other] = await join(await invite("instructor"), "bothways", "Ines Bothways");
    await enter(marrow, (await first(marrow)).id);
    const { joinCode } = await view(marrow);
    expect((await other.call("POST", "/session/classes", { code: joinCode })).status).toBe(201);
    const { id } = await me(other);
    expect((await view(marrow)).students.map(({ login }) => login)).toContain("bothways");
    expect((await marrow.call("POST", `/class/students/${id}/reset`)).status).toBe(404);
    expect((await me(other)).role).toBe("instructor");
  });
});

describe("a student of the class", () => {
  it("is renamed; a name with hidden signs is refused", async () => {
    const { joinCode } = await view(marrow);
    const [student] = await join(joinCode ?? "", "renamed", "Ola Tpyo");
    const { id } = await me(student);
    expect((await marrow.call("PUT", `/class/students/${id}`, { name: "Ola Typo" })).status).toBe(204);
    expect((await me(student)).name).toBe("Ola Typo");
    expect((await marrow.call("PUT", `/class/students/${id}`, { name: "Ola\u200bTypo" })).status).toBe(422);
  });

  it("taken off one class while in another: the lane of the first is read there, and not gone on with", async () => {
    const { joinCode } = await view(marrow);
    const { id: here } = await first(marrow);
    const [student] = await join(joinCode ?? "", "twice", "Ada Twice");
    const { id } = await me(student);
    const lane = await student.startLane();
    expect(await goesOn(student, lane)).toBe("");
    const made = await marrow.call<{ id: string }>("POST", "/classes", { name: "Other", term: "", copiesPlan: true });
    await enter(marrow, made.body.id);
    const { joinCode: other } = await view(marrow);
    expect((await student.call("POST", "/session/classes", { code: other })).status).toBe(201);
    await enter(student, made.body.id);
    // in both classes: from either of them
    expect(await goesOn(student, lane)).toBe("");
    await enter(marrow, here);
    expect((await marrow.call("DELETE", `/class/students/${id}?lanes=keep`)).status).toBe(204);
    const again = await new TestClient(server).signIn("twice", "edge finder and dial");
    expect((await me(again)).className).toBe("Other");
    expect((await again.call("GET", `/lanes/${lane}`)).status).toBe(200);
    expect(await goesOn(again, lane)).toBe("notInClass");
  });
  it("is taken off with what they did kept under removed, and comes back by the class code; or all of it goes", async () => {
    const { joinCode } = await view(marrow);
    const [student] = await join(joinCode ?? "", "goes", "Per Goes");
    const { id } = await me(student);
    await student.startLane();
    const inMarks = async () =>
      (await marrow.call<MarksView>("GET", "/marks")).body.students.find((one) => one.id === id)?.isRemoved;
    const onWall = async () =>
      (await marrow.call<WallView>("GET", "/wall")).body.rows.some(({ studentName }) => studentName === "Per Goes");
    expect([await inMarks(), await onWall()]).toEqual([false, true]);
    expect((await marrow.call("DELETE", `/class/students/${id}`)).status).toBe(400);
    expect((await marrow.call("DELETE", `/class/students/${id}?lanes=keep`)).status).toBe(204);
    expect((await student.call("GET", "/lanes")).status).toBe(401);
    expect([await inMarks(), await onWall()]).toEqual([true, false]);
    expect((await view(marrow)).students.map(({ login }) => login)).not.toContain("goes");
    const lanes = async () =>
      (await server.pool.query<{ n: number }>("select count(*)::int n from attempts")).rows[0]?.n ?? 0;
    const before = await lanes();
    const others = (await view(marrow)).students.length + 1;
    // whoever knows its password comes back into it with the code of the class; nobody else does
    const guess = { code: joinCode, login: "goes", name: "Per Goes", password: "edge finder and disk" };
    expect((await new TestClient(server).call("POST", "/session/join", guess)).body.error.code).toBe("loginTaken");
    const back = new TestClient(server);
    const came = await back.call<JoinReply>("POST", "/session/join", { ...guess, password: "edge finder and dial" });
    expect([came.status, came.body.did]).toEqual([201, "cameBack"]);
    expect([(await me(back)).id, await inMarks(), await onWall()]).toEqual([id, false, true]);
    expect((await join(joinCode ?? "", "goes", "Per Goes"))[2]).toBe("loginTaken");
    const [again] = await join(joinCode ?? "", "comes", "Ida Comes");
    await again.startLane();
    const { id: second } = await me(again);
    expect((await marrow.call("DELETE", `/class/students/${second}?lanes=delete`)).status).toBe(204);
    expect(await lanes()).toBe(before);
    expect((await view(marrow)).students).toHaveLength(others);
    expect((await server.pool.query("select 1 from users where login = 'comes'")).rowCount).toBe(0);
  });
});

describe("two accounts of one person", () => {
  it("become one: lanes go behind those that stand there, the other account is gone, and nothing of others moves", async () => {
    const other = new TestClient(server);
    const { joinCode } = await view(marrow);
    const twin = (await join(joinCode ?? "", "sorrel2", "Nessa S."))[0];
    const sorrel = await new TestClient(server).signIn("sorrel");
    const idOf = async (login: string) => (await view(marrow)).students.find((one) => one.login === login)?.id ?? "";
    const [kept, gone] = [await idOf("sorrel"), await idOf("sorrel2")];
    const [theirs, own] = [await twin.startLane(), await sorrel.startLane()];
    expect(await goesOn(twin, theirs)).toBe("");
    const machine = "(select id from floor_exercises limit 1)";
    await server.pool.query(
      `insert into floor_lanes (exercise_id, student_id) select ${machine}, one from unnest($1::uuid[]) one`,
      [[kept, gone]],
    );
    const others = (await view(marrow)).students.filter(({ id }) => id !== kept && id !== gone);
    const merge = (from: string, into: string) => marrow.call("POST", `/class/students/${from}/merge`, { into });
    // nobody goes into themselves, and nothing is an account that is none of the class's
    expect((await merge(gone, gone)).status).toBe(400);
    expect((await merge(gone, (await me(marrow)).id)).status).toBe(404);
    expect((await merge(gone, kept)).status).toBe(204);
    expect((await twin.call("GET", "/session")).status).toBe(401);
    expect((await other.call("POST", "/session", { login: "sorrel2", password: "edge finder and dial" })).status).toBe(
      401,
    );
    const { rows: setups } = await server.pool.query<{ number: number }>(
      `select number from floor_lanes where exercise_id = ${machine} and student_id = $1 order by number`,
      [kept],
    );
    expect(setups.map(({ number }) => number)).toEqual([1, 2]);
    const { body } = await sorrel.call<LaneView>("GET", `/lanes/${theirs}`);
    expect(body).toMatchObject({ isMine: true, lane: { attempt: 2, studentName: "Nessa Sorrelby" } });
    expect((await sorrel.call<LaneView>("GET", `/lanes/${own}`)).body.lane.attempt).toBe(1);
    // it is gone on with, though this process has had it in hand as somebody else's
    expect(await goesOn(sorrel, theirs)).toBe("");
    const after = (await view(marrow)).students;
    expect(after.map(({ login }) => login)).not.toContain("sorrel2");
    expect(after.filter(({ id }) => id !== kept)).toEqual(others);
    expect(after.find(({ id }) => id === kept)?.lanes).toBeGreaterThanOrEqual(2);
  });

  it("an account that is used where its instructor does not teach stays; a place of the roster gives its number", async () => {
    const { joinCode } = await view(marrow);
    const [colleague] = await join(await invite("instructor"), "colleague", "Ada Tansley");
    const made = await colleague.call<{ id: string }>("POST", "/classes", {
      name: "Thursday",
      term: "",
      copiesPlan: false,
    });
    await enter(colleague, made.body.id);
    const [stray] = await join(joinCode ?? "", "stray", "Juniper Stray");
    await stray.call("POST", "/session/classes", { code: (await view(colleague)).joinCode });
    const list = { list: { kind: "typed", text: "login,name,number\njuniper,Juniper Strayfield,4712\n" } };
    await marrow.call("POST", "/class/roster", list);
    const found = async (login: string) => (await view(marrow)).students.find((one) => one.login === login);
    const [place, joined] = [(await found("juniper"))?.id ?? "", (await found("stray"))?.id ?? ""];
    const refused = await marrow.call("POST", `/class/students/${joined}/merge`, { into: place });
    expect([refused.status, refused.body.error.code]).toEqual([409, "accountElsewhere"]);
    expect((await found("stray"))?.id).toBe(joined);
    expect((await marrow.call("POST", `/class/students/${place}/merge`, { into: joined })).status).toBe(204);
    expect(await found("juniper")).toBeUndefined();
    expect(await found("stray")).toMatchObject({ number: "4712", hasJoined: true });
    expect((await me(stray)).classes).toHaveLength(2);
  });
});
