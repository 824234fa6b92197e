// How far a thing is spread: files, tests left out, that name an instrument, a school of lathe Z or a mistake. What is
// new should need few of them; the figures here may fall and not rise.
import { execFileSync } from "node:child_process";
import { existsSync, readFileSync } from "node:fs";

const MOST = {
  "instrument lampGauge": [/\blampGauge\b/, 12],
  "instrument beamSetter": [/\bbeamSetter\b/, 10],
  "instrument presetter": [/\bpresetter\b/, 12],
  "school master-shift": [/"master-shift"/, 6],
  "school readout-library": [/"readout-library"/, 4],
  "school gang-bar": [/"gang-bar"/, 4],
  "mistake noseCenterX": [/\bnoseCenterX\b/, 2],
  "mistake librarySign": [/\blibrarySign\b/, 4],
  "mistake paperPinched": [/\bpaperPinched\b/, 2],
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
