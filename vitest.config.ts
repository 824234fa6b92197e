import { defineConfig } from "vitest/config";
import { LongestFirst } from "./scripts/longest-first.ts";

export default defineConfig({
  test: {
    include: ["packages/**/*.test.ts", "apps/**/*.test.ts", "demo/**/*.test.ts", "e2e/**/*.test.ts"],
    reporters: ["default", "./scripts/count-reporter.ts"],
    globalSetup: ["./scripts/test-database.ts"],
    // both cores of a small machine
    maxWorkers: 2,
    // modules keep no state between files, and loading the core once for each file costs more than its tests
    isolate: false,
    sequence: { sequencer: LongestFirst },
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
});
