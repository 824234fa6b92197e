import type { ClassView, Me, MyLanes } from "@probe-lane/contract";
import { sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { demoExercises } from "../../../demo";
import { firstStore } from "../areas/first/store";
import { openDatabase } from "../db/client";
import { demoToDrop, hasDemo, loadDemo } from "../demoData";
import { TestClient, testServer, type TestServer } from "./testServer";

const CODE = "ACDE3479";
const form = {
  code: CODE,
  schoolName: "Hollowbrook Workshop School",
  className: "First Year",
  login: "thistlewood",
  name: "Ada Thistlewood",
  password: "granite and blue dye",
};

describe("an empty school", () => {
  let server: TestServer;
  let other: TestServer;
  beforeAll(async () => {
    server = await testServer({ firstCode: CODE, hasDemo: false });
    other = await server.another();
  });
  afterAll(async () => {
    await other.close();
    await server.close();
  });
  const begin = (body: object, at = server) => new TestClient(at).call("POST", "/session/first", { ...form, ...body });

  it("asks for its first instructor, and takes nobody with another code, a weak password or an odd name", async () => {
    expect((await new TestClient(server).call("GET", "/session/first")).body).toEqual({ isOpen: true });
    for (const [body, status, code] of [
      [{ code: "ACDE3478" }, 403, "firstCodeWrong"],
      [{ code: "A" }, 403, "firstCodeWrong"],
      [{ password: "thistlewood1" }, 422, "passwordWeak"],
      [{ schoolName: "H\u200bollowbrook" }, 422, "nameOdd"],
      [{ className: " " }, 400, "badRequest"],
      [{ schoolName: "Fernhollow Instrument School" }, 422, "schoolOfDemo"],
      [{ role: "instructor" }, 400, "badRequest"],
    ] as const) {
      const reply = await begin(body);
      expect([reply.status, reply.body.error.code]).toEqual([status, code]);
    }
    expect(await firstStore(openDatabase(server.pool)).hasInstructor()).toBe(false);
  });

  it("takes one of two who are first at once, in whichever process, with a class and all exercises on its shelf", async () => {
    const both = await Promise.all([
      begin({ code: "acde 3479" }),
      begin({ login: "fernlow", name: "Bo Fernlow" }, other),
    ]);
    expect(both.map(({ status }) => status).sort()).toEqual([201, 409]);
    const isMine = both[0].status === 201;
    const me = new TestClient(isMine ? server : other);
    await me.signIn(isMine ? "thistlewood" : "fernlow", form.password);
    expect((await me.call<Me>("GET", "/session")).body).toMatchObject({
      role: "instructor",
      className: "First Year",
      schoolName: "Hollowbrook Workshop School",
    });
    const held = (await me.call<ClassView>("GET", "/class")).body;
    expect(held).toMatchObject({ className: "First Year", students: [] });
    expect(held.joinCode).toMatch(/^[A-Z0-9]{8}$/);
    // asked once: neither process takes another
    for (const at of [server, other]) {
      const again = await begin({ login: "late", name: "Lou Late" }, at);
      expect([again.status, again.body.error.code]).toEqual([409, "firstIsThere"]);
    }
    const student = new TestClient(server);
    const joined = await student.call("POST", "/session/join", {
      code: held.joinCode,
      login: "marlpit",
      name: "Edda Marlpit",
      password: "parallels and jaws",
    });
    expect(joined.status).toBe(201);
    const lanes = (await student.call<MyLanes>("GET", "/lanes")).body;
    expect(lanes.assignments).toHaveLength(demoExercises.length);
    expect(lanes.assignments.every(({ dueAt }) => dueAt === null)).toBe(true);
  });

  it("has the demo beside it where that is asked for, and loses nothing when the demo is made anew", async () => {
    const db = openDatabase(server.pool);
    expect(await demoToDrop(db)).toBeNull();
    await loadDemo(db, { reset: false, now: new Date() });
    expect(await hasDemo(db)).toBe(true);
    const [marlpit, marrow] = [new TestClient(server), new TestClient(server)];
    await marlpit.signIn("marlpit", "parallels and jaws");
    await marrow.signIn("marrow");
    // the demo is used: its class renamed, a second one made, somebody of the school invited into it
    const invited = await marrow.call<{ code: string }>("POST", "/class/invitations", { role: "instructor" });
    const thistle = new TestClient(server);
    const { rows } = await db.execute<{ login: string }>(
      sql`select login from users where login in ('thistlewood', 'fernlow')`,
    );
    await thistle.signIn(rows[0]?.login ?? "", form.password);
    expect((await thistle.call("POST", "/session/classes", { code: invited.body.code })).status).toBe(201);
    await marrow.call("PUT", "/class", { name: "Renamed", term: "", isArchived: false });
    await marrow.call("POST", "/classes", { name: "Second", term: "", copiesPlan: true });
    expect(await hasDemo(db)).toBe(true);
    await loadDemo(db, { reset: false, now: new Date() });
    expect(await demoToDrop(db)).toMatch(
      /^The demo, “Fernhollow Instrument School”, is dropped and made anew: 2 classes, 13 people, \d+ lanes\. Nothing else/,
    );
    await loadDemo(db, { reset: true, now: new Date() });
    expect((await thistle.call<Me>("GET", "/session")).body).toMatchObject({ className: "First Year" });
    expect((await thistle.call<Me>("GET", "/session")).body.classes).toHaveLength(1);
    expect(await demoToDrop(db)).toContain("1 class, 13 people");
    // who was in the demo has to sign in again; the school goes on
    expect((await marrow.at(other).call("GET", "/session")).status).toBe(401);
    expect((await marlpit.at(other).call("GET", "/session")).status).toBe(200);
    expect((await marlpit.call<MyLanes>("GET", "/lanes")).body.assignments).toHaveLength(demoExercises.length);
  });
});

describe("a school that has an instructor, or only the demo", () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await testServer();
  });
  afterAll(() => server.close());
  it("asks for nobody: no code opens it", async () => {
    const client = new TestClient(server);
    expect((await client.call("GET", "/session/first")).body).toEqual({ isOpen: false });
    for (const code of ["", CODE]) {
      const reply = await client.call("POST", "/session/first", { ...form, code });
      expect([400, 409]).toContain(reply.status);
    }
    expect(await firstStore(openDatabase(server.pool)).hasInstructor()).toBe(false);
  });
  it("only an instructor is told where it is found; here nobody else reaches it", async () => {
    const instructor = await new TestClient(server).signIn("marrow");
    expect((await instructor.call("GET", "/reach")).body).toEqual({
      isShared: false,
      addresses: [],
      fingerprint: null,
    });
    const student = await new TestClient(server).signIn("sorrel");
    expect((await student.call("GET", "/reach")).status).toBe(403);
    expect((await new TestClient(server).call("GET", "/reach")).status).toBe(401);
  });
});
