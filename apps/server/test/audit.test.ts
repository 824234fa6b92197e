import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { AuditView, ClassView, MarksView } from "@probe-lane/contract";
import { TestClient, testServer, type TestServer } from "./testServer";

let server: TestServer;
let instructor: TestClient;
beforeAll(async () => {
  server = await testServer();
  instructor = await new TestClient(server).signIn("marrow");
});
afterAll(() => server.close());

const rows = async () => (await instructor.call<AuditView>("GET", "/audit")).body.rows;
const newest = async () => (await rows()).map(({ by, what, about }) => [by, what, about])[0];
const idOf = async (login: string): Promise<string> =>
  (await instructor.call<ClassView>("GET", "/class")).body.students.find((one) => one.login === login)?.id ?? "";
/** A lane of the demo that is ruled, with its student. */
async function ruled() {
  const { students, assignments } = (await instructor.call<MarksView>("GET", "/marks")).body;
  for (const { name, cells } of students)
    for (const { id, title } of assignments) {
      const href = cells[id]?.best?.href;
      if (href?.startsWith("/lanes/")) return { name, title, id: href.split("/")[2] ?? "" };
    }
  throw new Error("nobody is ruled");
}

describe("what was done in a class", () => {
  it("is kept once it is answered well: who, what, and of whom; what is refused or only looked at is not", async () => {
    expect(await rows()).toEqual([]);
    const lane = await ruled();
    const give = (marks: number | null, reason: string) =>
      instructor.call("POST", `/lanes/${lane.id}/overrides`, { strand: "values", marks, reason });
    expect((await give(1, "as agreed")).text).toBe("");
    await expect.poll(newest).toEqual(["Corin Marrowfield", "marksGiven", `${lane.name}, ${lane.title}`]);
    expect((await give(90.5, "too many")).status).toBe(422);
    await instructor.call("GET", "/marks");
    expect((await give(null, "back again")).status).toBe(204);
    await expect.poll(newest).toEqual(["Corin Marrowfield", "marksTakenBack", `${lane.name}, ${lane.title}`]);
    expect(await rows()).toHaveLength(2);
    await instructor.call("GET", `/lanes/${lane.id}/record`);
    await expect.poll(newest).toEqual(["Corin Marrowfield", "recordTaken", `${lane.name}, ${lane.title}`]);
    await instructor.call("GET", "/marks/file?as=table&columns=name");
    await expect.poll(newest).toEqual(["Corin Marrowfield", "marksSaved", ""]);
    // the routers take an address in large letters and with a stroke at its end, and so does the list
    await instructor.call("GET", `/Lanes/${lane.id.toUpperCase()}/Record/`);
    await expect.poll(async () => (await rows()).filter(({ what }) => what === "recordTaken").length).toBe(2);
    // what a student does is in the lanes, and not here
    const student = await new TestClient(server).signIn("sorrel");
    await student.call("GET", `/lanes/${lane.id}/record`);
    expect(await rows()).toHaveLength(5);
  });
  it("names who is gone by the name they had, and leaves the marks of the others as they are", async () => {
    const others = async () =>
      (await instructor.call<MarksView>("GET", "/marks")).body.students.filter(({ login }) => login !== "quillfeather");
    const before = await others();
    const id = await idOf("quillfeather");
    expect((await instructor.call("DELETE", `/class/students/${id}?lanes=delete`)).status).toBe(204);
    await expect.poll(newest).toEqual(["Corin Marrowfield", "studentDeleted", "Jasper Quillfeather"]);
    expect(await others()).toEqual(before);
    expect((await instructor.call("GET", `/class/students/${id}/archive`)).status).toBe(404);
  });
  it("everything of one student is one file, of this class alone", async () => {
    const id = await idOf("okonjo");
    interface Archive {
      student: { login: string };
      bench: { title: string; log: { event: { type: string } }[]; ruling: { total: number } | null }[];
      floor: unknown[];
    }
    const { body, status } = await instructor.call<Archive>("GET", `/class/students/${id}/archive`);
    expect(status).toBe(200);
    expect(body.student.login).toBe("okonjo");
    expect(body.bench.length).toBeGreaterThan(1);
    for (const { log } of body.bench) expect(log[0]?.event.type).toBe("laneOpened");
    expect(body.bench.some(({ ruling }) => (ruling?.total ?? 0) > 0)).toBe(true);
    expect(JSON.stringify(body)).not.toContain("Jasper");
    await expect.poll(newest).toEqual(["Corin Marrowfield", "archiveTaken", "Theodric Okonjo-Vale"]);
    const student = await new TestClient(server).signIn("sorrel");
    expect((await student.call("GET", `/class/students/${id}/archive`)).status).toBe(403);
    expect((await student.call("GET", "/audit")).status).toBe(403);
  });
});
