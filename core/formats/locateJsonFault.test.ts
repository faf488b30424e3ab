import fc from "fast-check";
import { expect, test } from "vitest";
import { parseJson } from "./parseJson";
import { formatIssue } from "./formatIssue";

const faultOf = (source: string) => {
  const parsed = parseJson(source);
  return parsed.ok ? undefined : formatIssue(parsed.issues[0]!);
};

test.each([
  ['{"a": 1\n "b": 2}', "line 2, column 2: a comma is expected"],
  ['{"a": [1, 2}', "line 1, column 12: a comma is expected"],
  ['{"a": 1,}', "line 1, column 9: the name of a field in quotes is expected"],
  ["[1, ]", "line 1, column 5: a value is expected"],
  ['{"a" 1}', "line 1, column 6: a colon is expected"],
  ['{"a": 1', "line 1, column 8: a closing brace } is expected"],
  ["{} {}", "line 1, column 4: nothing more is expected after the document"],
  ["{a: 1}", "line 1, column 2: a word without quotes cannot be here"],
  ['\n\n  {"a": "b\n}', "line 3, column 9: a text has no closing quote"],
  ["// no\n{}", "line 1, column 1: a comment cannot be in JSON"],
])("%j is refused with its line and column", (source, words) => {
  expect(faultOf(source)).toBe(
    `the file: this is not JSON (${words}): export it again, or mend it in a text editor`,
  );
});

test("any text that is not JSON is refused with a place; a text nested beyond reading too, without one", () => {
  fc.assert(
    fc.property(fc.json(), fc.nat(), fc.constantFrom("", "]", "}", ",", '"', "x"), (text, at, instead) => {
      const place = at % (text.length + 1);
      const source = text.slice(0, place) + instead + text.slice(place + 1);
      const fault = faultOf(source);
      if (fault !== undefined) expect(fault).toMatch(/^the file: this is not JSON \(line \d+, column \d+: /);
    }),
    { numRuns: 500 },
  );
  expect(faultOf("[".repeat(200_000))).toMatch(/^the file: this is not JSON \(/);
});
