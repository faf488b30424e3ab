import tseslint from "typescript-eslint";
import importX, { createNodeResolver } from "eslint-plugin-import-x";
import reactHooks from "eslint-plugin-react-hooks";

/** The one-way rule: app and cli → stage → core. Each room names what it may not reach. */
function room(files, forbidden, reason) {
  return {
    files,
    rules: {
      "no-restricted-imports": ["error", { patterns: [{ group: forbidden, message: reason }] }],
    },
  };
}

const pureGlobals = ["Date", "performance", "setTimeout", "setInterval", "process", "window", "document"].map(
  name => ({ name, message: "core and stage know no clock, screen or process: take it as an argument." }),
);

export default tseslint.config(
  { ignores: ["build/**", ".react-router/**", "node_modules/**"] },
  ...tseslint.configs.recommended,
  {
    plugins: { "import-x": importX },
    settings: { "import-x/resolver-next": [createNodeResolver({ extensions: [".ts", ".tsx", ".js"] })] },
    rules: {
      "@typescript-eslint/no-explicit-any": "error",
      "@typescript-eslint/no-unused-vars": ["error", { ignoreRestSiblings: true }],
      "@typescript-eslint/no-non-null-assertion": "off",
      "@typescript-eslint/consistent-type-imports": "error",
      "import-x/no-cycle": "error",
      "import-x/no-self-import": "error",
      "no-empty": ["error", { allowEmptyCatch: false }],
      eqeqeq: "error",
    },
  },
  {
    files: ["core/**/*.ts", "stage/**/*.ts"],
    ignores: ["**/*.test.ts", "core/tests/**"],
    rules: {
      "no-restricted-globals": ["error", ...pureGlobals],
      "no-restricted-properties": [
        "error",
        { object: "Math", property: "random", message: "Chance is a seeded argument." },
      ],
    },
  },
  room(
    ["core/**/*.ts"],
    ["**/stage/**", "#stage", "**/app/**", "**/cli/**", "react*", "node:*"],
    "core knows nothing above it.",
  ),
  room(["stage/**/*.ts"], ["**/app/**", "**/cli/**", "react*", "node:*"], "stage knows only core."),
  room(["cli/**/*.ts"], ["**/app/**"], "cli stands beside app, not on it."),
  {
    files: ["app/**/*.ts", "app/**/*.tsx"],
    ignores: ["**/*.test.ts"],
    plugins: { "react-hooks": reactHooks },
    rules: {
      ...reactHooks.configs.recommended.rules,
      "no-restricted-imports": [
        "error",
        {
          patterns: [
            { group: ["**/cli/**", "**/core/*/**", "**/core/*"], message: "Reach core through #core." },
          ],
        },
      ],
    },
  },
);
