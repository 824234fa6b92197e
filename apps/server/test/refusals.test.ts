import { existsSync, readdirSync, readFileSync } from "node:fs";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { errorStatus, errorWords } from "@probe-lane/contract";
import { openTab, secondSchool, TestClient, testServer, type TestServer } from "./testServer";

let server: TestServer;
let lane = "";
let assignment = "";
let foreign: Awaited<ReturnType<typeof secondSchool>>;
const clients: Record<"nobody" | "student" | "otherStudent" | "assistant" | "instructor", TestClient> = {} as never;
beforeAll(async () => {
  server = await testServer();
  clients.nobody = new TestClient(server);
  clients.student = await new TestClient(server).signIn("sorrel");
  clients.otherStudent = await new TestClient(server).signIn("okonjo");
  clients.instructor = await new TestClient(server).signIn("marrow");
  const invited = await clients.instructor.call<{ code: string }>("POST", "/class/invitations", { role: "assistant" });
  clients.assistant = new TestClient(server);
  const joined = { code: invited.body.code, login: "helpwell", name: "Iven Helpwell", password: "paper and a feeler" };
  await clients.assistant.call("POST", "/session/join", joined);
  lane = await clients.student.startLane();
  assignment =
    (await clients.student.call<{ assignments: { id: string }[] }>("GET", "/lanes")).body.assignments[0]?.id ?? "";
  foreign = await secondSchool(server, assignment);
});
afterAll(() => server.close());

const nowhere = "00000000-0000-4000-8000-000000000000";
const batch = {
  writer: "tab-of-the-matrix",
  afterTurn: 1,
  commands: [{ clientSeq: 1, command: { type: "lookFrom", side: "left" } }],
};

const marking = {
  tolerancesMm: { x: 0.02, y: 0.02, z: 0.03 },
  zeroAtMultiple: 4,
  weights: { values: 40, working: 15, method: 20, safety: 15, proving: 10 },
};

