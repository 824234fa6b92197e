// Bundles the server; our own rooms go in, registry packages stay outside.
import { readFileSync } from "node:fs";
import { build } from "esbuild";

const { dependencies } = JSON.parse(readFileSync("apps/server/package.json", "utf8"));
const external = Object.keys(dependencies)
  .filter((name) => !name.startsWith("@probe-lane/"))
  .flatMap((name) => [name, `${name}/*`]);
await build({
  // the worker thread's file lies beside the server
  entryPoints: {
    main: "apps/server/main.ts",
    worker: "apps/server/jobs/worker.ts",
    makeCertificate: "apps/server/makeCertificate.ts",
  },
  outdir: "dist/server",
  bundle: true,
  platform: "node",
  format: "esm",
  target: "node20",
  sourcemap: true,
  external,
  logLevel: "warning",
});
