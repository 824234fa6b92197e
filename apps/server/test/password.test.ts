import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { TestClient, testServer, type TestServer } from "./testServer";

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());

const OLD = "fernhollow";
const NEW = "parallels and a stop";
const change = (client: TestClient, current: string, next: string) =>
  client.call("POST", "/session/password", { current, next });
const signIn = (login: string, password: string) =>
  new TestClient(server).call("POST", "/session", { login, password });

describe("a password of one's own", () => {
  it("is changed by who knows the one before, and nothing else changes it", async () => {
    const client = await new TestClient(server).signIn("sorrel");
    expect((await change(client, "not that one", NEW)).body.error.code).toBe("passwordWrong");
    expect((await change(client, OLD, "short")).body.error.code).toBe("passwordWeak");
    // one's own name is no password
    expect((await change(client, OLD, "nessasorrelby")).body.error.code).toBe("passwordWeak");
    expect((await change(new TestClient(server), OLD, NEW)).status).toBe(401);
    expect((await client.call("POST", "/session/password", { current: OLD })).body.error.code).toBe("badRequest");
    expect((await signIn("sorrel", OLD)).status).toBe(200);
  });

  it("signs out everywhere else, and stays here", async () => {
    const here = await new TestClient(server).signIn("tamblin");
    const there = await new TestClient(server).signIn("tamblin");
    const other = await new TestClient(server).signIn("sorrel");
    expect((await change(here, OLD, NEW)).status).toBe(204);
    expect((await here.call("GET", "/lanes")).status).toBe(200);
    expect((await there.call("GET", "/session")).status).toBe(401);
    expect((await there.call("GET", "/lanes")).status).toBe(401);
    expect((await other.call("GET", "/lanes")).status).toBe(200);
    expect((await signIn("tamblin", OLD)).status).toBe(401);
    expect((await signIn("tamblin", NEW)).status).toBe(200);
  });

  it("whoever guesses the one before waits", async () => {
    const client = await new TestClient(server).signIn("merriwick");
    const codes: string[] = [];
    for (let turn = 0; turn < 12; turn++)
      codes.push((await change(client, `guess number ${turn}`, NEW)).body.error.code);
    expect(codes[0]).toBe("passwordWrong");
    expect(codes.at(-1)).toBe("tooManyTries");
  });
});
