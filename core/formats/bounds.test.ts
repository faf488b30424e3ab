import { expect, test } from "vitest";
import { parseEasing } from "../curve/easing";
import { parseTake } from "../input/parseTake";
import { parseKit } from "../kit/parseKit";
import { BOUNDS } from "./bounds";
import { formatIssue } from "./formatIssue";
import { FILE_LIMIT_BYTES, parseJson } from "./parseJson";
import { expectWithin } from "../tests/expectWithin";

const PRESS = { id: "p", name: "P", kind: "press", control: "a" };
const kit = (more: object) => ({
  format: "moss-tap/kit",
  version: 1,
  id: "k",
  name: "K",
  rate: 60,
  controls: [{ id: "a", name: "A", bindings: [] }],
  patterns: [PRESS],
  ...more,
});
const take = (more: object) => ({
  format: "moss-tap/take",
  version: 1,
  id: "t",
  name: "T",
  rate: 60,
  frames: 10,
  lanes: { a: [[1, 1]] },
  ...more,
});
const charge = (more: object) =>
  kit({
    patterns: [{ id: "c", name: "C", kind: "charge", control: "a", full: "9f", fire: "full", ...more }],
  });
const many = <T>(count: number, make: (k: number) => T) => Array.from({ length: count }, (_, k) => make(k));

/** Returns lists nested `depth` levels deep. */
function nest(depth: number): unknown {
  let value: unknown = 1;
  for (let k = 0; k < depth; k++) value = [value];
  return value;
}

test.each<[string, unknown, RegExp]>([
  ["a name of 5,000 letters", kit({ name: "n".repeat(5000) }), /^name: has 5000 letters, more than the 200/],
  ["an id with a slash", kit({ id: "a/b" }), /^id: 'a\/b' cannot be an id: it is part of addresses/],
  ["an id of two dots", kit({ id: ".." }), /^id: '\.\.' cannot be an id/],
  ["an id with a lone surrogate", kit({ id: "a\ud800" }), /^id: .* cannot be an id/],
  ["an id with NUL", kit({ id: "a\0" }), /^id: .* cannot be an id/],
  ["an id of 60,000 letters", kit({ id: "i".repeat(60_000) }), /^id: has 60000 letters, more than the 100/],
  [
    "2,000 rules",
    kit({ patterns: many(2000, k => ({ ...PRESS, id: `p${k}` })) }),
    /^patterns: has 2000 items, more than the 1000/,
  ],
  [
    "100 steps",
    kit({
      patterns: [
        { id: "s", name: "S", kind: "sequence", gap: "9f", steps: many(100, () => ({ press: "a" })) },
      ],
    }),
    /^patterns\[0\]\.steps: has 100 items, more than the 64/,
  ],
  [
    "160 sequences of 63 steps",
    kit({
      patterns: many(160, k => ({
        ...{ id: `s${k}`, name: "S", kind: "sequence", gap: "9f" },
        steps: many(63, () => ({ press: "a" })),
      })),
    }),
    /^patterns\[156\]\.steps: with this list the kit holds more than the 10000 items/,
  ],
  [
    "an output of 1e300",
    charge({ output: [1e300, 1e300] }),
    /^patterns\[0\]\.output\[0\]: 1e\+300 is out of reach/,
  ],
  [
    "an output without end",
    charge({ output: [Infinity, 1] }),
    /^patterns\[0\]\.output\[0\]: Infinity is out of reach/,
  ],
  [
    "a curve of 98 KB",
    charge({ curve: `linear(${"0".repeat(98_000)}, 1)` }),
    /^patterns\[0\]\.curve: has 98011 letters/,
  ],
  [
    "a curve that reaches 1e300",
    charge({ curve: "linear(0, 1e300)" }),
    /^patterns\[0\]\.curve: .*within 1000 of 0/,
  ],
  ["nesting of 20,000", kit({ stage: nest(20_000) }), /nested 32 deep/],
])("%s is refused in words, at once", (_what, input, words) => {
  expectWithin(1000, () => {
    const read = parseKit(input);
    expect(read.ok ? "read" : formatIssue(read.issues[0]!)).toMatch(words);
  });
});

