import { existsSync } from "node:fs";
import { defineConfig } from "@playwright/test";

/** Set by ./test: the address of a server that it started on a database of its own. */
const baseURL = process.env["E2E_URL"] ?? "http://127.0.0.1:4399";

/** Debian's Chromium; the one without windows where it is there, because it works half again as fast. */
const CHROMIUM = ["/usr/bin/chromium-headless-shell", "/usr/bin/chromium"].find(existsSync) ?? "chromium";

export default defineConfig({
  testDir: "e2e",
  testMatch: "*.spec.ts",
  fullyParallel: true,
  workers: 2,
  timeout: 180_000,
  expect: { timeout: 15_000 },
  reporter: [["list"], ["./scripts/e2e-count-reporter.ts"]],
  use: {
    baseURL,
    // what moves in the picture is not what these are about, and costs a software renderer most of its time
    contextOptions: { reducedMotion: "reduce" },
    // a click that finds nothing says so long before its test ends, on a loaded machine too
    actionTimeout: 60_000,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: CHROMIUM,
      args: ["--disable-background-networking", "--disable-component-update", "--disable-sync", "--disable-quic"],
    },
  },
});
