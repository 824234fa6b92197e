// Script sent to a browser, gzip: the first screen and what the bench adds, by the build's own list of imports. Targets
// of the design.
import { readFileSync } from "node:fs";
import { gzipSync } from "node:zlib";

const LIMITS_KB = { first: 150, bench: 90 };
const manifest = JSON.parse(readFileSync("dist/web/.vite/manifest.json", "utf8"));
const closure = (key, seen = new Set()) => {
  if (seen.has(key)) return seen;
  seen.add(key);
  for (const next of manifest[key].imports ?? []) closure(next, seen);
  return seen;
};
const kb = (keys) =>
  [...keys].reduce((sum, key) => sum + gzipSync(readFileSync(`dist/web/${manifest[key].file}`)).length / 1000, 0);
const entry = Object.keys(manifest).find((key) => manifest[key].isEntry);
const page = Object.keys(manifest).find((key) => key.endsWith("BenchPage.tsx"));
const first = closure(entry);
const bench = [...closure(page)].filter((key) => !first.has(key));
console.log(
  `script, gzip kB: first screen ${kb(first).toFixed(1)} of ${LIMITS_KB.first}, bench ${kb(bench).toFixed(1)} of ${LIMITS_KB.bench} more`,
);
process.exit(
  first.size > 0 && bench.length > 0 && kb(first) <= LIMITS_KB.first && kb(bench) <= LIMITS_KB.bench ? 0 : 1,
);