test.each<[string, unknown, RegExp]>([
  ["frames without end", take({ frames: Infinity }), /^frames: Infinity is not a number of frames/],
  ["a time without end", take({ lanes: { a: [[Infinity, 1]] } }), /^lanes\.a\[0\]\[0\]: Infinity is not/],
  ["a day and a half", take({ frames: BOUNDS.frames + 1 }), /^frames: 17280001 frames are more than/],
  ["a lane of an id that cannot be", take({ lanes: { "a/b": [] } }), /cannot be an id/],
])("a take with %s is refused in words", (_what, input, words) => {
  const read = parseTake(input);
  expect(read.ok ? "read" : formatIssue(read.issues[0]!)).toMatch(words);
});

test("a number too large to be written down is none: 1e999 in a file is refused at its place", () => {
  const text = JSON.stringify(charge({ output: [0, 7] })).replace("7]", "1e999]");
  const json = parseJson(text);
  const read = parseKit(json.ok && json.value);
  expect(read.ok ? "" : formatIssue(read.issues[0]!)).toMatch(
    /^patterns\[0\]\.output\[1\]: Infinity is out of reach/,
  );
});

test("documents just within the bounds parse in time: a thousand rules on a thousand controls", () => {
  const big = kit({
    controls: many(BOUNDS.items, k => ({ id: `c${k}`, name: "C", bindings: [] })),
    patterns: many(BOUNDS.items, k => ({ ...PRESS, id: `p${k}`, control: `c${k}`, name: "n".repeat(200) })),
  });
  expectWithin(2000, () => expect(parseKit(big).ok).toBe(true));
});

test("a number of a curve is parsed in linear time", () => {
  expectWithin(50, () => parseEasing(`linear(${"1".repeat(1900)}x, 1)`));
});

const repeated = (count: number, make: (k: number) => string) => many(count, make).join(",");
const kitText = (more: string) => JSON.stringify(kit({ moves: "@" })).replace('"moves":"@"', more);
const takeText = (lane: string) => JSON.stringify(take({ lanes: "@" })).replace('"@"', `{"a":[${lane}]}`);

test.each<[string, () => string, RegExp]>([
  [
    "a million empty moves",
    () => kitText(`"moves":[${repeated(1_000_000, () => "{}")}]`),
    /^moves: has 1000000 items, more than the 1000/,
  ],
  [
    "150,000 unknown fields",
    () => kitText(repeated(150_000, k => `"k${k}":1`)),
    /^k0: 'k0' is not a field here/,
  ],
  [
    "two million unknown fields",
    () => kitText(repeated(2_000_000, k => `"k${k}":1`)),
    /would take 3\d\d MB of memory, more than the 256 MB/,
  ],
  [
    "a million pairs before the start",
    () => takeText(repeated(1_000_000, () => "[-1,1]")),
    /^lanes\.a\[0\]\[0\]: -1 is not a number of frames/,
  ],
  [
    "sixteen million numbers that are no pairs",
    () => takeText(repeated(16_000_000, () => "1")),
    /would take 2\d\d MB of memory/,
  ],
])("a file with %s is refused in a sentence within two seconds", (_what, write, words) => {
  const text = write();
  expect(text.length).toBeLessThan(FILE_LIMIT_BYTES);
  expectWithin(2000, () => {
    const json = parseJson(text);
    const read = json.ok
      ? text.includes("moss-tap/kit")
        ? parseKit(json.value)
        : parseTake(json.value)
      : json;
    expect(read.ok ? "read" : formatIssue(read.issues[0]!)).toMatch(words);
    expect(read.ok || read.issues.length).toBeLessThanOrEqual(2 * BOUNDS.issues);
  });
});

test("values with members like toString are refused like any other", () => {
  for (const odd of [{ toString: false }, { valueOf: 1, toString: 2 }, { constructor: 3 }]) {
    expect(parseKit({ ...kit({}), patterns: [{ ...PRESS, control: odd }] }).ok).toBe(false);
    expect(
      parseKit(kit({ patterns: [{ id: "h", name: "H", kind: "hold", control: "a", for: odd }] })).ok,
    ).toBe(false);
    expect(parseKit({ format: odd }).ok).toBe(false);
    expect(parseTake(take({ frames: odd })).ok).toBe(false);
  }
});
