/** Arrows of the house: core <- study <- files, server, compute <- features <- app; ui takes only types from core and study. */
const rule = (name, comment, from, to) => ({ name, comment, severity: "error", from, to });
const test = "\\.test\\.tsx?$|/test-support/";

module.exports = {
  forbidden: [
    rule("no-circles", "Files do not import each other in a loop.", {}, { circular: true }),
    rule(
      "core-stands-alone",
      "The core knows nothing of the house around it.",
      { path: "^src/core/", pathNot: test },
      { path: "^src/(?!core/)" },
    ),
    rule(
      "core-is-pure",
      "No Node, React, Next or database in the core.",
      { path: "^src/core/", pathNot: test },
      {
        path: "^(node:|fs|path|crypto|worker_threads)|node_modules/(react|react-dom|next|antd|better-sqlite3|drizzle-orm|@tanstack)/",
        dependencyTypesNot: ["type-only"],
      },
    ),
    rule("study-on-core", "The study stands on the core only.", { path: "^src/study/", pathNot: test }, { path: "^src/(?!core/|study/)" }),
    rule(
      "study-is-pure",
      "The study's rules run in a worker: no Node, no page.",
      { path: "^src/study/", pathNot: test },
      { path: "^(node:|fs|path)|node_modules/(react|react-dom|next|antd|better-sqlite3|drizzle-orm)/" },
    ),
    rule(
      "inside-the-study",
      "model <- prepare <- analyse <- report.",
      { path: "^src/study/model/" },
      { path: "^src/study/(prepare|analyse|report)/" },
    ),
    rule(
      "prepare-before-analyse",
      "model <- prepare <- analyse <- report.",
      { path: "^src/study/prepare/", pathNot: test },
      { path: "^src/study/(analyse|report)/" },
    ),
    rule(
      "analyse-before-report",
      "model <- prepare <- analyse <- report.",
      { path: "^src/study/analyse/", pathNot: test },
      { path: "^src/study/report/" },
    ),
    rule(
      "files-on-study",
      "Files turn bytes into study objects: no database, no page.",
      { path: "^src/files/" },
      { path: "^src/(server|compute|features|ui|app)/" },
    ),
    rule("server-below-features", "The server knows no screen.", { path: "^src/server/" }, { path: "^src/(compute|features|ui|app)/" }),
    rule(
      "compute-below-features",
      "Jobs know no screen and no database.",
      { path: "^src/compute/" },
      { path: "^src/(server|features|ui|app)/" },
    ),
    rule(
      "browser-without-node",
      "What runs in the page imports nothing of Node.",
      { path: "^src/(compute/browser|compute/protocol|features|ui)/", pathNot: test },
      { path: "^node:|^src/server/|^src/compute/node/" },
    ),
    rule("features-below-app", "Screens do not import routes.", { path: "^src/features/" }, { path: "^src/app/" }),
    rule(
      "rooms-apart",
      "One place does not reach into another; what they share stands in features/study.",
      { path: "^src/features/([^/]+)/" },
      { path: "^src/features/", pathNot: ["^src/features/$1/", "^src/features/study/"] },
    ),
    rule(
      "ui-only-types",
      "Shared parts take only types from core and study.",
      { path: "^src/ui/", pathNot: test },
      { path: "^src/(core|study)/", dependencyTypesNot: ["type-only"] },
    ),
    rule("ui-below-features", "Shared parts know no screen.", { path: "^src/ui/" }, { path: "^src/(features|app|server|compute|files)/" }),
    rule("no-tests-in-the-house", "Nothing that ships imports a test or what supports one.", { pathNot: `${test}|^e2e/` }, { path: test }),
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    enhancedResolveOptions: { exportsFields: ["exports"], conditionNames: ["import", "require", "node", "default", "types"] },
  },
};
