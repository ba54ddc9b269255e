/** Who may use whom. Inside the core each room uses only the rooms before it. */
const ORDER = [
  "units",
  "infra",
  "geo",
  "terrain",
  "obstacles",
  "propagation",
  "antenna",
  "radio",
  "link",
  "rack",
  "hub",
  "load",
  "air",
  "wiring",
  "kit",
  "days",
  "solve",
  "aim",
  "roof",
  "page",
];

const coreRules = ORDER.map((room, i) => ({
  name: `core-${room}-order`,
  severity: "error",
  from: { path: `^src/core/${room}/`, pathNot: "\\.(test|bench)\\.ts$" },
  to: { path: `^src/core/(${ORDER.slice(i + 1).join("|") || "nothing"})/` },
}));

const only = (room, allowed) => ({
  name: `${room}-uses-only`,
  severity: "error",
  // What only tests use may reach over the routes, as tests do.
  from: { path: `^src/${room}/`, pathNot: "\\.(test|bench)\\.ts$|^src/service/people/testing/" },
  to: { path: "^src/", pathNot: `^src/(${[room, ...allowed].join("|")})(/|$)|^src/types\\.d\\.ts$` },
});

module.exports = {
  forbidden: [
    ...coreRules,
    only("core", []),
    only("formats", ["core"]),
    only("contract", ["core"]),
    only("data", ["core", "contract"]),
    only("service", ["core", "contract", "data", "formats", "pack"]),
    // Pages of the pack: the words and scales of the sheets, none of their parts.
    only("pack", [
      "core",
      "contract",
      "ui/wording",
      "ui/drawing/section-scale.ts",
      "ui/drawing/ticks.ts",
      "ui/sheets/wiring/wiring-view.ts",
    ]),
    only("jobs", ["core", "contract", "data", "formats", "service", "pack"]),
    only("workers", ["core"]),
    only("cli", ["core", "formats"]),
    only("front", []),
    only("ops", ["core", "contract", "data", "service"]),
    only("ui", ["core", "contract", "workers"]),
    only("app", ["core", "contract", "data", "formats", "jobs", "pack", "service", "ui"]),
    {
      name: "core-by-its-index",
      comment: "Other rooms use what a folder of the core lists in its index.",
      severity: "error",
      from: { path: "^src/(?!core/)", pathNot: "\\.(test|bench)\\.ts$" },
      to: { path: "^src/core/[a-z]+/(?!index\\.ts$)", pathNot: "\\.json$" },
    },
    {
      name: "plain-shares-only-tables",
      comment: "The slow, readable version proves the fast one: they share no code.",
      severity: "error",
      from: { path: "^src/core/testing/plain/" },
      to: { path: "^src/", pathNot: "^src/core/testing/plain/|/tables/.*\\.json$" },
    },
    {
      name: "core-is-pure",
      severity: "error",
      from: { path: "^src/core/", pathNot: "\\.(test|bench)\\.ts$" },
      to: { dependencyTypes: ["core"] },
    },
    {
      name: "no-circular",
      severity: "error",
      from: { pathNot: "^node_modules" },
      to: { circular: true, viaOnly: { dependencyTypesNot: ["type-only"] } },
    },
    { name: "no-orphan-packages", severity: "error", from: {}, to: { couldNotResolve: true } },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.tools.json" },
    enhancedResolveOptions: {
      exportsFields: ["exports"],
      conditionNames: ["import", "require", "node", "default", "types"],
      mainFields: ["module", "main", "types"],
    },
  },
};
