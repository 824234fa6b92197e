// Script sent to a browser, gzip: the first screen and what the bench adds. Targets of the design.
import { readdirSync, readFileSync } from "node:fs";
import { gzipSync } from "node:zlib";

const LIMITS_KB = { first: 190, bench: 130 };
const folder = "dist/web/assets";
const names = readdirSync(folder).filter((name) => name.endsWith(".js"));
const kb = (list) => list.reduce((sum, name) => sum + gzipSync(readFileSync(`${folder}/${name}`)).length / 1000, 0);
const first = kb(names.filter((name) => name.startsWith("index-")));
// everything the bench may load beyond the first screen; shared pieces counted whole
const bench = kb(names.filter((name) => !/^(index|RulingPage|MarksPage|WallPage)-/.test(name)));
console.log(`script, gzip kB: first screen ${first.toFixed(1)} of ${LIMITS_KB.first}, bench ${bench.toFixed(1)} of ${LIMITS_KB.bench} more`);
process.exit(names.length > 3 && first > 0 && first <= LIMITS_KB.first && bench <= LIMITS_KB.bench ? 0 : 1);
