import { agent } from "../../bench/server";
import { flood, fullDisk, kills, load, soak, two } from "./loads";
import { fuzzCommands, fuzzPrograms, fuzzReaders } from "./fuzz";

/** `npm run attack [short|long] [NAME …]`: what the house is built to stand, run against it. Loopback only. */
const isLong = process.argv.includes("long");
const RUNS: Record<string, () => boolean | Promise<boolean>> = {
  fuzz: () => fuzzReaders(isLong ? 10_000_000 : 200_000),
  programs: () => fuzzPrograms(isLong ? 1_000_000 : 20_000),
  commands: () => fuzzCommands(isLong ? 2_000_000 : 50_000),
  load: () => load(isLong ? 120 : 10),
  two: () => two(isLong ? 120 : 5),
  server: () => kills("server", isLong ? 20 : 2),
  database: () => kills("database", isLong ? 20 : 1),
  disk: () => fullDisk(isLong ? 5 : 1),
  soak: () => soak(isLong ? 30 : 1),
  flood: () => flood(isLong ? 20 : 6),
};
const named = process.argv.slice(2).filter((word) => Object.hasOwn(RUNS, word));
let failed = 0;
for (const name of named.length > 0 ? named : Object.keys(RUNS)) {
  const run = RUNS[name];
  if (run && !(await run())) {
    failed += 1;
    process.stdout.write(`FAILED: ${name}\n`);
  }
}
agent.destroy();
process.exit(failed === 0 ? 0 : 1);
