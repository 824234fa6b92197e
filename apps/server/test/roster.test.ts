import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { ClassView, RosterPreview } from "@probe-lane/contract";
import { readRoster } from "../areas/roster/readRoster";
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

const codeOf = async (name: string): Promise<string> =>
  (await view()).students.find(({ login }) => login === name)?.ownCode ?? "";

describe("reading a roster", () => {
  it("takes plain columns and OneRoster's, with quotes, a byte order mark and any case", () => {
    expect(readRoster('\uFEFFLogin,Name\nMaud.L,"Larkinfield, Maud"\n\n')).toEqual([
      { line: 2, login: "maud.l", name: "Larkinfield, Maud", problem: null },
    ]);
    expect(readRoster("sourcedId,username,givenName,familyName\n7,ivo,Ivo,Dunmarrow")).toMatchObject([
      { login: "ivo", name: "Ivo Dunmarrow", problem: null },
    ]);
  });
  it("names every bad line", () => {
    expect(
      readRoster("login,name\n,Nobody\na b,Space\nok,X\ntwin,One Name\ntwin,Other Name").map(({ line, problem }) => [
        line,
        problem,
      ]),
    ).toEqual([
      [2, "The sign-in name is missing."],
      [3, expect.stringContaining("“a b” is not a sign-in name")],
      [4, "The name is missing."],
      [5, null],
      [6, "The sign-in name stands in line 5 already."],
    ]);
    expect(readRoster("x,y\n1,2")[0]?.problem).toContain("must name the columns");
    expect(readRoster("login,name")[0]?.problem).toContain("nobody");
  });
});

describe("a class and its code", () => {
  it("a preview changes nothing, a roster with a bad line adds nobody, a good one adds the new ones", async () => {
    const before = (await view()).students.length;
    const csv = "login,name\nlarkin,Maud Larkinfield\nsorrel,Nessa Sorrelby\n";
    const { body } = await instructor.call<RosterPreview>("POST", "/class/roster/preview", { csv });
    expect(body.lines.map(({ status }) => status)).toEqual(["new", "already"]);
    expect((await view()).students.length).toBe(before);
    const refused = await instructor.call("POST", "/class/roster", { csv: `${csv}b d,Broken\n` });
    expect([refused.status, refused.body.error.code]).toEqual([422, "rosterUnreadable"]);
    expect((await view()).students.length).toBe(before);
    expect((await instructor.call("POST", "/class/roster", { csv })).body).toEqual({ added: 1 });
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
  it("a student of the roster joins once, by a code of their own; nobody takes that place with the class code", async () => {
    // who knows the class code and a name of the roster is not that person
    expect((await join({ login: "larkin" })).body.error.code).toBe("ownCodeWanted");
    const ownCode = await codeOf("larkin");
    expect(ownCode).toMatch(/^[A-Z0-9]{8}$/);
    expect((await join({ code: ownCode, login: "larkins" })).body.error.code).toBe("ownCodeElsewhere");
    expect((await join({ code: ownCode, login: "larkin", password: "short" })).body.error.code).toBe("passwordWeak");
    const student = new TestClient(server);
    expect(
      (
        await student.call("POST", "/session/join", {
          code: ` ${ownCode.slice(0, 4).toLowerCase()} ${ownCode.slice(4)}`,
          login: "Larkin",
          name: "ignored for the roster",
          password: "bench and vise",
        })
      ).status,
    ).toBe(201);
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
    expect((await join()).status).toBe(201);
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
        (await student.call(method, path, method === "POST" ? { csv: "login,name\nx1,Xx" } : undefined)).status,
      ).toBe(403);
      expect(
        (await new TestClient(server).call(method, path, method === "POST" ? { csv: "x" } : undefined)).status,
      ).toBe(401);
    }
  });
});