describe("every route, every role", () => {
  const routes: {
    name: string;
    method: string;
    path: () => string;
    body?: unknown;
    expected: Record<keyof typeof clients, number>;
  }[] = [
    {
      name: "session",
      method: "GET",
      path: () => "/session",
      expected: { nobody: 401, student: 200, otherStudent: 200, assistant: 200, instructor: 200 },
    },
    {
      name: "my lanes",
      method: "GET",
      path: () => "/lanes",
      expected: { nobody: 401, student: 200, otherStudent: 200, assistant: 403, instructor: 403 },
    },
    {
      name: "start a lane",
      method: "POST",
      path: () => `/assignments/${assignment}/lanes`,
      body: {},
      expected: { nobody: 401, student: 201, otherStudent: 201, assistant: 403, instructor: 403 },
    },
    {
      name: "start an unknown lane",
      method: "POST",
      path: () => `/assignments/${nowhere}/lanes`,
      body: {},
      expected: { nobody: 401, student: 404, otherStudent: 404, assistant: 403, instructor: 403 },
    },
    {
      name: "a lane",
      method: "GET",
      path: () => `/lanes/${lane}`,
      expected: { nobody: 401, student: 200, otherStudent: 404, assistant: 200, instructor: 200 },
    },
    {
      name: "an unknown lane",
      method: "GET",
      path: () => `/lanes/${nowhere}`,
      expected: { nobody: 401, student: 404, otherStudent: 404, assistant: 404, instructor: 404 },
    },
    {
      name: "no id at all",
      method: "GET",
      path: () => "/lanes/1;drop",
      expected: { nobody: 401, student: 404, otherStudent: 404, assistant: 404, instructor: 404 },
    },
    {
      name: "commands",
      method: "POST",
      path: () => `/lanes/${lane}/commands`,
      body: batch,
      expected: { nobody: 401, student: 200, otherStudent: 404, assistant: 403, instructor: 403 },
    },
    {
      name: "ruling before hand-in",
      method: "GET",
      path: () => `/lanes/${lane}/ruling`,
      expected: { nobody: 401, student: 409, otherStudent: 404, assistant: 403, instructor: 409 },
    },
    {
      name: "the part as it was cut",
      method: "GET",
      path: () => `/lanes/${lane}/part`,
      expected: { nobody: 401, student: 200, otherStudent: 404, assistant: 200, instructor: 200 },
    },
    {
      name: "replay before hand-in",
      method: "GET",
      path: () => `/lanes/${lane}/review`,
      expected: { nobody: 401, student: 409, otherStudent: 404, assistant: 200, instructor: 200 },
    },
    {
      name: "pin a note",
      method: "POST",
      path: () => `/lanes/${lane}/notes`,
      body: { seq: 1, text: "Seen." },
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 204, instructor: 204 },
    },
    {
      name: "pin a note to nothing",
      method: "POST",
      path: () => `/lanes/${lane}/notes`,
      body: { seq: 99_999, text: "Seen." },
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 422, instructor: 422 },
    },
    {
      name: "an empty note",
      method: "POST",
      path: () => `/lanes/${lane}/notes`,
      body: { seq: 1, text: "  " },
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 400, instructor: 400 },
    },
    {
      name: "take a note away that is not there",
      method: "DELETE",
      path: () => `/lanes/${lane}/notes/${nowhere}`,
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 404, instructor: 404 },
    },
    {
      name: "other marks before hand-in",
      method: "POST",
      path: () => `/lanes/${lane}/overrides`,
      body: { strand: "method", marks: 1, reason: "seen it" },
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 409 },
    },
    {
      name: "record",
      method: "GET",
      path: () => `/lanes/${lane}/record`,
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 200 },
    },
    {
      name: "answer a hand",
      method: "POST",
      path: () => `/lanes/${lane}/hand`,
      body: {},
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 204, instructor: 204 },
    },
    {
      name: "sign where nothing was asked",
      method: "POST",
      path: () => `/lanes/${lane}/signature`,
      body: { isGiven: true, word: "" },
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 409 },
    },
    {
      name: "wall",
      method: "GET",
      path: () => "/wall",
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 200, instructor: 200 },
    },
    {
      name: "wall stream",
      method: "GET",
      path: () => "/wall/stream",
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 200, instructor: 200 },
    },
    {
      name: "marks",
      method: "GET",
      path: () => "/marks",
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 200 },
    },
    {
      name: "nothing said to everybody",
      method: "POST",
      path: () => "/wall/messages",
      body: {},
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 400, instructor: 400 },
    },
    {
      name: "everybody held by no yes and no no",
      method: "PUT",
      path: () => "/wall/pause",
      body: {},
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 400 },
    },
    {
      name: "a lane of nobody shown",
      method: "PUT",
      path: () => "/wall/demonstration",
      body: { laneId: nowhere },
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 404 },
    },
    {
      name: "what is shown to the class",
      method: "GET",
      path: () => "/demonstration",
      expected: { nobody: 401, student: 200, otherStudent: 200, assistant: 200, instructor: 200 },
    },
    {
      name: "gone on from where nothing is shown",
      method: "POST",
      path: () => "/demonstration/lanes",
      expected: { nobody: 401, student: 404, otherStudent: 404, assistant: 403, instructor: 403 },
    },
    {
      name: "the stream of that",
      method: "GET",
      path: () => "/demonstration/stream",
      expected: { nobody: 401, student: 200, otherStudent: 200, assistant: 200, instructor: 200 },
    },
    {
      name: "what comes to a bench from others",
      method: "GET",
      path: () => `/lanes/${lane}/together`,
      expected: { nobody: 401, student: 200, otherStudent: 404, assistant: 200, instructor: 200 },
    },
    {
      name: "the stream of it",
      method: "GET",
      path: () => `/lanes/${lane}/together/stream`,
      expected: { nobody: 401, student: 200, otherStudent: 404, assistant: 200, instructor: 200 },
    },
    {
      name: "what is off in a lane now",
      method: "GET",
      path: () => `/lanes/${lane}/live`,
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 200 },
    },
    {
      name: "what was done",
      method: "GET",
      path: () => "/audit",
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 200 },
    },
    {
      name: "everything of nobody",
      method: "GET",
      path: () => `/class/students/${nowhere}/archive`,
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 404 },
    },
    {
      name: "another look at a lane that is not handed in",
      method: "POST",
      path: () => `/lanes/${lane}/look`,
      body: { text: "please" },
      expected: { nobody: 401, student: 409, otherStudent: 404, assistant: 403, instructor: 403 },
    },
    {
      name: "an answer to nothing that was asked",
      method: "POST",
      path: () => `/lanes/${lane}/look/answer`,
      body: { text: "please" },
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 409 },
    },
    {
      name: "a floor exercise that is none, changed",
      method: "PUT",
      path: () => `/floor/exercises/${nowhere}`,
      body: { title: "Another", machineNumber: "", drawingNumber: "", tolerancesMm: {} },
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 404 },
    },
    {
      name: "a floor exercise that is none, hidden",
      method: "PUT",
      path: () => `/floor/exercises/${nowhere}/hidden`,
      body: { isHidden: true },
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 404 },
    },
    {
      name: "a floor exercise that is none, copied",
      method: "POST",
      path: () => `/floor/exercises/${nowhere}/copy`,
      body: {},
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 404 },
    },
    {
      name: "a floor exercise that is none, deleted",
      method: "DELETE",
      path: () => `/floor/exercises/${nowhere}`,
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 404 },
    },
    {
      name: "the plan",
      method: "GET",
      path: () => "/plan",
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 200 },
    },
    {
      name: "the plan's first day, of no calendar",
      method: "PUT",
      path: () => "/plan",
      body: { startsOn: "someday" },
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 400 },
    },
    {
      name: "the plan in an order that is none",
      method: "PUT",
      path: () => "/plan/order",
      body: { ids: [nowhere] },
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 409 },
    },
    {
      name: "an assignment changed into nothing",
      method: "PUT",
      path: () => `/plan/${assignment}`,
      body: {},
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 400 },
    },
    {
      name: "an exercise that is none, tried",
      method: "POST",
      path: () => `/plan/${nowhere}/try`,
      body: {},
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 404 },
    },
    {
      name: "marks as a file",
      method: "GET",
      path: () => "/marks/file?as=table&columns=name",
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 200 },
    },
    {
      name: "marks as a file that nobody knows",
      method: "GET",
      path: () => "/marks/file?as=pie",
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 400 },
    },
    {
      name: "a marking",
      method: "GET",
      path: () => `/assignments/${assignment}/marking`,
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 200 },
    },
    {
      name: "the marking of nothing",
      method: "GET",
      path: () => `/assignments/${nowhere}/marking`,
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 404 },
    },
    {
      name: "who would change",
      method: "POST",
      path: () => `/assignments/${assignment}/marking/trials`,
      body: marking,
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 202 },
    },
    {
      name: "a trial of a marking that is not there",
      method: "GET",
      path: () => `/assignments/${assignment}/marking/trials/00000000-0000-4000-8000-000000000000`,
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 404 },
    },
    {
      name: "giving up a trial that is not there",
      method: "DELETE",
      path: () => `/assignments/${assignment}/marking/trials/00000000-0000-4000-8000-000000000000`,
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 404 },
    },
    {
      name: "a marking without any weight",
      method: "POST",
      path: () => `/assignments/${assignment}/marking`,
      body: { ...marking, weights: { values: 0, method: 0, safety: 0 } },
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 400 },
    },
    {
      name: "mark again",
      method: "POST",
      path: () => `/assignments/${assignment}/marking`,
      body: marking,
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 202 },
    },
    {
      name: "own skills",
      method: "GET",
      path: () => "/skills",
      expected: { nobody: 401, student: 200, otherStudent: 200, assistant: 403, instructor: 403 },
    },
    {
      name: "nobody's class at a machine",
      method: "GET",
      path: () => `/floor/exercises/${nowhere}/class`,
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 404, instructor: 404 },
    },
    {
      name: "what a class gets wrong",
      method: "GET",
      path: () => "/patterns",
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 200 },
    },
    {
      name: "what a class gets wrong in nothing of its own",
      method: "GET",
      path: () => `/patterns/${nowhere}`,
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 404 },
    },
    {
      name: "who can do what",
      method: "GET",
      path: () => "/standings",
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 200 },
    },
    {
      name: "skills of nobody",
      method: "GET",
      path: () => `/students/${nowhere}/skills`,
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 404 },
    },
    {
      name: "whether a first instructor is asked for",
      method: "GET",
      path: () => "/session/first",
      expected: { nobody: 200, student: 200, otherStudent: 200, assistant: 200, instructor: 200 },
    },
    {
      name: "to be the first where nobody is asked for",
      method: "POST",
      path: () => "/session/first",
      body: {},
      expected: { nobody: 400, student: 400, otherStudent: 400, assistant: 400, instructor: 400 },
    },
    {
      name: "to join with nothing",
      method: "POST",
      path: () => "/session/join",
      body: {},
      expected: { nobody: 400, student: 400, otherStudent: 400, assistant: 400, instructor: 400 },
    },
    {
      name: "to sign in with nothing",
      method: "POST",
      path: () => "/session",
      body: {},
      expected: { nobody: 400, student: 400, otherStudent: 400, assistant: 400, instructor: 400 },
    },
    {
      name: "another password, the old one wrong",
      method: "POST",
      path: () => "/session/password",
      body: { current: "not it", next: "dial and dye marks" },
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 403 },
    },
    {
      name: "a class that is not theirs",
      method: "POST",
      path: () => "/session/class",
      body: { classId: nowhere },
      expected: { nobody: 401, student: 404, otherStudent: 404, assistant: 404, instructor: 404 },
    },
    {
      name: "a class by a code that is none",
      method: "POST",
      path: () => "/session/classes",
      body: { code: "ZZZZZZZZ" },
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 403 },
    },
    {
      name: "the program of a lane, before hand-in",
      method: "POST",
      path: () => `/lanes/${lane}/prove`,
      body: {},
      expected: { nobody: 401, student: 400, otherStudent: 400, assistant: 403, instructor: 400 },
    },
    {
      name: "how far a run of it is",
      method: "GET",
      path: () => `/lanes/${lane}/prove`,
      expected: { nobody: 401, student: 200, otherStudent: 404, assistant: 403, instructor: 200 },
    },
    {
      name: "floor",
      method: "GET",
      path: () => "/floor",
      expected: { nobody: 401, student: 200, otherStudent: 200, assistant: 200, instructor: 200 },
    },
    {
      name: "a floor exercise of nothing",
      method: "POST",
      path: () => "/floor/exercises",
      body: {},
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 400 },
    },
    {
      name: "to begin a floor lane that is not there",
      method: "POST",
      path: () => `/floor/exercises/${nowhere}/lanes`,
      body: {},
      expected: { nobody: 401, student: 404, otherStudent: 404, assistant: 403, instructor: 403 },
    },
    {
      name: "a floor lane that is not there",
      method: "GET",
      path: () => `/floor/lanes/${nowhere}`,
      expected: { nobody: 401, student: 404, otherStudent: 404, assistant: 404, instructor: 404 },
    },
    {
      name: "the stream of a floor lane that is not there",
      method: "GET",
      path: () => `/floor/lanes/${nowhere}/stream`,
      expected: { nobody: 401, student: 404, otherStudent: 404, assistant: 404, instructor: 404 },
    },
    {
      name: "entries of one that is not there",
      method: "POST",
      path: () => `/floor/lanes/${nowhere}/entries`,
      body: {},
      expected: { nobody: 401, student: 400, otherStudent: 400, assistant: 400, instructor: 400 },
    },
    {
      name: "the class",
      method: "GET",
      path: () => "/class",
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 200 },
    },
    {
      name: "where it is found",
      method: "GET",
      path: () => "/reach",
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 200 },
    },
    {
      name: "another class code",
      method: "POST",
      path: () => "/class/code",
      body: {},
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 204 },
    },
    {
      name: "a roster that is none, looked at",
      method: "POST",
      path: () => "/class/roster/preview",
      body: {},
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 400 },
    },
    {
      name: "a roster that is none",
      method: "POST",
      path: () => "/class/roster",
      body: {},
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 400 },
    },
    {
      name: "the password of nobody reset",
      method: "POST",
      path: () => `/class/students/${nowhere}/reset`,
      body: {},
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 404 },
    },
    {
      name: "rules for marks that are none",
      method: "PUT",
      path: () => "/class/policy",
      body: { passPercent: -1, latePercent: 100, lapseMonths: 0 },
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 400 },
    },
    {
      name: "nobody merged into somebody",
      method: "POST",
      path: () => `/class/students/${nowhere}/merge`,
      body: { into: nowhere },
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 404 },
    },
    {
      name: "a wait of nobody lifted",
      method: "POST",
      path: () => `/class/students/${nowhere}/lift`,
      body: {},
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 404 },
    },
    {
      name: "a new class without a name",
      method: "POST",
      path: () => "/classes",
      body: { name: " ", term: "", copiesPlan: false },
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 400 },
    },
    {
      name: "the class without a name",
      method: "PUT",
      path: () => "/class",
      body: { name: " ", term: "", isArchived: false },
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 400 },
    },
    {
      name: "an invitation to nothing",
      method: "POST",
      path: () => "/class/invitations",
      body: { role: "student" },
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 400 },
    },
    {
      name: "an invitation that is none withdrawn",
      method: "DELETE",
      path: () => "/class/invitations/ZZZZZZZZ",
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 404 },
    },
    {
      name: "nobody taken off the staff",
      method: "DELETE",
      path: () => `/class/staff/${nowhere}`,
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 404 },
    },
    {
      name: "nobody renamed",
      method: "PUT",
      path: () => `/class/students/${nowhere}`,
      body: { name: "Nobody Here" },
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 404 },
    },
    {
      name: "nobody taken off the class",
      method: "DELETE",
      path: () => `/class/students/${nowhere}?lanes=keep`,
      expected: { nobody: 401, student: 403, otherStudent: 403, assistant: 403, instructor: 404 },
    },
    {
      name: "nothing",
      method: "GET",
      path: () => "/nothing",
      expected: { nobody: 401, student: 404, otherStudent: 404, assistant: 404, instructor: 404 },
    },
  ];
  it("stands in this table", () => {
    const areas = readdirSync("apps/server/areas").map((area) => `apps/server/areas/${area}/router.ts`);
    const known = areas.filter(existsSync).flatMap((file) => {
      const mounted = file.includes("/floor/") ? "/floor" : "";
      return [...readFileSync(file, "utf8").matchAll(/router\.(get|post|put|delete)\(\s*"([^"]+)"/g)].map(
        ([, method = "", path = ""]) => ({
          method: method.toUpperCase(),
          path: `${mounted}${path}`.replace(/\/$/, ""),
        }),
      );
    });
    expect(known.length).toBeGreaterThan(45);
    const missing = known.filter(({ method, path }) => {
      const pattern = new RegExp(`^${path.replaceAll(/:\w+/g, "[^/]+")}(\\?.*)?$`);
      return !routes.some((row) => row.method === method && pattern.test(row.path()));
    });
    // signing out is the end of a session, and of this table
    expect(missing).toEqual([{ method: "DELETE", path: "/session" }]);
  });
  for (const { name, method, path, body, expected } of routes) {
    it(name, async () => {
      for (const [role, status] of Object.entries(expected)) {
        if (/stream/.test(name) && status === 200) continue; // an endless reply; its content is tested with the lanes
        const reply = await clients[role as keyof typeof clients].call(method, path(), body);
        expect(reply.status, `${role}: ${reply.text}`).toBe(status);
        if (status >= 400) expect(reply.body.error.message.length).toBeGreaterThan(20);
      }
      // who teaches or learns at another school finds nothing of this one
      for (const [who, client] of Object.entries({ teaches: foreign.instructor, learns: foreign.student })) {
        if (!path().includes(lane) && !path().includes(assignment)) continue;
        const reply = await client.call(method, path(), body);
        expect([400, 403, 404], `${who} elsewhere: ${reply.text}`).toContain(reply.status);
      }
    });
  }
});

