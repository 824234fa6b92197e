/** Mutants of the rooms that marks hang on; `npm run mutants` runs this in a copy of the folder. */
export default {
  testRunner: "vitest",
  vitest: { configFile: "vitest.mutants.config.ts", related: false },
  mutate: [
    "packages/core/{grading,diagnosis,registers,instruments}/**/*.ts",
    "!packages/core/**/*.test.ts",
    "!packages/core/**/index.ts",
  ],
  coverageAnalysis: "perTest",
  ignoreStatic: true,
  concurrency: 2,
  reporters: ["clear-text", "progress"],
  clearTextReporter: { allowColor: false, logTests: false, reportTests: false, reportMutants: false },
  ignorePatterns: ["dist", ".pg", ".run", "test-results", "docs"],
};
