import { writeFileSync } from "node:fs";
import { signatureWords } from "@probe-lane/core/words";
import { benchTables, findDemoExercise, floorTables } from "../demo";

/** `node --import tsx scripts/diagnosis-tables.ts`: writes docs/diagnosis.md from the same run as the test. */
const LANES = 2000;
const { injected, clean, arbitrary, rows, misses } = floorTables(LANES);
const percent = (a: number, b: number): string => `${((100 * a) / b).toFixed(1)} %`;
const lines = [
  "# How well the number alone tells the mistake",
  "",
  `Written by \`scripts/diagnosis-tables.ts\` from ${LANES} seeded setups over all methods of both machines (the same run as`,
  "`packages/core/test/floorTables.test.ts`). No log is used here: this is what the floor and the desk can do. u = 4 µm, readings to 1 µm.",
  "",
  "| | setups | result | goal |",
  "|---|---|---|---|",
  `| one mistake beyond 6u, its class named first | ${injected.lanes} | ${percent(injected.first, injected.lanes)} | ≥ 95 % |`,
  `| no mistake, nothing claimed | ${clean.lanes} | ${percent(clean.silent, clean.lanes)} | ≥ 99 % |`,
  `| arbitrary closure within ±2 mm, answered "unexplained" | ${arbitrary.lanes} | ${percent(arbitrary.open, arbitrary.lanes)} | ≥ 80 % |`,
  "",
  "## By mistake",
  "",
  "| mistake | setups | named first |",
  "|---|---|---|",
  ...rows.map(({ id, lanes, first }) => `| ${signatureWords(id)} (\`${id}\`) | ${lanes} | ${first} |`),
  "",
  "## Every miss",
  "",
  'A miss is nearly always a small effect under a rare mistake: "something else" then outweighs it, and nothing is claimed.',
  "",
  "| method | mistake | said instead | closure, mm |",
  "|---|---|---|---|",
  ...misses.map(({ method, truth, said, closure }) => `| ${method} | \`${truth}\` | ${said} | ${closure.toFixed(3)} |`),
  "",
];
const BENCH_LANES = 500;
const bench = benchTables(BENCH_LANES);
const bothWays = [
  "# How well a bench lane tells the mistake",
  "",
  `${BENCH_LANES} lanes each of simulated students over the whole pack, with one mistake woven in, with two, and with none. The log is used:`,
  `of the lanes with one mistake named, ${bench.proven} were proven from it and ${bench.inferred} inferred from the number, and the ruling says which.`,
  "",
  "| | lanes | result | goal |",
  "|---|---|---|---|",
  `| one mistake, named first | ${bench.single.lanes} | ${percent(bench.single.named, bench.single.lanes)} | ≥ 97 % |`,
  `| two mistakes, both named | ${bench.pair.lanes} | ${percent(bench.pair.named, bench.pair.lanes)} | ≥ 90 % |`,
  `| careful, nothing claimed | ${bench.clean.lanes} | ${percent(bench.clean.named, bench.clean.lanes)} | ≥ 99.5 % |`,
  `| careful, full marks | ${bench.full.lanes} | ${percent(bench.full.named, bench.full.lanes)} | ≥ 99 % |`,
  "",
  "| exercise | mistake | lanes | named first | inside the tolerance, so nothing to name |",
  "|---|---|---|---|---|",
  ...bench.rows.map(
    ({ exercise, cause, lanes: n, named, tooSmall }) =>
      `| ${findDemoExercise(exercise).exercise.title} | ${signatureWords(cause)} | ${n} | ${named} | ${tooSmall} |`,
  ),
  "",
  "## Every miss on the bench",
  "",
  ...(bench.misses.length === 0
    ? ["None in this run.", ""]
    : [
        "| exercise | value | mistake | said instead | closure, µm |",
        "|---|---|---|---|---|",
        ...bench.misses.map(
          (miss) => `| ${miss.exercise} | ${miss.target} | ${miss.cause} | ${miss.said} | ${miss.closureUm} |`,
        ),
        "",
      ]),
];
writeFileSync("docs/diagnosis.md", [...bothWays, ...lines].join("\n"));
