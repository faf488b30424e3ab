import { readFileSync } from "node:fs";
import tseslint from "typescript-eslint";
import importX, { createNodeResolver } from "eslint-plugin-import-x";
import reactHooks from "eslint-plugin-react-hooks";

/** The one-way rule: app and cli → handover → stage → core. Each layer names what it may not reach. */
function layer(files, forbidden, reason) {
  return {
    files,
    ignores: ["**/*.test.ts"],
    rules: {
      "no-restricted-imports": ["error", { patterns: [{ group: forbidden, message: reason }] }],
    },
  };
}

/** The arrows between the rooms of app/ as docs/architecture.md draws them: the fenced block called "rooms". */
function readArrows() {
  const page = readFileSync(new URL("docs/architecture.md", import.meta.url), "utf8");
  const drawn = /```rooms\n([\s\S]*?)```/.exec(page)[1];
  return drawn
    .trim()
    .split("\n")
    .map(line => {
      const [from, to = ""] = line.split("→");
      return { room: from.trim(), reaches: to.trim().split(/\s+/).filter(Boolean) };
    });
}

/** A room may reach itself and the rooms its arrows lead to; every other import is an arrow that is not drawn. */
const zones = readArrows().map(({ room, reaches }) => ({
  target: `./app/${room}`,
  from: "./app",
  except: [room, ...reaches].map(name => `./${name}`),
  message: `docs/architecture.md draws no arrow there from ${room}.`,
}));

/** Forbids reading the payload of a trace anywhere but in the records of core/trace/notes. */
const noPayload = {
  meta: {
    type: "problem",
    messages: { byHand: "Read notes by the columns of their kind (core/trace/notes)." },
  },
  create: context => ({
    "MemberExpression[property.name='payload']": node => context.report({ node, messageId: "byHand" }),
  }),
};

/** The fields of documents that are records by id, as `idRecord` reads them; some are lists in a program. */
const BY_ID = /^(lanes|bindings|zones)$/;
const BY_ID_OR_PLACE = /^(gates|controls)$/;

/** Forbids looking up an id in a plain record, where `constructor` and others are always found. */
const noInherited = {
  meta: {
    type: "problem",
    messages: { inherited: "An id may be named like an inherited member: use ownValue or a Map." },
  },
  create: context => ({
    "MemberExpression[computed=true]"({ object, property }) {
      const name = object.property?.name ?? object.name;
      const index = property.property?.name ?? property.name;
      const isPlace = index === undefined || index.length === 1;
      if ((BY_ID.test(name) && !isPlace) || (BY_ID_OR_PLACE.test(name) && /^(id|key|name)$/.test(index)))
        context.report({ node: property, messageId: "inherited" });
    },
  }),
};

const pureGlobals = ["Date", "performance", "setTimeout", "setInterval", "process", "window", "document"].map(
  name => ({
    name,
    message: "core, stage, handover and link know no clock, screen or process: take it as an argument.",
  }),
);

export default tseslint.config(
  { ignores: ["build/**", ".stamp/**", ".react-router/**", "node_modules/**"] },
  ...tseslint.configs.recommended,
  {
    plugins: { "import-x": importX },
    settings: { "import-x/resolver-next": [createNodeResolver({ extensions: [".ts", ".tsx", ".js"] })] },
    rules: {
      "@typescript-eslint/no-explicit-any": "error",
      "@typescript-eslint/no-unused-vars": ["error", { ignoreRestSiblings: true }],
      "@typescript-eslint/no-non-null-assertion": "off",
      "@typescript-eslint/consistent-type-imports": "error",
      "import-x/no-self-import": "error",
      "no-empty": ["error", { allowEmptyCatch: false }],
      eqeqeq: "error",
    },
  },
  {
    files: ["core/**/*.ts", "stage/**/*.ts", "handover/**/*.ts", "link/*.ts"],
    ignores: ["**/*.test.ts", "core/tests/**"],
    rules: {
      "no-restricted-globals": ["error", ...pureGlobals],
      "no-restricted-properties": [
        "error",
        { object: "Math", property: "random", message: "Chance is a seeded argument." },
      ],
    },
  },
  {
    // A note is read by the columns of its kind: an offset written by hand is wrong as soon as a column is added.
    files: ["**/*.ts", "**/*.tsx"],
    ignores: ["core/trace/**", "**/*.test.ts", "core/tests/**", "bench/**", "app/judging/jobs/evaluate.ts"],
    plugins: { notes: { rules: { "no-payload": noPayload } } },
    rules: { "notes/no-payload": "error" },
  },
  {
    files: ["**/*.ts", "**/*.tsx"],
    ignores: ["**/*.test.ts", "core/tests/**", "bench/**", "e2e/**"],
    plugins: { ids: { rules: { "no-inherited": noInherited } } },
    rules: { "ids/no-inherited": "error" },
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
    "handover stands on core and stage, and knows no screen.",
  ),
  layer(
    ["link/*.ts"],
    [
      "**/stage/**",
      "#stage",
      "**/handover/**",
      "#handover",
      "**/app/**",
      "**/cli/**",
      "react*",
      "node:*",
      "ws",
    ],
    "link knows only core, and no socket.",
  ),
  layer(["cli/**/*.ts"], ["**/app/**"], "cli stands beside app, not on it."),
  {
    files: ["app/**/*.ts", "app/**/*.tsx"],
    ignores: ["**/*.test.ts", "app/tests/**"],
    rules: {
      "import-x/no-restricted-paths": ["error", { zones }],
      "no-restricted-imports": [
        "error",
        {
          patterns: [
            { group: ["**/cli/**", "**/core/*/**", "**/core/*"], message: "Reach core through #core." },
          ],
        },
      ],
      // State is made by factories and handed down: nothing at the top of a module of app may change.
      "no-restricted-syntax": [
        "error",
        {
          selector: "Program > VariableDeclaration[kind='let']",
          message: "No module of app keeps state of its own: make it in a factory.",
        },
        {
          selector:
            "Program > VariableDeclaration > VariableDeclarator[init.type='NewExpression'][init.callee.name=/^(WeakMap|WeakSet)$/]",
          message: "No module of app keeps state of its own: make it in a factory.",
        },
      ],
    },
  },
  {
    // The rules of React compile every file, so they run only where there are components and hooks.
    files: ["app/**/*.tsx", "app/**/use*.ts", "app/**/*ontext.ts"],
    plugins: { "react-hooks": reactHooks },
    rules: { ...reactHooks.configs.recommended.rules, "react-hooks/exhaustive-deps": "error" },
  },
  {
    files: ["app/**/*.tsx"],
    ignores: ["app/ui/**"],
    rules: {
      "no-restricted-imports": [
        "error",
        {
          patterns: [
            { group: ["**/cli/**", "**/core/*/**", "**/core/*"], message: "Reach core through #core." },
            { group: ["@headlessui/*"], message: "Headless UI is wrapped in app/ui alone." },
          ],
        },
      ],
    },
  },
);
