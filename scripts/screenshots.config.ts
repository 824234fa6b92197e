import { defineConfig } from "@playwright/test";
import base from "../playwright.config";

/**
 * `npm run screenshots`: one current picture of each main view from the demo data, into docs/screenshots. Needs a
 * running ./start.
 */
export default defineConfig({
  ...base,
  testDir: ".",
  testMatch: "screenshots.ts",
  workers: 1,
  reporter: "list",
  use: { ...base.use, baseURL: process.env["E2E_URL"] ?? "http://127.0.0.1:4310" },
});
