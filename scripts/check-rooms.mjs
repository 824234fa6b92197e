// Which room may import which, and where a machine may be told by its kind. Fails also when nothing was read, since an
// empty reading is no agreement.
import { execFileSync } from "node:child_process";
import { existsSync, readFileSync } from "node:fs";

const LEAST_MODULES = 80;
let report;
try {
  report = execFileSync(
    "node_modules/.bin/depcruise",
    ["--config", ".dependency-cruiser.cjs", "--output-type", "json", "packages", "apps", "demo"],
    { encoding: "utf8", maxBuffer: 64e6 },
  );
} catch (error) {
  report = error.stdout;
}
const { summary } = JSON.parse(report);
for (const { rule, from, to } of summary.violations) console.log(`${rule.name}: ${from} → ${to}`);
console.log(`rooms: ${summary.totalCruised} modules, ${summary.violations.length} violations`);

/** Where a room picks the file of its machine: once each, and nowhere else. */
const PICKS = new Set(
  [
    // the two shapes of a sheet, and what is drawn, wanted, fair and handed over of each
    "exercises/expectation.ts",
    "exercises/fairness.ts",
    "exercises/handover.ts",
    "exercises/setup.ts",
    "exercises/targets.ts",
    "exercises/variant.ts",
    // the exercise file of format 2 keeps a lathe as a group of its own
    "exercises/schema.ts",
    "exercises/upgrade.ts",
    "skills/skills.ts",
    // the words of a ruling and of the coach
    "words/coach.ts",
    "words/explanations.ts",
    "words/ruling.ts",
  ].map((file) => `packages/core/${file}`),
);
const TELLS = /\.lathe\b|[!=]== "(mill|turret|readout|gang)"/;
const files = execFileSync("git", ["ls-files", "-co", "--exclude-standard", "packages/core", "apps"], {
  encoding: "utf8",
})
  .split("\n")
  .filter((file) => /\.tsx?$/.test(file) && existsSync(file))
  .filter((file) => !/\/machines\/|\.test\.ts$|\/test\//.test(file));
// the floor's own exercises and the reader of blocks have machines of another sense: a form's choice, a dialect
const OTHER = /packages\/core\/(floor|gcode|registers)\/|apps\/web\/features\/floor\//;
const strays = files
  .filter((file) => !PICKS.has(file) && !OTHER.test(file))
  .flatMap((file) =>
    readFileSync(file, "utf8")
      .split("\n")
      .flatMap((line, at) => (TELLS.test(line) ? [`${file}:${at + 1}: ${line.trim()}`] : [])),
  );
for (const stray of strays) console.log(`a machine told by its kind outside machines/: ${stray}`);
console.log(`machines: ${files.length} files read, ${strays.length} tell a machine outside its kit`);
process.exit(
  summary.violations.length + strays.length > 0 || summary.totalCruised < LEAST_MODULES || files.length < LEAST_MODULES
    ? 1
    : 0,
);
