import { execFileSync } from "node:child_process";
import { readdirSync, readFileSync } from "node:fs";
import ts from "typescript";
import { expect, test } from "vitest";

/** Phrases that slow a reader, with the number that may remain in comments and names of tests. */
const MARKS: readonly (readonly [name: string, mark: RegExp, most: number])[] = [
  ["a sentence that begins with What, Where, Such or That which", /(^|\. )(What|Where|Such|That which)\b/, 0],
  ["told, tell, said, says", /\b(told|tells?|telling|said|says?)\b/i, 0],
  ["stands, stood", /\b(stands?|stood|standing)\b/i, 4],
  ["comes of, comes to, came second", /\b(comes? (of|to|about)|came (of|to|about|second))\b/i, 2],
  ["is it that, by itself, thereby, hands on", /\b(is it that|by itself|thereby|hands on)\b/i, 0],
  ["heard, hears", /\b(hears?|heard)\b/i, 4],
  ["so many, laid over, taken up", /\b(laid over|takes? up|taken up|made ready|as it would be)\b/i, 2],
];

/** Phrases that slow a user, with the number that may remain in texts of screens, messages and files. */
const SCREEN_MARKS: readonly (readonly [name: string, mark: RegExp, most: number])[] = [
  ["told, tell, said, says", /\b(told|tells?|telling|said|says?)\b/i, 0],
  // The body of a runner stands on a beam, and stands still.
  ["stands, stood", /\b(stands?|stood|standing)\b/i, 2],
  ["comes of, comes to, comes out", /\b(comes? (of|to|out)|came (of|to|out))\b/i, 0],
  ["is it that, by itself, thereby, hands on", /\b(is it that|by itself|thereby|hands on)\b/i, 0],
  ["heard, hears", /\b(hears?|heard)\b/i, 0],
  ["anew, wipe, understood, asleep", /\b(anew|wipes?|understood|asleep)\b/i, 0],
];

/** Nouns that a count is written before, in the plural. Some are verbs, too; more frames than a limit, or at a rate, are never one. */
const COUNTED =
  /^ ((frames(?! (a second|at|are|from|$))|presses|runs(?![.?])|inputs|values|pairs|checks|events|rules|moves|differences|losses|showings|requests|gates|files|results|things|kits)\b|takes(?=[,;.]|$)|plays(?=[,;.]))/;
/** The condition under which a text is only shown for several. */
const SEVERAL = /(===|!==|[<>]=?) ?\d/;

const MARKED_NAMES = [
  /^(told|tell|said|spared|teller)(?![a-z])/,
  /_(TOLD|TELL|SAID|SPARED)(?![A-Z])/,
  /^(TOLD|TELL|SAID)_/,
  /[a-z](Told|Tell|Said|Spared|Teller)(?![a-z])/,
  /^MOST(_|$)/,
];

const sources = execFileSync("git", ["ls-files"], { encoding: "utf8" })
  .split("\n")
  .filter(file => /\.(ts|tsx|mjs)$/.test(file) && file !== "docs/words.test.ts");

interface Words {
  /** Comments, with consecutive lines joined. */
  readonly comments: string[];
  readonly testNames: string[];
  /** Texts of more than one word, except those of tests. */
  readonly texts: string[];
  readonly identifiers: ReadonlySet<string>;
  /** Plurals after a count that may be one. */
  readonly plurals: string[];
}

/** Returns the text of a literal, a template or a piece of a page. */
function textOf(node: ts.Node): string | undefined {
  if (ts.isJsxText(node)) return node.text.replace(/\s+/g, " ").trim();
  if (ts.isTemplateHead(node) || ts.isTemplateMiddleOrTemplateTail(node)) return node.text;
  return ts.isStringLiteralLike(node) ? node.text : undefined;
}

