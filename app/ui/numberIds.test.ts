import { expect, test } from "vitest";
import { numberIds } from "./numberIds";

const draw = (hatch: string, clip: string) =>
  `<svg><defs><pattern id="${hatch}"/><clipPath id="${clip}"/></defs><g clip-path="url(#${clip})">` +
  `<rect fill="url(&quot;#${hatch}&quot;)"/><use xlink:href="#${clip}"/><text>url(#none) id</text></g></svg>`;

test("equal drawings with ids made anew give equal files, and references still fit", () => {
  const drawn = numberIds(draw(":r1a:", "Xq-Z"));
  expect(drawn).toBe(numberIds(draw(":r2b:", "aa0b")));
  expect(drawn).toContain('<pattern id="d1"/>');
  expect(drawn).toContain('clip-path="url(#d2)"');
  expect(drawn).toContain('fill="url(#d1)"');
  expect(drawn).toContain('xlink:href="#d2"');
  expect(drawn).toContain("url(#none) id");
});
