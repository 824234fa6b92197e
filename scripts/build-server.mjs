// Bundles the server; our own rooms go in, registry packages stay outside.
import { readFileSync } from "node:fs";
import { build } from "esbuild";

const { dependencies } = JSON.parse(readFileSync("apps/server/package.json", "utf8"));
const external = Object.keys(dependencies).filter((name) => !name.startsWith("@probe-lane/")).flatMap((name) => [name, `${name}/*`]);
await build({
  entryPoints: ["apps/server/main.ts"], outfile: "dist/server/main.js", bundle: true, platform: "node", format: "esm", target: "node20",
  sourcemap: true, external, logLevel: "warning",
});
