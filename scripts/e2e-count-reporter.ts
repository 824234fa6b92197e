import type { Reporter, Suite } from "@playwright/test/reporter";

/** Prints the plain count that ./test adds up. */
export default class CountReporter implements Reporter {
  private suite: Suite | null = null;
  onBegin(_config: unknown, suite: Suite): void {
    this.suite = suite;
  }
  onEnd(): void {
    const outcomes = this.suite?.allTests().map((test) => test.outcome()) ?? [];
    const count = (...kinds: string[]) => outcomes.filter((outcome) => kinds.includes(outcome)).length;
    process.stdout.write(
      `\ne2e: ${count("expected", "flaky")} passed, ${count("unexpected")} failed, ${count("skipped")} skipped\n`,
    );
  }
}
