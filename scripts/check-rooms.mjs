// Which room may import which; fails also when nothing was read, since an empty reading is no agreement.
import { execFileSync } from "node:child_process";

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
process.exit(summary.violations.length > 0 || summary.totalCruised < LEAST_MODULES ? 1 : 0);
