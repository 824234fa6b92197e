import { writeFileSync } from "node:fs";
import { causeName } from "@probe-lane/core/words";
import { benchTables, findDemoExercise, floorTables, type Tally } from "../demo";

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
  ...rows.map(({ id, lanes, first }) => `| ${causeName(id)} (\`${id}\`) | ${lanes} | ${first} |`),
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
const CAREFUL_LANES = 2000;
const bench = benchTables(BENCH_LANES, CAREFUL_LANES);
const share = ({ lanes: of, hits }: Tally): string => (of === 0 ? "–" : `${hits} of ${of}`);
const rate = ({ lanes: of, hits }: Tally): string => percent(hits, of);
const { single, pair, offCatalog, careful, fullMarks, falselyProven } = bench;
const bothWays = [
  "# How well a bench lane tells the mistake",
  "",
  "Lanes of simulated students who see only what the bench shows them, over the whole pack. Every mistake that a student can make is tried on",
  "every exercise of its machine; a lane counts where the mistake puts a value outside its tolerance. Pairs are two that each do so alone.",
  "Off the catalog means a figure that is off by an amount that no mistake predicts. Careful students do everything right, every second one in",
  `a roundabout way. Of the lanes with one mistake named, ${bench.proven} were proven from the log and ${single.hits - bench.proven} inferred from a figure.`,
  "",
  "| | lanes | result | goal |",
  "|---|---|---|---|",
  `| one mistake, named first at every value | ${single.lanes} | ${rate(single)} | ≥ 99 % |`,
  `| two mistakes, both named | ${pair.lanes} | ${rate(pair)} | ≥ 96 % |`,
  `| off the catalog, wrongly guessed | ${offCatalog.lanes} | ${percent(offCatalog.lanes - offCatalog.hits, offCatalog.lanes)} | ≤ 1 % |`,
  `| careful, nothing claimed | ${careful.lanes} | ${rate(careful)} | 100 % |`,
  `| careful, full marks | ${fullMarks.lanes} | ${rate(fullMarks)} | ≥ 99 % |`,
  `| called proven, and did not happen | ${falselyProven.lanes} | ${falselyProven.hits} | 0 |`,
  "",
  "## By exercise",
  "",
  "| exercise | one mistake | two | off the catalog, left at that | careful |",
  "|---|---|---|---|---|",
  ...[...bench.byExercise].map(
    ([id, row]) =>
      `| ${findDemoExercise(id).exercise.title} | ${share(row.single)} | ${share(row.pair)} | ${share(row.offCatalog)} | ${share(row.careful)} |`,
  ),
  "",
  "## By mistake",
  "",
  "| mistake | lanes | named first |",
  "|---|---|---|",
  ...[...bench.byMistake].map(([name, tally]) => `| ${name} | ${tally.lanes} | ${tally.hits} |`),
  "",
  "## Every miss on the bench",
  "",
  ...(bench.misses.length === 0
    ? ["None in this run.", ""]
    : [
        "| exercise | seed | value | what was done | said | closure, µm |",
        "|---|---|---|---|---|---|",
        ...bench.misses.map(
          (miss) =>
            `| ${miss.exercise} | ${miss.seed} | ${miss.target} | ${miss.mistake} | ${miss.said} | ${miss.closureUm} |`,
        ),
        "",
      ]),
];
writeFileSync("docs/diagnosis.md", [...bothWays, ...lines].join("\n"));
