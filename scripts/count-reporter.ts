import type { Reporter, TestModule } from "vitest/node";

/** Prints the plain count that CI reads as the last line. */
export default class CountReporter implements Reporter {
  onTestRunEnd(modules: readonly TestModule[], errors: readonly unknown[]): void {
    let passed = 0;
    let failed = errors.length;
    let skipped = 0;
    for (const module of modules) {
      if (module.errors().length > 0) failed += 1;
      for (const test of module.children.allTests()) {
        const { state } = test.result();
        if (state === "passed") passed += 1;
        else if (state === "failed") failed += 1;
        else skipped += 1;
      }
    }
    process.stdout.write(`\nunit: ${passed} passed, ${failed} failed, ${skipped} skipped\n`);
  }
}
