import { defineConfig } from "vitest/config";

/**
 * What tells mutants of the core: hand-worked numbers, and the lanes that are kept with what was ruled of them. The
 * stories over many lanes tell more, and take minutes for each mutant.
 */
export default defineConfig({
  test: {
    // named for a room whose own tests tell it all, and quickly: MUTANT_TESTS="packages/core/grading/findings.test.ts"
    include: process.env["MUTANT_TESTS"]?.split(",") ?? [
      "packages/core/{registers,instruments,diagnosis,units,gcode,exchange,skills,words}/*.test.ts",
      "packages/core/grading/**/*.test.ts",
      "packages/core/test/{thresholds,keptLanes,working,marks,mustHaves,touching,checks,metal}.test.ts",
    ],
    isolate: false,
    testTimeout: 60_000,
  },
});
