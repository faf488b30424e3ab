import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import ts from "typescript";
import { expect, test } from "vitest";
import { EXPECTATION_NAMES, PATTERN_KIND_NAMES } from "#core";
import { EXPORT_FORMATS } from "#handover";
import { STAGE_KIND_NAMES } from "#stage";

/** The names of kinds, with the folders where code may ask for one of them by name. */
const REGISTRIES: readonly { readonly names: ReadonlySet<string>; readonly own: RegExp }[] = [
  {
    names: new Set(PATTERN_KIND_NAMES),
    // The editors of a kind's own map, and the rules that starters and goals consist of.
    own: /^core\/patterns\/|^core\/kit\/ingredients|^app\/maps\/(Curve|Sequence|Tap|tries)|^app\/edits\/(starters|goals)\//,
  },
  // The panel of Prove lays the kept story of a check over the present one.
  { names: new Set(EXPECTATION_NAMES), own: /^core\/checks\/expectations\/|^app\/prove\/Finding/ },
  {
    names: new Set(STAGE_KIND_NAMES),
    // Play opens the level editor of a runner; starters and goals choose their stage.
    own: /\/(runner|duel|ropes)\/|^app\/play\/PlayView|^app\/edits\/(starters|goals)\//,
  },
  { names: new Set(EXPORT_FORMATS.map(({ id }) => id)), own: /^handover\// },
];

const isLiteral = (node: ts.Node): node is ts.StringLiteral => ts.isStringLiteral(node);
const isKind = (node: ts.Node) =>
  /(^|\.)(kind|id)$/.test(node.getText().replace(/[!?)]+$/, "")) && !ts.isStringLiteral(node);

/** Returns the names that a file compares a kind with, or looks for among the fields of a check. */
function namesAskedFor(source: ts.SourceFile): string[] {
  const found: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isBinaryExpression(node)) {
      const { left, right, operatorToken } = node;
      const isEquality =
        operatorToken.kind === ts.SyntaxKind.EqualsEqualsEqualsToken ||
        operatorToken.kind === ts.SyntaxKind.ExclamationEqualsEqualsToken;
      if (isEquality && isKind(left) && isLiteral(right)) found.push(right.text);
      if (operatorToken.kind === ts.SyntaxKind.InKeyword && isLiteral(left) && /check/i.test(right.getText()))
        found.push(left.text);
    }
    if (ts.isSwitchStatement(node) && isKind(node.expression))
      for (const clause of node.caseBlock.clauses)
        if (ts.isCaseClause(clause) && isLiteral(clause.expression)) found.push(clause.expression.text);
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

test("code outside a registry asks for no kind by name", () => {
  const files = execFileSync("git", ["ls-files", "core", "stage", "handover", "app", "cli"], {
    encoding: "utf8",
  })
    .split("\n")
    .filter(file => /\.tsx?$/.test(file) && !/\.test\.ts$|^core\/tests\/|^app\/tests\//.test(file));
  const quoted = new RegExp(REGISTRIES.flatMap(({ names }) => [...names].map(name => `"${name}"`)).join("|"));
  const asked = files.flatMap(file => {
    const text = readFileSync(file, "utf8");
    // Most files hold no name of a kind, and are not parsed.
    if (!quoted.test(text)) return [];
    const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
    return namesAskedFor(source).flatMap(name =>
      REGISTRIES.some(({ names, own }) => names.has(name) && !own.test(file)) ? [`${file}: ${name}`] : [],
    );
  });
  expect(files.length).toBeGreaterThan(400);
  expect(asked).toEqual([]);
});
