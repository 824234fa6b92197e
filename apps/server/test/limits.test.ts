import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { connect, type AddressInfo } from "node:net";
import express from "express";
import { failureLimiter, SignInWaits } from "../limits";
import type { ClassView } from "@probe-lane/contract";
import { openTab, TestClient, testServer, type TestServer } from "./testServer";

describe("waits between failed sign-ins", () => {
  const waits = () => {
    const clock = { now: 1_000_000 };
    return { clock, kept: new SignInWaits(() => clock.now) };
  };
  it("begin after five, double, stop growing at a minute, and end", () => {
    const { clock, kept } = waits();
    const waited = [...Array(14).keys()].map(() => {
      kept.failed("desk peverill");
      const wait = kept.waitMs("desk peverill");
      clock.now += wait;
      return wait;
    });
    expect(waited).toEqual([0, 0, 0, 0, 1, 2, 4, 8, 16, 32, 60, 60, 60, 60].map((seconds) => seconds * 1000));
    expect(kept.waitMs("desk peverill")).toBe(0);
  });
  it("are of one account at one address, end with a right password, and are forgotten", () => {
    const { clock, kept } = waits();
    for (let turn = 0; turn < 8; turn++) kept.failed("desk peverill");
    expect(kept.waitMs("desk peverill")).toBeGreaterThan(0);
    expect([kept.waitMs("desk sorrel"), kept.waitMs("elsewhere peverill")]).toEqual([0, 0]);
    kept.succeeded("desk peverill");
    expect(kept.waitMs("desk peverill")).toBe(0);
    for (let turn = 0; turn < 8; turn++) kept.failed("desk peverill");
    clock.now += 20 * 60 * 1000;
    kept.failed("desk peverill");
    clock.now += 20 * 60 * 1000;
    expect(kept.waitMs("desk peverill")).toBe(0);
  });
});

describe("failures from one address, whoever they are of", () => {
  it("end in a wait, right passwords never count, and a browser that knows the account goes on", async () => {
    const app = express();
    const limiter = failureLimiter(3, (req) => req.headers["x-known"] === "yes");
    app.post("/try", limiter, (req, res) => void res.status(req.headers["x-right"] === "yes" ? 200 : 401).end());
    const listening = app.listen(0, "127.0.0.1");
    await new Promise((resolve) => listening.once("listening", resolve));
    const { port } = listening.address() as AddressInfo;
    const attempt = async (headers: Record<string, string> = {}) =>
      (await fetch(`http://127.0.0.1:${port}/try`, { method: "POST", headers })).status;
    try {
      for (let turn = 0; turn < 8; turn++) expect(await attempt({ "x-right": "yes" })).toBe(200);
      for (let turn = 0; turn < 8; turn++) expect(await attempt({ "x-known": "yes" })).toBe(401);
      const tried = [await attempt(), await attempt(), await attempt(), await attempt()];
      expect(tried).toEqual([401, 401, 401, 429]);
      expect(await attempt({ "x-right": "yes" })).toBe(429);
      expect(await attempt({ "x-known": "yes", "x-right": "yes" })).toBe(200);
    } finally {
      await new Promise((resolve) => listening.close(resolve));
    }
  });
});

