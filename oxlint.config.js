import { defineConfig } from "oxlint";

/** The one-way rule: app and cli → handover → stage → core. Each layer names what it may not reach. */
function layer(files, forbidden, message) {
  return {
    files,
    excludeFiles: ["**/*.test.ts"],
    rules: { "no-restricted-imports": ["error", { patterns: [{ group: forbidden, message }] }] },
  };
}

const throughCore = {
  group: ["**/cli/**", "**/core/*/**", "**/core/*"],
  message: "Reach core through #core.",
};
const throughUi = { group: ["@headlessui/*"], message: "Headless UI is wrapped in app/ui alone." };

const pureGlobals = ["Date", "performance", "setTimeout", "setInterval", "process", "window", "document"].map(
  name => ({
    name,
    message: "core, stage, handover and link know no clock, screen or process: take it as an argument.",
  }),
);

/** The rules of React and of its compiler. */
const react = [
  "rules-of-hooks",
  "exhaustive-deps",
  "static-components",
  "use-memo",
  "preserve-manual-memoization",
  "incompatible-library",
  "immutability",
  "globals",
  "refs",
  "set-state-in-effect",
  "error-boundaries",
  "purity",
  "set-state-in-render",
  "unsupported-syntax",
];

export default defineConfig({
  ignorePatterns: ["build/**", ".stamp/**", ".react-router/**", "node_modules/**"],
  plugins: ["eslint", "typescript", "oxc", "import", "react"],
  jsPlugins: ["./lint/rules.js"],
  categories: { correctness: "error" },
  rules: {
    "typescript/no-explicit-any": "error",
    "typescript/no-unused-vars": ["error", { ignoreRestSiblings: true }],
    "typescript/consistent-type-imports": "error",
    "import/no-self-import": "error",
    "no-control-regex": "off",
    "no-empty": ["error", { allowEmptyCatch: false }],
    eqeqeq: "error",
  },
  overrides: [
    {
      files: ["core/**/*.ts", "stage/**/*.ts", "handover/**/*.ts", "link/*.ts"],
      excludeFiles: ["**/*.test.ts", "core/tests/**"],
      rules: {
        "no-restricted-globals": ["error", ...pureGlobals],
        "no-restricted-properties": [
          "error",
          { object: "Math", property: "random", message: "Chance is a seeded argument." },
        ],
      },
    },
    {
      // A note is read by the columns of its kind: an offset written by hand is wrong once a column is added.
      files: ["**/*.ts", "**/*.tsx"],
      excludeFiles: [
        "core/trace/**",
        "**/*.test.ts",
        "core/tests/**",
        "bench/**",
        "app/judging/jobs/evaluate.ts",
      ],
      rules: { "moss/no-payload": "error" },
    },
    {
      files: ["**/*.ts", "**/*.tsx"],
      excludeFiles: ["**/*.test.ts", "core/tests/**", "bench/**", "e2e/**"],
      rules: { "moss/no-inherited": "error" },
    },
    {
      files: ["app/**/*.ts", "app/**/*.tsx", "core/**/*.ts", "stage/**/*.ts", "handover/**/*.ts"],
      excludeFiles: ["**/*.test.ts", "app/judging/jobs/jobs.worker.ts", "app/player/main.ts", "app/entry.*"],
      rules: { "moss/no-effects": "error" },
    },
    layer(
      ["core/**/*.ts"],
      ["**/stage/**", "#stage", "**/handover/**", "#handover", "**/app/**", "**/cli/**", "react*", "node:*"],
      "core knows nothing above it.",
    ),
    layer(
      ["core/program/**/*.ts"],
      ["**/patterns/**", "**/kit/**", "**/run/**", "**/study/**", "**/checks/**", "#*", "react*", "node:*"],
      "patterns are written against programs and states, which know no kind of pattern.",
    ),
    layer(
      ["stage/**/*.ts"],
      ["**/handover/**", "#handover", "**/app/**", "**/cli/**", "react*", "node:*"],
      "stage knows only core.",
    ),
    layer(
      ["handover/**/*.ts"],
      ["**/app/**", "**/cli/**", "react*", "node:*"],
      "handover uses core and stage, and knows no screen.",
    ),
    layer(
      ["link/*.ts"],
      [
        ...["**/stage/**", "#stage", "**/handover/**", "#handover", "**/app/**", "**/cli/**"],
        ...["react*", "node:*", "ws"],
      ],
      "link knows only core, and no socket.",
    ),
    layer(["cli/**/*.ts"], ["**/app/**"], "cli is built beside app, not on it."),
    {
      files: ["app/**/*.ts", "app/**/*.tsx"],
      excludeFiles: ["**/*.test.ts", "app/tests/**"],
      rules: {
        "moss/arrows": "error",
        "moss/no-module-state": "error",
        "no-restricted-imports": ["error", { patterns: [throughCore] }],
      },
    },
    {
      // The rules of React compile every file, so they run only where there are components and hooks.
      files: ["app/**/*.tsx", "app/**/use*.ts", "app/**/*ontext.ts"],
      rules: Object.fromEntries(react.map(name => [`react/${name}`, "error"])),
    },
    {
      files: ["app/**/*.tsx"],
      excludeFiles: ["app/ui/**"],
      rules: { "no-restricted-imports": ["error", { patterns: [throughCore, throughUi] }] },
    },
  ],
});
