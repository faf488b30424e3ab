import { parse } from "csv-parse/sync";
import { expect, test } from "vitest";
import { parseKit, type Kit } from "#core";
import { readFileSync } from "node:fs";
import { formatCsv } from "../numbers/numbers";
import { toMarkdownText } from "./inertText";

const kit = parseKit(JSON.parse(readFileSync("demo/rope-catch/kit.json", "utf8")));
if (!kit.ok) throw new Error("the demo does not read");

test("no cell of a table of numbers begins like a formula, whatever names and ids are", () => {
  for (const evil of ["=1+1", "+1", "-1", "@sum", "\t=1", "\r=1"]) {
    const named: Kit = {
      ...kit.value,
      patterns: kit.value.patterns.map(pattern => ({ ...pattern, id: evil, name: evil })),
    };
    const cells = (parse(formatCsv(named)) as string[][]).flat();
    expect(cells.some(cell => cell.includes(evil))).toBe(true);
    expect(cells.filter(cell => /^[=+\-@\t\r]/.test(cell) && !/^-?[\d.]+$/.test(cell))).toEqual([]);
  }
});

test("a name in Markdown is plain text in one line", () => {
  expect(toMarkdownText("<img src=x onerror=1>\n# *Boss* [1](2) `x` & ![](y)")).toBe(
    "&lt;img src=x onerror=1\\> \\# \\*Boss\\* \\[1\\]\\(2\\) \\`x\\` &amp; \\!\\[\\]\\(y\\)",
  );
  expect(toMarkdownText("Belfry Runner 2")).toBe("Belfry Runner 2");
});
