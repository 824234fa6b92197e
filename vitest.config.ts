import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["packages/**/*.test.ts", "apps/**/*.test.ts", "demo/**/*.test.ts"],
    reporters: ["default", "./scripts/count-reporter.ts"],
    globalSetup: ["./scripts/test-database.ts"],
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
});
