import { defineConfig } from "vitest/config";

/** What tells mutants of the core: its own tests, without the long stories over many lanes. */
export default defineConfig({
  test: {
    include: ["packages/core/**/*.test.ts"],
    exclude: ["packages/core/test/{pack,benchTables,floorTables}.test.ts", "**/node_modules/**"],
    isolate: false,
    testTimeout: 60_000,
  },
});
