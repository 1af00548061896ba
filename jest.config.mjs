const transform = {
  "^.+\\.(t|j)sx?$": [
    "@swc/jest",
    {
      jsc: { parser: { syntax: "typescript", tsx: true }, transform: { react: { runtime: "automatic" } }, target: "es2022" },
      module: { type: "commonjs" },
    },
  ],
};
const shared = {
  transform,
  // a test's globals are looked up through its sandbox, which takes longer than a multiplication: handed to each module, arithmetic is ten times faster
  sandboxInjectedGlobals: ["Math", "Number", "Array", "Object", "Map", "Set", "Float64Array", "Int32Array", "Uint8Array", "Uint32Array"],
  transformIgnorePatterns: ["/node_modules/(?!(@noble/hashes|d3|d3-[a-z0-9-]+|internmap|delaunator|robust-predicates|csv-parse)/)"],
  moduleNameMapper: {
    "^(d3-(?:color|format|interpolate|path|time|time-format))$": "<rootDir>/node_modules/$1/dist/$1.js",
    "\\.css$": "<rootDir>/src/ui/test-support/empty-style.ts",
    "^@/(.*)$": "<rootDir>/src/$1",
  },
  testPathIgnorePatterns: ["/node_modules/", "/.next/", "/e2e/"],
  modulePathIgnorePatterns: ["<rootDir>/.next/"],
};
/** Node for *.test.ts, a DOM for *.test.tsx. */
const config = {
  // a slow hour is no fault: how fast things are stands in bench/
  testTimeout: 180_000,
  // one fewer than there are processors is one on a machine with two
  maxWorkers: "100%",
  globalSetup: "<rootDir>/scripts/build-kernel.mjs",
  projects: [
    { ...shared, displayName: "node", testEnvironment: "node", testMatch: ["<rootDir>/{src,demo,scripts}/**/*.test.ts"] },
    {
      ...shared,
      displayName: "dom",
      testEnvironment: "jsdom",
      testMatch: ["<rootDir>/src/**/*.test.tsx"],
      setupFilesAfterEnv: ["<rootDir>/src/ui/test-support/dom-setup.ts"],
    },
  ],
};

export default config;
