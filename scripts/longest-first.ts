import { BaseSequencer, type TestSpecification } from "vitest/node";

/** What takes longest, the longest first: they begin first, so that no core is idle while another ends a long file. */
const LONG = [
  "core/test/provenance",
  "core/test/thief",
  "core/test/benchTables",
  "server/test/lanes",
  "server/test/refusals",
  "core/test/provingStudents",
  "core/test/pack",
  "core/test/secrets",
  "core/test/parts",
  "server/test/regrade",
  "core/test/floorTables",
];

export class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const place = ({ moduleId }: TestSpecification): number => {
      const at = LONG.findIndex((name) => moduleId.endsWith(`${name}.test.ts`));
      return at === -1 ? LONG.length : at;
    };
    return (await super.sort(files)).sort((a, b) => place(a) - place(b));
  }
}
