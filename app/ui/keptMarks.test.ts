import { createElement as h, Fragment } from "react";
import { renderToStaticMarkup } from "react-dom/server";
import { expect, test } from "vitest";
import { KeptMarks } from "./KeptMarks";

const Word = ({ of }: { of: string }) => h("i", null, of);
const word = (of: string) => h(Word, { of });
const render = (...children: Parameters<typeof h>[2][]) =>
  renderToStaticMarkup(h(KeptMarks, null, ...children)).replaceAll(
    '<span class="whitespace-nowrap">',
    "<span>",
  );

test("marks stay with the part before them, also across fragments and empty texts", () => {
  expect(render(word("a"), ", then ", word("b"), ".")).toBe(
    "<span><i>a</i>,</span> then <span><i>b</i>.</span>",
  );
  expect(render(h(Fragment, { key: "f" }, "in ", word("a"), ""), "; and")).toBe(
    "in <span><i>a</i>;</span> and",
  );
  expect(render([word("a"), word("b")], ")!")).toBe("<i>a</i><span><i>b</i>)!</span>");
});

test("texts, markup and parts without a mark stay as they are", () => {
  expect(render("one", ", two ", h("b", null, "three"), ".")).toBe("one, two <b>three</b>.");
  expect(render(word("a"), " and ", word("b"))).toBe("<i>a</i> and <i>b</i>");
});