/** Returns the text of a page or template that follows an expression, if it may be a count of one: neither a constant nor guarded. */
function textAfterCount(node: ts.Node): string | undefined {
  const [expression, text] = ts.isTemplateSpan(node)
    ? [node.expression, node.literal.text]
    : ts.isJsxExpression(node)
      ? [node.expression, jsxTextAfter(node)]
      : [undefined, undefined];
  if (!expression || text === undefined || /^[A-Z_.]+$/.test(expression.getText())) return undefined;
  for (let above: ts.Node = node; above.parent; above = above.parent)
    if (ts.isConditionalExpression(above) && SEVERAL.test(above.condition.getText())) return undefined;
  return text;
}

function jsxTextAfter(node: ts.JsxExpression): string | undefined {
  if (!ts.isJsxElement(node.parent) && !ts.isJsxFragment(node.parent)) return undefined;
  const next = node.parent.children[node.parent.children.indexOf(node) + 1];
  return next && ts.isJsxText(next) ? next.text.replace(/\s+/g, " ").trimEnd() : undefined;
}

const isOfTests = (file: string) => /\.test\.|\/tests\/|^(bench|docs|e2e|lint)\//.test(file);

function readWords(file: string): Words {
  const text = readFileSync(file, "utf8");
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  const comments = new Map<number, string>();
  const testNames: string[] = [];
  const texts: string[] = [];
  const identifiers = new Set<string>();
  const plurals: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isIdentifier(node)) identifiers.add(node.text);
    const after = isOfTests(file) ? undefined : textAfterCount(node);
    if (after !== undefined && COUNTED.test(after)) plurals.push(`${node.getText()}${after}`);
    const written = isOfTests(file) ? undefined : textOf(node);
    if (written?.trim().includes(" ")) texts.push(written);
    if (ts.isCallExpression(node) && /^(test|it)\b/.test(node.expression.getText())) {
      const [name] = node.arguments;
      if (name && ts.isStringLiteralLike(name)) testNames.push(name.text);
    }
    for (const { pos, end } of ts.getLeadingCommentRanges(text, node.getFullStart()) ?? [])
      comments.set(
        pos,
        text
          .slice(pos, end)
          .replace(/^\/\*\*?|\*\/$|^\s*\*|^\/\//gm, " ")
          .replace(/\s+/g, " ")
          .trim(),
      );
    ts.forEachChild(node, visit);
  };
  visit(source);
  return { comments: [...comments.values()], testNames, texts, identifiers, plurals };
}

const words = sources.map(file => ({ file, ...readWords(file) }));

test.each(MARKS)("comments and test names are free of: %s", (_name, mark, most) => {
  const found = words.flatMap(({ file, comments, testNames }) =>
    [...comments, ...testNames].filter(text => mark.test(text)).map(text => `${file}: ${text}`),
  );
  expect(words.length).toBeGreaterThan(700);
  expect(found.length, found.join("\n")).toBeLessThanOrEqual(most);
});

test.each(SCREEN_MARKS)("texts of screens, messages and files are free of: %s", (_name, mark, most) => {
  const found = words.flatMap(({ file, texts }) =>
    texts.filter(text => mark.test(text)).map(text => `${file}: ${text}`),
  );
  expect(words.flatMap(({ texts }) => texts).length).toBeGreaterThan(2000);
  expect(found.length, found.join("\n")).toBeLessThanOrEqual(most);
});

test("one of a thing is not written in the plural", () => {
  expect(words.flatMap(({ file, plurals }) => plurals.map(text => `${file}: ${text}`))).toEqual([]);
});

test("identifiers are named by their content", () => {
  const found = words.flatMap(({ file, identifiers }) =>
    [...identifiers]
      .filter(name => MARKED_NAMES.some(mark => mark.test(name)))
      .map(name => `${file}: ${name}`),
  );
  expect(found).toEqual([]);
});

test("pages name things in the terms of the trade", () => {
  const docs = readdirSync("docs").filter(name => name.endsWith(".md"));
  const pages = ["README.md", "CONTRIBUTING.md", ...docs.map(name => `docs/${name}`)];
  const found = pages.flatMap(page =>
    readFileSync(page, "utf8")
      .split("\n")
      .filter(line => MARKS.some(([, mark]) => mark.test(line)))
      .map(line => `${page}: ${line}`),
  );
  expect(found.length, found.join("\n")).toBe(0);
});
