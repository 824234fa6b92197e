import { writeFileSync } from "node:fs";
import { findDemoExercise, proveOutTables, type Tally } from "../demo";

/** `node --import tsx scripts/proveout-tables.ts`: writes docs/proveouts.md; a quarter of an hour. */
const LANES = 500;
const { named, moved, byExercise, misses } = proveOutTables(LANES);
const share = ({ lanes, hits }: Tally): string => `${((100 * hits) / lanes).toFixed(1)} %`;
const lines = [
  "# How well a prove-out tells the setup mistake",
  "",
  "Written by `scripts/proveout-tables.ts`: simulated students who make one mistake in the setup, run the program, measure the first part",
  "and put nothing right. A prove-out counts where the mistake puts a value outside its tolerance and a feature of the part with it, by more",
  "than tools give way and wear.",
  "",
  "| | of | result | goal |",
  "|---|---|---|---|",
  `| the ruling names the mistake, at every value | ${named.lanes} prove-outs | ${share(named)} | ≥ 99 % |`,
  `| a wrong feature lists a register that the mistake put off | ${moved.lanes} features | ${share(moved)} | ≥ 99 % |`,
  "",
  "## By exercise",
  "",
  "| exercise | prove-outs | named |",
  "|---|---|---|",
  ...[...byExercise].map(([id, { lanes, hits }]) => `| ${findDemoExercise(id).exercise.title} | ${lanes} | ${hits} |`),
  "",
  "## Every miss",
  "",
  ...(misses.length === 0
    ? ["None in this run."]
    : [
        "| exercise | seed | mistake | what |",
        "|---|---|---|---|",
        ...misses.map(({ exercise, seed, mistake, what }) => `| ${exercise} | ${seed} | ${mistake} | ${what} |`),
      ]),
  "",
];
writeFileSync("docs/proveouts.md", lines.join("\n"));
