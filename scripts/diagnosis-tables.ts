import { writeFileSync } from "node:fs";
import { signatureWords } from "@probe-lane/core/words";
import { floorTables } from "../demo";

/** `node --import tsx scripts/diagnosis-tables.ts`: writes docs/diagnosis.md from the same run as the test. */
const LANES = 2000;
const { injected, clean, arbitrary, rows, misses } = floorTables(LANES);
const percent = (a: number, b: number): string => `${((100 * a) / b).toFixed(1)} %`;
const lines = [
  "# How well the number alone tells the mistake", "",
  `Written by \`scripts/diagnosis-tables.ts\` from ${LANES} seeded setups over all methods of both machines (the same run as`,
  "`packages/core/test/floorTables.test.ts`). No log is used here: this is what the floor and the desk can do. u = 4 µm, readings to 1 µm.", "",
  "| | setups | result | goal |", "|---|---|---|---|",
  `| one mistake beyond 6u, its class named first | ${injected.lanes} | ${percent(injected.first, injected.lanes)} | ≥ 95 % |`,
  `| no mistake, nothing claimed | ${clean.lanes} | ${percent(clean.silent, clean.lanes)} | ≥ 99 % |`,
  `| arbitrary closure within ±2 mm, answered "unexplained" | ${arbitrary.lanes} | ${percent(arbitrary.open, arbitrary.lanes)} | ≥ 80 % |`, "",
  "## By mistake", "", "| mistake | setups | named first |", "|---|---|---|",
  ...rows.map(({ id, lanes, first }) => `| ${signatureWords(id)} (\`${id}\`) | ${lanes} | ${first} |`), "",
  "## Every miss", "", "A miss is nearly always a small effect under a rare mistake: \"something else\" then outweighs it, and nothing is claimed.", "",
  "| method | mistake | said instead | closure, mm |", "|---|---|---|---|",
  ...misses.map(({ method, truth, said, closure }) => `| ${method} | \`${truth}\` | ${said} | ${closure.toFixed(3)} |`), "",
];
writeFileSync("docs/diagnosis.md", lines.join("\n"));
