import { readFileSync } from "node:fs";
import { dirname, relative, resolve } from "node:path";

const app = new URL("../app", import.meta.url).pathname;

/**
 * Returns the arrows between the rooms of app/ that docs/architecture.md draws in its fenced block "rooms":
 * for each room the rooms and files that it may import, as paths below app/.
 */
function readArrows() {
  const page = readFileSync(new URL("../docs/architecture.md", import.meta.url), "utf8");
  const [, drawn] = /```rooms\n([\s\S]*?)```/.exec(page);
  return drawn
    .trim()
    .split("\n")
    .map(line => {
      const [from, to = ""] = line.split("→");
      return { room: from.trim(), reaches: to.trim().split(/\s+/).filter(Boolean) };
    });
}

const ARROWS = readArrows();

const isIn = (path, room) => path === room || path.startsWith(`${room}/`);

/** Forbids imports between rooms of app/ for which docs/architecture.md draws no arrow. */
const arrows = {
  meta: { type: "problem" },
  create(context) {
    const directory = dirname(context.physicalFilename);
    const own = relative(app, context.physicalFilename);
    const rows = ARROWS.filter(({ room }) => isIn(own, room));
    function judge({ source }) {
      if (!source?.value?.startsWith(".")) return;
      const path = relative(app, resolve(directory, source.value));
      if (path.startsWith("..")) return;
      for (const { room, reaches } of rows)
        if (![room, ...reaches].some(reached => isIn(path, reached.replace(/\.tsx?$/, ""))))
          context.report({
            node: source,
            message: `docs/architecture.md draws no arrow from ${room} to ${path}.`,
          });
    }
    return {
      ImportDeclaration: judge,
      ExportNamedDeclaration: judge,
      ExportAllDeclaration: judge,
      ImportExpression: judge,
    };
  },
};

/** Forbids reading the payload of a trace anywhere but in the records of core/trace/notes. */
const noPayload = {
  meta: { type: "problem" },
  create: context => ({
    MemberExpression(node) {
      if (!node.computed && node.property.name === "payload")
        context.report({ node, message: "Read notes by the columns of their kind (core/trace/notes)." });
    },
  }),
};

/** The fields of documents that are records by id, as `idRecord` reads them; some are lists in a program. */
const BY_ID = /^(lanes|bindings|zones)$/;
const BY_ID_OR_PLACE = /^(gates|controls)$/;

/** Forbids looking up an id in a plain record, where `constructor` and others are always found. */
const noInherited = {
  meta: { type: "problem" },
  create: context => ({
    MemberExpression({ computed, object, property }) {
      if (!computed) return;
      const name = object.property?.name ?? object.name;
      const index = property.property?.name ?? property.name;
      const isPlace = index === undefined || index.length === 1;
      if ((BY_ID.test(name) && !isPlace) || (BY_ID_OR_PLACE.test(name) && /^(id|key|name)$/.test(index)))
        context.report({
          node: property,
          message: "An id may be named like an inherited member: use ownValue or a Map.",
        });
    },
  }),
};

/** Forbids state at the top of a module: it is made by factories and handed down. */
const noModuleState = {
  meta: { type: "problem" },
  create: context => ({
    Program({ body }) {
      for (const statement of body) {
        const declaration = statement.declaration ?? statement;
        if (declaration.type !== "VariableDeclaration") continue;
        const mutable = declaration.declarations.find(
          ({ init }) => init?.type === "NewExpression" && /^Weak(Map|Set)$/.test(init.callee.name),
        );
        if (declaration.kind === "let" || mutable !== undefined)
          context.report({
            node: mutable ?? declaration,
            message: "No module of app keeps state of its own: make it in a factory.",
          });
      }
    },
  }),
};

/**
 * Forbids calls at the top of a module whose results nobody takes. The build leaves out modules of which nothing is used, with
 * everything they do (`sideEffects` in package.json).
 */
const noEffects = {
  meta: { type: "problem" },
  create: context => ({
    Program({ body }) {
      for (const statement of body)
        if (statement.type === "ExpressionStatement" && /Call|Await|New/.test(statement.expression.type))
          context.report({
            node: statement,
            message: "The build may leave this out: put it into a function.",
          });
    },
  }),
};

export default {
  meta: { name: "moss" },
  rules: {
    arrows,
    "no-payload": noPayload,
    "no-inherited": noInherited,
    "no-module-state": noModuleState,
    "no-effects": noEffects,
  },
};
