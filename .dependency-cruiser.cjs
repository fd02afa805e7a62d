/** Import directions of the house (see ARCHITECTURE.md). Checked by scripts/checkImports.mjs. */

/** Rooms of core from the ground up: each imports only rooms named before it. */
const coreRooms = [
  ...["quantities", "numerics", "constants", "capacitors", "readings", "board", "facts", "quickEntry"],
  ...["incircuit", "ripple", "waveform", "life", "discharge"],
  ...["judgement", "faults", "measuring", "safety", "replacement", "rework", "proof", "runs", "economics"],
  ...["stock", "casebook", "job", "practice"],
];

const rule = (name, from, to, comment = "") => ({ name, comment, severity: "error", from, to });
const source = (path) => ({ path, pathNot: "[.]test[.]tsx?$" });
const below = "(?!src/index|testing/)";

module.exports = {
  forbidden: [
    rule(
      "core-imports-nothing",
      source("^core/src"),
      { pathNot: "^core/src" },
      "pure: no package, no Node, no neighbour",
    ),
    ...coreRooms.map((room, n) => {
      const allowed = `^core/src/((${coreRooms.slice(0, n + 1).join("|")})/|errors[.]ts$|coreVersion[.]ts$)`;
      return rule(`core-room-${room}`, source(`^core/src/${room}/`), { path: "^core/src/", pathNot: allowed });
    }),
    rule(
      "core-rooms-are-known",
      source(`^core/src/(?!(${coreRooms.join("|")})/)[^/]+/`),
      {},
      "a new room has its place in the order",
    ),
    rule("core-reference-imports-core", source("^core/reference"), { pathNot: "^core/" }),
    rule("contract-imports-core", source("^contract/src"), {
      pathNot: ["^contract/src", "^core/src/index", "node_modules/yup"],
    }),
    rule("wording-imports-core-and-contract", source("^wording/src"), {
      pathNot: ["^wording/src", "^(core|contract)/src/index", "node_modules/dayjs"],
    }),
    rule(
      "bench-stands-on-contract",
      { path: "^bench/" },
      {
        path: ["^(server|web|wording|e2e)/", `^core/${below}`, "^contract/(?!src/index|testing/)"],
      },
    ),
    rule(
      "server-never-meets-web",
      { path: "^server/" },
      {
        path: [
          "^web/",
          "^e2e/",
          "^bench/(?!src/index)",
          `^core/${below}`,
          "^(contract|wording)/(?!src/index|testing/)",
        ],
      },
    ),
    rule(
      "web-never-meets-server",
      { path: "^web/" },
      {
        path: ["^server/", "^e2e/", "^bench/", `^core/${below}`, "^(contract|wording)/(?!src/index|testing/)"],
      },
    ),
    rule(
      "features-are-strangers",
      { path: "^server/src/features/([^/]+)/" },
      {
        path: "^server/src/features/",
        pathNot: "^server/src/features/$1/",
      },
    ),
    rule(
      "lenses-and-places-are-strangers",
      { path: "^web/src/((lenses|places)/[^/]+)/" },
      {
        path: "^web/src/(lenses|places)/",
        pathNot: "^web/src/$1/",
      },
    ),
    rule(
      "nothing-imports-lenses-but-app",
      { path: "^web/src/(?!lenses/|places/|app/|main)" },
      {
        path: "^web/src/(lenses|places)/",
      },
    ),
    rule("nothing-imports-app-but-main", { path: "^web/src/(?!app/|main)" }, { path: "^web/src/app/(?!store/)" }),
    rule(
      "ui-is-field-free",
      { path: "^web/src/(ui|api)/" },
      {
        path: "^web/src/(job|probe|outbox|drawing|lenses|places|workers)/",
      },
    ),
    rule(
      "drawing-knows-no-job",
      { path: "^web/src/drawing/" },
      {
        path: "^web/src/(job|probe|outbox|lenses|places|workers)/",
      },
    ),
    rule("job-knows-no-probe", { path: "^web/src/job/" }, { path: "^web/src/probe/" }),
    rule("yup-stays-in-contract", source("^(core|wording|web)/"), { path: "node_modules/yup" }),
    rule("nothing-unresolved", {}, { couldNotResolve: true, pathNot: "[.]module[.]css$|^virtual:" }),
    rule("no-circles", {}, { circular: true }, "circles through types alone count"),
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
