import next from "eslint-config-next/core-web-vitals";
import typescript from "eslint-config-next/typescript";
import prettier from "eslint-config-prettier";

const config = [
  {
    ignores: [
      ".next/**",
      "node_modules/**",
      "data/**",
      "next-env.d.ts",
      "drizzle/**",
      "test-results/**",
      "playwright-report/**",
      ".cache/**",
      "src/core/resampling/engine/assembly/**", // AssemblyScript: its own compiler checks it
    ],
  },
  ...next,
  ...typescript,
  prettier,
  {
    rules: {
      "@typescript-eslint/no-explicit-any": "error",
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_" }],
      "@typescript-eslint/consistent-type-imports": ["error", { fixStyle: "inline-type-imports", disallowTypeAnnotations: false }],
      "no-console": "error",
      eqeqeq: ["error", "always", { null: "ignore" }],
      "no-restricted-syntax": [
        "error",
        { selector: "Property[key.name='gcTime']", message: "On the server its timer holds the whole page: leave it to the library." },
      ],
      "react-hooks/incompatible-library": "off", // the virtual list's own hook; its parts are not memoized here
    },
  },
  {
    // foreign JSON (reference sets, results) is walked as it comes
    files: ["**/*.test.ts", "src/*/test-support/**", "e2e/**"],
    rules: { "@typescript-eslint/no-explicit-any": "off" },
  },
  {
    files: ["src/core/**/*.ts"],
    ignores: ["src/core/**/*.test.ts", "src/core/test-support/**"],
    rules: {
      // the core is pure: no clock, chance, environment or page
      "no-restricted-globals": ["error", "window", "document", "fetch", "process", "navigator", "Date", "setTimeout", "localStorage"],
      "no-restricted-properties": ["error", { object: "Math", property: "random", message: "Take a RandomStream as an argument." }],
    },
  },
];
export default config;
