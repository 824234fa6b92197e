import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { ClassView, RosterPreview, JoinReply } from "@probe-lane/contract";
import { TestClient, testServer, type TestServer } from "./testServer";

let server: TestServer;
let instructor: TestClient;
beforeAll(async () => {
  server = await testServer();
  instructor = await new TestClient(server).signIn("marrow");
});
afterAll(() => server.close());

const view = async (): Promise<ClassView> => (await instructor.call<ClassView>("GET", "/class")).body;
const join = (change: Partial<Record<"code" | "login" | "name" | "password", string>> = {}) =>
  view().then(({ joinCode }) =>
    new TestClient(server).call("POST", "/session/join", {
      code: joinCode,
      login: "wren",
      name: "Tilda Wrenhollow",
      password: "a long one",
      ...change,
    }),
  );

const typed = (text: string) => ({ list: { kind: "typed", text } });

const codeOf = async (name: string): Promise<string> =>
  (await view()).students.find(({ login }) => login === name)?.ownCode ?? "";

describe("a class and its code", () => {
  it("a preview changes nothing, a roster with a bad line adds nobody, a good one adds the new ones", async () => {
    const before = (await view()).students.length;
    const csv = "login,name\nlarkin,Maud Larkinfield\nsorrel,Nessa Sorrelby\n";
    const { body } = await instructor.call<RosterPreview>("POST", "/class/roster/preview", typed(csv));
    expect(body.lines.map(({ status }) => status)).toEqual(["new", "already"]);
    expect((await view()).students.length).toBe(before);
    const refused = await instructor.call("POST", "/class/roster", typed(`${csv}b d,Broken\n`));
    expect([refused.status, refused.body.error.code]).toEqual([422, "rosterUnreadable"]);
    expect((await view()).students.length).toBe(before);
    expect((await instructor.call("POST", "/class/roster", typed(csv))).body).toEqual({ added: 1, numbered: 0 });
    expect((await view()).students.find(({ login }) => login === "larkin")).toMatchObject({
      name: "Maud Larkinfield",
      hasJoined: false,
      lanes: 0,
    });
    expect(
      (
        await new TestClient(server).call("POST", "/session", {
          login: "larkin",
          password: "no account has this password",
        })
      ).status,
    ).toBe(401);
  });
  it("a list of more students than a class has adds nobody; teachers of a long list are not counted", async () => {
    const list = (role: (at: number) => string) =>
      typed(
        `login,name,role\n${Array.from({ length: 221 }, (_, at) => `s${at},Student Number${at},${role(at)}`).join("\n")}`,
      );
    const read = async (body: object) =>
      (await instructor.call<RosterPreview>("POST", "/class/roster/preview", body)).body;
    expect(await read(list(() => "student"))).toMatchObject({
      problem: "A class has at most 200 students: split the list.",
      lines: [],
    });
    const mixed = await read(list((at) => (at % 10 === 0 ? "teacher" : "student")));
    expect(mixed.problem).toBeNull();
    expect(mixed.lines.filter(({ status }) => status === "new")).toHaveLength(198);
  });
  it("a student of the roster joins once, by a code of their own; nobody takes that place with the class code", async () => {
    // who knows the class code and a name of the roster is not that person
    expect((await join({ login: "larkin" })).body.error.code).toBe("ownCodeWanted");
    const ownCode = await codeOf("larkin");
    expect(ownCode).toMatch(/^[A-Z0-9]{8}$/);
    expect((await join({ code: ownCode, login: "larkins" })).body.error.code).toBe("ownCodeElsewhere");
    expect((await join({ code: ownCode, login: "larkin", password: "short" })).body.error.code).toBe("passwordWeak");
    const student = new TestClient(server);
    const taken = await student.call<JoinReply>("POST", "/session/join", {
      code: ` ${ownCode.slice(0, 4).toLowerCase()} ${ownCode.slice(4)}`,
      login: "Larkin",
      name: "ignored for the roster",
      password: "bench and vise",
    });
    expect([taken.status, taken.body.did]).toEqual([201, "tookPlace"]);
    // it worked once
    expect((await view()).students.find(({ login }) => login === "larkin")).toMatchObject({
      hasJoined: true,
      ownCode: null,
    });
    expect((await join({ code: ownCode, login: "larkin" })).body.error.code).toBe("joinRefused");
    expect((await student.view(await student.startLane())).lane.studentName).toBe("Maud Larkinfield");
    expect((await join({ login: "larkin" })).body.error.code).toBe("loginTaken");
    expect((await join({ login: "marrow" })).body.error.code).toBe("loginTaken");
    expect((await new TestClient(server).signIn("larkin", "bench and vise")).server).toBe(server);
  });
  it("a new student joins by the code; a wrong code, a short password and an old code are refused", async () => {
    expect((await join({ code: "WRONGONE" })).body.error.code).toBe("joinRefused");
    for (const password of ["short", "1234567890", "password123!", "Larkinfield1", "newcomer-2026"])
      expect((await join({ password, name: "Maud Larkinfield", login: "newcomer" })).body.error.code, password).toBe(
        "passwordWeak",
      );
    expect((await join({ name: "Maud L\u0430rkin" })).body.error.code).toBe("nameOdd");
    expect((await join({ name: "Maud \u202Enikral" })).body.error.code).toBe("nameOdd");
    expect(await join()).toMatchObject({ status: 201, body: { did: "madeNew" } });
    const { joinCode } = await view();
    expect((await instructor.call("POST", "/class/code", {})).status).toBe(204);
    expect((await view()).joinCode).not.toBe(joinCode);
    expect((await join({ code: joinCode ?? "", login: "late" })).body.error.code).toBe("joinRefused");
  });
  it("a reset signs a student out and lets them join again by a code of their own; lanes stay", async () => {
    const student = await new TestClient(server).signIn("okonjo");
    const lane = await student.startLane(1);
    const id = (await view()).students.find(({ login }) => login === "okonjo")?.id ?? "";
    expect((await instructor.call("POST", `/class/students/${id}/reset`, {})).status).toBe(204);
    expect(
      (await new TestClient(server).call("POST", "/session", { login: "okonjo", password: "fernhollow" })).status,
    ).toBe(401);
    expect((await join({ login: "okonjo" })).body.error.code).toBe("ownCodeWanted");
    // a code that went astray is replaced
    const astray = await codeOf("okonjo");
    expect((await instructor.call("POST", `/class/students/${id}/reset`, {})).status).toBe(204);
    expect((await join({ code: astray, login: "okonjo" })).body.error.code).toBe("joinRefused");
    const again = new TestClient(server);
    expect(
      (
        await again.call("POST", "/session/join", {
          code: await codeOf("okonjo"),
          login: "okonjo",
          name: "Theodric",
          password: "another one",
        })
      ).status,
    ).toBe(201);
    expect((await again.view(lane)).lane.studentName).toBe("Theodric Okonjo-Vale");
  });
  it("made sign-in names take nobody's, a number is given to who is there, and a choice of columns is remembered", async () => {
    const preview = async (text: string, more: object = {}) =>
      (await instructor.call<RosterPreview>("POST", "/class/roster/preview", { ...typed(text), ...more })).body;
    const text = "Pupil;Nr\nThornquist, Ivo;81\nThornquist, Ivo;82\nSorrelby, Nessa;83\n";
    // nobody could know what these hold
    const asked = await preview(text);
    expect(asked).toMatchObject({ problem: "Say which column holds the name.", lines: [] });
    expect(asked.headings).toEqual(["A: Pupil", "B: Nr"]);
    const columns = { name: 0, number: 1 };
    const read = await preview(text, { columns, hasHeadings: true });
    expect(read.lines.map(({ login, number, status }) => [login, number, status])).toEqual([
      ["ivo.thornquist", "81", "new"],
      ["ivo.thornquist2", "82", "new"],
      ["nessa.sorrelby", "83", "new"],
    ]);
    const request = { ...typed(text), columns, hasHeadings: true };
    expect((await instructor.call("POST", "/class/roster", request)).body).toEqual({ added: 3, numbered: 0 });
    // the same list a week later, with another number: everybody is there, and one gets it
    const again = await preview(text.replace("83", "84"), { hasHeadings: true });
    expect(again).toMatchObject({ isRemembered: true, columns, problem: null });
    expect(again.lines.map(({ login, status }) => [login, status])).toEqual([
      ["ivo.thornquist", "already"],
      ["ivo.thornquist2", "already"],
      ["nessa.sorrelby", "numbered"],
    ]);
    const renumbered = { ...typed(text.replace("83", "84")), hasHeadings: true };
    expect((await instructor.call("POST", "/class/roster", renumbered)).body).toEqual({ added: 0, numbered: 1 });
    expect((await view()).students.find(({ login }) => login === "nessa.sorrelby")?.number).toBe("84");
    // a made name that somebody else has: the instructor's own, of this or another school
    await instructor.call("POST", "/class/roster", typed("login,name\nada.brook,Ada Fernbrook\n"));
    expect((await preview("Name\nAda Brook\n")).lines[0]).toMatchObject({ login: "ada.brook2", status: "new" });
    // no number of another school's people is changed by a list that knows their sign-in name
    expect((await preview("login,name,number\nmarrow,Elspeth Marrowdale,7\n")).lines[0]?.status).toBe("already");
  });
  it("a file as large as a class needs is taken, and what is no list is said", async () => {
    const many = `login,name,remark\n${Array.from({ length: 150 }, (_, i) => `many${i},Student Number${i},${"x".repeat(900)}`).join("\n")}`;
    const file = (bytes: Buffer) => ({ list: { kind: "file", base64: bytes.toString("base64") } });
    const large = await instructor.call<RosterPreview>("POST", "/class/roster/preview", file(Buffer.from(many)));
    expect(large.body.lines).toHaveLength(150);
    const crowd = `login,name\n${Array.from({ length: 201 }, (_, i) => `c${i},Crowd Member${i}`).join("\n")}`;
    expect((await instructor.call<RosterPreview>("POST", "/class/roster/preview", typed(crowd))).body).toMatchObject({
      lines: [],
      problem: "A class has at most 200 students: split the list.",
    });
    expect(
      (await instructor.call<RosterPreview>("POST", "/class/roster/preview", typed("login,name"))).body.problem,
    ).toBe("There is nobody below the first line.");
    expect((await instructor.call("POST", "/class/roster", typed("login,name"))).body.error.code).toBe(
      "rosterUnreadable",
    );
    expect((await instructor.call<RosterPreview>("POST", "/class/roster/preview", typed(" \n \n"))).body.problem).toBe(
      "There is nothing in that list.",
    );
  });
  it("none of it is a student's", async () => {
    const student = await new TestClient(server).signIn("sorrel");
    for (const [method, path] of [
      ["GET", "/class"],
      ["POST", "/class/code"],
      ["POST", "/class/roster/preview"],
      ["POST", "/class/roster"],
      ["POST", "/class/students/00000000-0000-4000-8000-000000000000/reset"],
    ] as const) {
      expect(
        (await student.call(method, path, method === "POST" ? typed("login,name\nx1,Xx") : undefined)).status,
      ).toBe(403);
      expect(
        (await new TestClient(server).call(method, path, method === "POST" ? { csv: "x" } : undefined)).status,
      ).toBe(401);
    }
  });
});
