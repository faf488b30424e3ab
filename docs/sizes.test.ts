import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import ts from "typescript";
import { expect, test } from "vitest";

const MAX_COMPONENT_LINES = 100;
/** Without the functions inside it. */
const MAX_FUNCTION_LINES = 60;
/** One literal of every field, so that all states have the same hidden class. */
const EXCEPTIONS = new Set(["core/program/state.ts: layOut"]);

type AnyFunction = ts.FunctionDeclaration | ts.FunctionExpression | ts.ArrowFunction | ts.MethodDeclaration;

const isFunction = (node: ts.Node): node is AnyFunction =>
  ts.isFunctionDeclaration(node) ||
  ts.isFunctionExpression(node) ||
  ts.isArrowFunction(node) ||
  ts.isMethodDeclaration(node);

function nameOf(node: AnyFunction): string {
  if (node.name) return node.name.getText();
  return ts.isVariableDeclaration(node.parent) ? node.parent.name.getText() : "a function";
}

interface Size {
  readonly name: string;
  readonly isComponent: boolean;
  readonly lines: number;
  /** Lines outside of inner functions. */
  readonly ownLines: number;
}

function measure(file: string): Size[] {
  const source = ts.createSourceFile(file, readFileSync(file, "utf8"), ts.ScriptTarget.Latest, true);
  const lineOf = (position: number) => source.getLineAndCharacterOfPosition(position).line;
  const sizes: Size[] = [];
  const visit = (node: ts.Node): void => {
    if (isFunction(node) && node.body) {
      const [from, to] = [lineOf(node.body.getStart()), lineOf(node.body.end)];
      const inner = new Set<number>();
      const collect = (part: ts.Node): void => {
        if (part !== node && isFunction(part)) {
          for (let line = lineOf(part.getStart()); line <= lineOf(part.end); line++) inner.add(line);
        } else ts.forEachChild(part, collect);
      };
      collect(node);
      const isComponent = file.endsWith(".tsx") && /^[A-Z]/.test(nameOf(node));
      const lines = to - from + 1;
      const ownLines = [...Array(lines).keys()].filter(k => !inner.has(from + k)).length;
      sizes.push({ name: `${file}: ${nameOf(node)}`, isComponent, lines, ownLines });
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return sizes;
}

const sizes = execFileSync("git", ["ls-files"], { encoding: "utf8" })
  .split("\n")
  .filter(file => /\.(ts|tsx|mjs)$/.test(file) && !/\.test\.|\/tests\/|^e2e\/|^bench\//.test(file))
  .flatMap(measure);

test("no component is longer than 100 lines, no function than 60 without its inner functions", () => {
  expect(sizes.length).toBeGreaterThan(3000);
  const large = sizes.filter(({ isComponent, lines, ownLines }) =>
    isComponent ? lines > MAX_COMPONENT_LINES : ownLines > MAX_FUNCTION_LINES,
  );
  expect(large.map(({ name }) => name).filter(name => !EXCEPTIONS.has(name))).toEqual([]);
});
