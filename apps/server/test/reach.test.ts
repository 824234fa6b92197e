import { mkdtempSync, readFileSync, statSync } from "node:fs";
import { request as plainRequest } from "node:http";
import { request as secretRequest } from "node:https";
import { connect, type AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import express from "express";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { fingerprintOf, ownCertificate } from "../certificate";
import { readConfig } from "../config";
import { secureServer, type SecureServer } from "../http";
import { urlsOf } from "../reach";

const DAY_MS = 24 * 60 * 60 * 1000;
const NOW = new Date("2026-12-01T12:00:00Z");
const NAMES = ["localhost", "127.0.0.1", "10.1.2.3"];
const folder = () => mkdtempSync(join(tmpdir(), "tls-"));

describe("a certificate of the machine's own", () => {
  it("stays as long as it is good and stands for every address, and is made anew then", async () => {
    const where = folder();
    const first = await ownCertificate(where, NAMES, NOW);
    expect(first.isNew).toBe(true);
    expect(statSync(first.keyPath).mode & 0o077).toBe(0);
    const held = () => fingerprintOf(readFileSync(first.certPath));
    const fingerprint = held();
    expect(fingerprint).toMatch(/^([0-9A-F]{2}:){31}[0-9A-F]{2}$/);
    const later = (days: number) => new Date(NOW.getTime() + days * DAY_MS);
    expect((await ownCertificate(where, NAMES, later(700))).isNew).toBe(false);
    expect(held()).toBe(fingerprint);
    // another network: another address
    expect((await ownCertificate(where, [...NAMES, "10.9.9.9"], later(1))).isNew).toBe(true);
    expect(held()).not.toBe(fingerprint);
    // and before its last day
    expect((await ownCertificate(where, NAMES, later(790))).isNew).toBe(true);
  });
});

describe("what is listened on", () => {
  const env = { DATABASE_URL: "x", SESSION_SECRET: "s".repeat(32), MIGRATIONS: "m" };
  it("is this machine alone where nothing else is said", () => {
    expect(readConfig(env)).toMatchObject({ host: "127.0.0.1", tls: null });
  });
  it("is never the network in the open", () => {
    expect(() => readConfig({ ...env, HOST: "0.0.0.0" })).toThrow(/HOST=0\.0\.0\.0 is heard by others: .\/start --lan/);
    expect(() => readConfig({ ...env, HOST: "0.0.0.0", TLS_CERT: "c" })).toThrow(/belong together/);
    expect(readConfig({ ...env, HOST: "0.0.0.0", TLS_CERT: "c", TLS_KEY: "k" }).tls).toEqual({
      certPath: "c",
      keyPath: "k",
    });
  });
  it("is told as addresses that a browser takes", () => {
    expect(urlsOf({ host: "127.0.0.1", port: 4310, isSecure: false })).toEqual(["http://127.0.0.1:4310"]);
    expect(urlsOf({ host: "fd00::2", port: 4310, isSecure: true })).toEqual(["https://[fd00::2]:4310"]);
    expect(urlsOf({ host: "10.1.2.3", port: 443, isSecure: true })).toEqual(["https://10.1.2.3"]);
    const all = urlsOf({ host: "0.0.0.0", port: 1, isSecure: true });
    expect(all.length).toBeGreaterThan(0);
    expect(all.every((url) => /^https:\/\/\d+\.\d+\.\d+\.\d+:1$/.test(url))).toBe(true);
  });
});

describe("a secure port", () => {
  let server: SecureServer;
  let port = 0;
  let ca: Buffer;
  beforeAll(async () => {
    const { certPath, keyPath } = await ownCertificate(folder(), NAMES, new Date());
    ca = readFileSync(certPath);
    const app = express().get("/ping", (req, res) => res.json({ isSecure: req.secure }));
    server = secureServer(app, { cert: ca, key: readFileSync(keyPath) }, 600);
    await new Promise<void>((resolve) => server.door.listen(0, "127.0.0.1", resolve));
    port = (server.door.address() as AddressInfo).port;
  });
  afterAll(async () => {
    const closed = new Promise((resolve) => server.door.close(resolve));
    server.closeAllConnections();
    await closed;
  });

  const asked = (isSecret: boolean, path: string) =>
    new Promise<{ status: number; location: string | undefined; text: string }>((resolve, reject) => {
      const options = { host: "127.0.0.1", port, path, agent: false };
      const request = isSecret ? secretRequest({ ...options, ca }) : plainRequest(options);
      request.on("error", reject);
      request.on("response", (response) => {
        let text = "";
        response.on("data", (part: Buffer) => (text += part.toString()));
        response.on("end", () =>
          resolve({ status: response.statusCode ?? 0, location: response.headers.location, text }),
        );
      });
      request.end();
    });

  it("answers who comes in secret, by its own certificate", async () => {
    expect(await asked(true, "/ping")).toMatchObject({ status: 200, text: '{"isSecure":true}' });
  });
  it("sends who comes in the open to the same page in secret, and answers nothing else there", async () => {
    expect(await asked(false, "/join?code=A")).toEqual({
      status: 308,
      location: `https://127.0.0.1:${port}/join?code=A`,
      text: "",
    });
  });

  /** What a client that sends these bytes, or none, is left with when it is let go. */
  const letGo = (bytes: Buffer | null) =>
    new Promise<string>((resolve) => {
      const socket = connect(port, "127.0.0.1");
      let heard = "";
      socket.on("data", (part) => (heard += part.toString("latin1")));
      socket.on("error", () => undefined);
      socket.on("close", () => resolve(heard));
      if (bytes) socket.write(bytes);
    });

  it("waits for nobody who says nothing, half a handshake, or nonsense; and goes on", async () => {
    expect(await letGo(null)).toBe("");
    expect(await letGo(Buffer.from([0x16, 3, 1]))).toBe("");
    expect(await letGo(Buffer.from("\0\x01nonsense\r\n\r\n"))).toMatch(/^(HTTP\/1\.1 400 Bad Request|$)/);
    expect((await asked(true, "/ping")).status).toBe(200);
  });
});
