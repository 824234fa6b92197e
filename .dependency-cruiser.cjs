/**
 * Imports go core ← contract ← server | web | cli; demo, bench and e2e may look at all of it, and nobody at them (but
 * the server's demo loader).
 */
const only = (name, from, allowed) => ({
  name,
  severity: "error",
  from: { path: from, pathNot: "\\.test\\.ts$|/test/" },
  to: { path: "^(apps|packages|demo|bench|e2e|scripts)/", pathNot: allowed },
});
module.exports = {
  forbidden: [
    only("core-imports-core", "^packages/core/", "^packages/core/"),
    only("contract-imports-core", "^packages/contract/", "^packages/(core|contract)/"),
    only("web-imports-contract-and-core", "^apps/web/", "^(apps/web|packages/(core|contract))/"),
    only(
      "server-imports-contract-and-core",
      "^apps/server/(?!demoData|shelf)",
      "^(apps/server|packages/(core|contract))/",
    ),
    only("cli-imports-core", "^apps/cli/", "^(apps/cli|packages/core)/"),
    only("students-import-core", "^packages/students/", "^packages/(students|core)/"),
    only("demo-imports-students-and-core", "^demo/", "^(demo|packages/(students|core))/"),
    {
      name: "features-apart",
      severity: "error",
      from: { path: "^apps/web/features/([^/]+)/" },
      to: { path: "^apps/web/features/", pathNot: "^apps/web/features/$1/" },
    },
    {
      name: "ui-below-features",
      severity: "error",
      from: { path: "^apps/web/ui/" },
      to: { path: "^apps/web/(features|app)/" },
    },
    {
      name: "core-is-pure",
      severity: "error",
      from: { path: "^packages/core/", pathNot: "\\.test\\.ts$|/test/" },
      to: { dependencyTypes: ["core"] },
    },
    {
      name: "core-needs-pure-libraries-only",
      severity: "error",
      from: { path: "^packages/core/", pathNot: "\\.test\\.ts$|/test/" },
      to: { path: "node_modules", pathNot: "node_modules/(zod|flatbush|@probe-lane)" },
    },
    { name: "no-circles", severity: "error", from: {}, to: { circular: true } },
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    doNotFollow: { path: "node_modules" },
    exclude: { path: "^(dist|\\.pg)/" },
    enhancedResolveOptions: {
      exportsFields: ["exports"],
      conditionNames: ["import", "default"],
      extensions: [".ts", ".tsx", ".js", ".json"],
    },
  },
};