describe("bad input", () => {
  it("a wrong password, an unknown name and an empty form get one sentence each, and ten tries lock that name for a while", async () => {
    const client = new TestClient(server);
    const tries = async (login: string, password: string) =>
      (await client.call("POST", "/session", { login, password })).body.error.code;
    expect(await tries("peverill", "wrong")).toBe("wrongCredentials");
    expect(await tries("nobody-here", "wrong")).toBe("wrongCredentials");
    expect(await tries("", "")).toBe("badRequest");
    for (let turn = 0; turn < 9; turn++) await tries("peverill", "wrong");
    expect(await tries("peverill", "fernhollow")).toBe("tooManyTries");
    expect((await new TestClient(server).signIn("sorrel")).server).toBe(server);
  });

  it.each([
    ["not JSON", "{not json"],
    ["empty", {}],
    ["unknown command", { ...batch, commands: [{ clientSeq: 1, command: { type: "teleport" } }] }],
    [
      "not a register",
      { ...batch, commands: [{ clientSeq: 1, command: { type: "captureRegister", register: "G99.q", asText: "0" } }] },
    ],
    [
      "infinite clicks",
      {
        ...batch,
        commands: [{ clientSeq: 1, command: { type: "jog", axis: "x", direction: 1, clicks: 1e9, size: "fine" } }],
      },
    ],
    ["an extra field", { ...batch, commands: [{ clientSeq: 1, command: { type: "home", truth: true } }] }],
    ["no commands", { ...batch, commands: [] }],
  ])("a batch that is %s is refused whole", async (_name, body) => {
    const before = (await clients.student.view(lane)).turn;
    const reply = await clients.student.call("POST", `/lanes/${lane}/commands`, body);
    expect(reply.body.error).toEqual({ code: "badRequest", message: errorWords.badRequest });
    expect((await clients.student.view(lane)).turn).toBe(before);
  });

  it("a body that is too large, and a page of another site, are refused", async () => {
    expect(
      (await clients.student.call("POST", `/lanes/${lane}/commands`, { ...batch, writer: "x".repeat(100_000) })).body
        .error.code,
    ).toBe("tooLarge");
    expect(
      (await clients.student.call("POST", `/lanes/${lane}/commands`, batch, { origin: "http://elsewhere.test" })).body
        .error.code,
    ).toBe("crossSite");
    expect(
      (await clients.student.call("POST", `/lanes/${lane}/commands`, batch, { origin: "null" })).body.error.code,
    ).toBe("crossSite");
  });

  it("registers of 1e999, abc, 1/0, empty and 40 digits, and an unreadable block, are answered in words and change nothing", async () => {
    const student = await new TestClient(server).signIn("hollinsworth");
    const tab = await openTab(student, await student.startLane(0));
    await tab.do({ type: "home" });
    const before = (await student.view(tab.lane)).observation;
    const texts = ["1e999", "abc", "1/0", "", "1".repeat(40)];
    for (const text of texts) {
      const { outcomes } = await tab.do({
        type: "typeRegister",
        register: "G54.x",
        text,
        how: "set",
        isConfirmed: true,
      });
      expect(outcomes[0]).toMatchObject({ kind: "refused", message: expect.stringMatching(/.{25,}/) as unknown });
    }
    expect((await tab.do({ type: "runBlock", text: "G0 X1 banana" })).outcomes[0]).toMatchObject({
      kind: "refused",
      message: expect.stringContaining("Nothing was run") as unknown,
    });
    expect((await student.view(tab.lane)).observation).toEqual(before);
  });

  it("an expired session is told so, and the lane is as it was", async () => {
    const student = await new TestClient(server).signIn("ashgrove");
    const id = await student.startLane(1);
    await server.pool.query(
      "delete from session where sess->'user'->>'id' = (select id::text from users where login = 'ashgrove')",
    );
    // sessions are remembered for five seconds
    vi.useFakeTimers({ toFake: ["Date"], now: Date.now() + 6000 });
    expect((await student.call("GET", `/lanes/${id}`)).body.error.code).toBe("notSignedIn");
    vi.useRealTimers();
    await student.signIn("ashgrove");
    expect((await student.view(id)).turn).toBe(1);
  });
});