describe("at a server", () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await testServer();
  });
  afterAll(() => server.close());
  const signIn = (client: TestClient, login: string, password: string) =>
    client.call("POST", "/session", { login, password });

  it("a student who mistyped too often waits, and not when an instructor says so; what is mistyped after counts", async () => {
    const student = new TestClient(server);
    const tries = async (count: number) => {
      let status = 0;
      for (let turn = 0; turn < count; turn++) ({ status } = await signIn(student, "fennimore", "not this one"));
      return status;
    };
    expect(await tries(7)).toBe(429);
    expect((await signIn(student, "fennimore", "fernhollow")).status).toBe(429);
    const instructor = await new TestClient(server).signIn("marrow");
    const { students } = (await instructor.call<ClassView>("GET", "/class")).body;
    const id = students.find(({ login }) => login === "fennimore")?.id ?? "";
    expect((await instructor.call("POST", `/class/students/${id}/lift`, {})).status).toBe(204);
    expect((await signIn(student, "fennimore", "fernhollow")).status).toBe(200);
    const elsewhere = new TestClient(server);
    for (let turn = 0; turn < 7; turn++) await signIn(elsewhere, "fennimore", "not this one");
    expect((await signIn(elsewhere, "fennimore", "not this one")).status).toBe(429);
  });
  it("a student who tries the instructor’s name cannot keep the instructor out of a browser used before", async () => {
    const own = await new TestClient(server).signIn("marrow");
    const student = new TestClient(server);
    for (let turn = 0; turn < 7; turn++) await signIn(student, " Marrow ", "guess");
    const refused = await signIn(student, "marrow", "fernhollow");
    expect([refused.status, Number(refused.headers.get("retry-after"))]).toEqual([429, expect.any(Number)]);
    expect((await signIn(own, "marrow", "fernhollow")).status).toBe(200);
  });
  it("thirty sign in at once, and every right password is answered", async () => {
    const logins = ["sorrel", "okonjo", "dunmarrow", "merriwick", "ashgrove", "hollinsworth"];
    const all = await Promise.all(
      [...Array(30).keys()].map((n) => signIn(new TestClient(server), logins[n % logins.length] ?? "", "fernhollow")),
    );
    expect(new Set(all.map(({ status }) => status))).toEqual(new Set([200]));
  });
  it("a sign-out ends the session at once, in every process", async () => {
    const other = await server.another();
    try {
      const here = await new TestClient(server).signIn("tamblin");
      const there = here.at(other);
      expect((await there.call("GET", "/lanes")).status).toBe(200);
      const copied = here.at(server);
      expect((await copied.call("GET", "/lanes")).status).toBe(200);
      expect((await here.call("DELETE", "/session")).status).toBe(204);
      expect((await copied.call("GET", "/lanes")).status).toBe(401);
      // the other process hears of it
      let status = 200;
      for (let turn = 0; turn < 100 && status === 200; turn++) status = (await there.call("GET", "/lanes")).status;
      expect(status).toBe(401);
    } finally {
      await other.close();
    }
  });
  it("what no field takes is refused in a sentence wherever it stands, and nothing of it is stored", async () => {
    const student = await new TestClient(server).signIn("sorrel");
    const tab = await openTab(student, await student.startLane(0));
    const odd = ["a\u0000b", "half \ud800", "\udfff", "\u0000"];
    for (const text of odd) {
      const replies = await Promise.all([
        signIn(new TestClient(server), text, "fernhollow"),
        signIn(new TestClient(server), "sorrel", text),
        student.call("POST", `/lanes/${tab.lane}/commands`, tab.batch([{ type: "runBlock", text }])),
        student.call("POST", `/lanes/${tab.lane}/commands`, { ...tab.batch([{ type: "home" }]), writer: text }),
      ]);
      expect(replies.map(({ status }) => status)).toEqual([400, 400, 400, 400]);
      expect(replies[0]?.body.error.message.length).toBeGreaterThan(20);
    }
    for (const path of ["/lanes/%E0%A4%A", "/lanes/%00", "/assignments/%C0%80/lanes"])
      expect([400, 404]).toContain((await student.call("GET", path)).status);
    for (const register of ["constructor", "__proto__", "hasOwnProperty"])
      expect(
        (
          await student.call("POST", `/lanes/${tab.lane}/commands`, {
            ...tab.batch([]),
            commands: [{ clientSeq: 99, command: { type: "typeRegister", register, text: "0", how: "set" } }],
          })
        ).status,
      ).toBe(400);
  });
  it("a body that is begun and never finished is dropped within seconds", async () => {
    const { port, hostname } = new URL(server.url);
    const socket = connect(Number(port), hostname);
    const began = Date.now();
    const heard = new Promise<string>((resolve) => {
      let text = "";
      socket.on("data", (data) => (text += String(data)));
      socket.on("close", () => resolve(text));
    });
    socket.write(
      "POST /api/session HTTP/1.1\r\nhost: x\r\ncontent-type: application/json\r\ncontent-length: 50\r\n\r\n{",
    );
    expect(await heard).toContain("408");
    expect(Date.now() - began).toBeLessThan(30_000);
  });
});
