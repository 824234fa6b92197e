import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["packages/**/*.test.ts", "apps/**/*.test.ts", "demo/**/*.test.ts", "e2e/**/*.test.ts"],
    reporters: ["default", "./scripts/count-reporter.ts"],
    globalSetup: ["./scripts/test-database.ts"],
    // both cores of a small machine
    maxWorkers: 2,
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
});
