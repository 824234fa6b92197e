// How far a thing is spread: files, tests left out, that name an instrument, a school of lathe Z or a mistake. What is
// new should need few of them; the figures here may fall and not rise.
import { execFileSync } from "node:child_process";
import { existsSync, readFileSync } from "node:fs";

const MOST = {
  "instrument lampGauge": [/\blampGauge\b/, 22],
  "instrument beamSetter": [/\bbeamSetter\b/, 10],
  "instrument presetter": [/\bpresetter\b/, 13],
  "school master-shift": [/"master-shift"/, 12],
  "school readout-library": [/"readout-library"/, 5],
  "school gang-bar": [/"gang-bar"/, 5],
  "mistake noseCenterX": [/\bnoseCenterX\b/, 3],
  "mistake librarySign": [/\blibrarySign\b/, 6],
  "mistake paperPinched": [/\bpaperPinched\b/, 6],
};
const texts = execFileSync("git", ["ls-files", "-co", "--exclude-standard", "packages", "apps"], { encoding: "utf8" })
  .split("\n")
  .filter((file) => /\.tsx?$/.test(file) && existsSync(file) && !/\.test\.ts$|\/test\//.test(file))
  .map((file) => readFileSync(file, "utf8"));
let isWider = texts.length === 0;
for (const [name, [pattern, most]] of Object.entries(MOST)) {
  const files = texts.filter((text) => pattern.test(text)).length;
  if (files > most || files === 0) isWider = true;
  console.log(`${name}: ${files} files of at most ${most}`);
}
process.exit(isWider ? 1 : 0);