describe("errors", () => {
  it("every code has a status and a sentence", () => {
    for (const code of Object.keys(errorStatus)) expect(errorWords[code as keyof typeof errorWords]).toMatch(/[.]$/);
  });
  it("the database going away is a 503 with a number and no detail, and nothing acknowledged is lost", async () => {
    const own = await testServer();
    try {
      const student = await new TestClient(own).signIn("sorrel");
      const tab = await openTab(student, await student.startLane(0));
      await tab.do({ type: "home" });
      const name = new URL(own.databaseUrl).pathname.slice(1);
      const admin = new URL(process.env["TEST_DATABASE_URL"] ?? "");
      const { Client } = (await import("pg")).default;
      const client = new Client({ connectionString: admin.href });
      await client.connect();
      await client.query(`alter database ${name} allow_connections false`);
      await client.query("select pg_terminate_backend(pid) from pg_stat_activity where datname = $1", [name]);
      const down = tab.batch([{ type: "jog", axis: "x", direction: -1, clicks: 7, size: "coarse" }]);
      const reply = await student.call("POST", `/lanes/${tab.lane}/commands`, down);
      expect(reply.status).toBe(503);
      expect(Object.keys(reply.body.error).sort()).toEqual(["code", "message", "requestId"]);
      expect(reply.text).not.toMatch(/select|insert|postgres|ECONN|lane_events/i);
      await client.query(`alter database ${name} allow_connections true`);
      await client.end();
      const again = await tab.post(down);
      expect(again.status).toBe(200);
      expect(again.body.observation.machine.x).toBe(-700);
    } finally {
      await own.close();
    }
  });
});
