/** Import directions of the house (see ARCHITECTURE.md). Checked by scripts/checkImports.mjs. */
const only = (name, from, allowed, comment) => ({
  name,
  comment,
  severity: "error",
  from: { path: from, pathNot: "[.]test[.]tsx?$" },
  to: { pathNot: allowed },
});

module.exports = {
  forbidden: [
    only("core-imports-nothing", "^core/src", ["^core/src"], "core is pure: no package, no Node, no neighbour"),
    only("core-reference-imports-core", "^core/reference", ["^core/"], "the reference adapter knows core only"),
    only(
      "contract-imports-core",
      "^contract/src",
      ["^contract/src", "^core/src/index", "node_modules/yup"],
      "schemas stand on core and Yup",
    ),
    {
      name: "bench-stands-on-contract",
      comment: "the simulated instruments know core and contract; nothing but their port is known of them",
      severity: "error",
      from: { path: "^bench/" },
      to: { path: ["^(server|web|e2e)/", "^core/(?!src/index|testing/)", "^contract/(?!src/index)"] },
    },
    {
      name: "server-never-meets-web",
      severity: "error",
      from: { path: "^server/" },
      to: {
        path: ["^web/", "^e2e/", "^bench/(?!src/index)", "^core/(?!src/index|testing/)", "^contract/(?!src/index)"],
      },
    },
    {
      name: "web-never-meets-server",
      severity: "error",
      from: { path: "^web/" },
      to: { path: ["^server/", "^e2e/", "^bench/", "^core/(?!src/index|testing/)", "^contract/(?!src/index)"] },
    },
    {
      name: "features-are-strangers",
      comment: "share downward: web has job, probe, drawing, ui, wording; server has records, http, database",
      severity: "error",
      from: { path: "^(web|server)/src/features/([^/]+)/" },
      to: { path: "^$1/src/features/", pathNot: "^$1/src/features/$2/" },
    },
    {
      name: "nothing-imports-features-but-app",
      severity: "error",
      from: { path: "^web/src/(?!features/|app/|main)" },
      to: { path: "^web/src/(features|app)/" },
    },
    {
      name: "ui-is-field-free",
      severity: "error",
      from: { path: "^web/src/(ui|wording)/" },
      to: { path: "^web/src/(job|probe|drawing|features|workers)/" },
    },
    {
      name: "drawing-knows-no-job",
      severity: "error",
      from: { path: "^web/src/drawing/" },
      to: { path: "^web/src/(job|probe|features|workers)/" },
    },
    {
      name: "yup-stays-in-contract",
      severity: "error",
      from: { path: "^(core|web)/", pathNot: "[.]test[.]tsx?$" },
      to: { path: "node_modules/yup" },
    },
    {
      name: "nothing-unresolved",
      severity: "error",
      from: {},
      to: { couldNotResolve: true, pathNot: "[.]module[.]css$" },
    },
    {
      name: "no-circles",
      severity: "error",
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ["type-only"] } },
    },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    exclude: { path: "[.]css$|^web/dist/" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.base.json" },
    enhancedResolveOptions: {
      exportsFields: ["exports"],
      conditionNames: ["import", "require", "node", "default", "types"],
      mainFields: ["module", "main", "types"],
      extensions: [".ts", ".tsx", ".mjs", ".js", ".json", ".d.ts"],
    },
  },
};
