import fc from "fast-check";
import { expect, test } from "vitest";
import { putBack } from "./putBack";

const item = (id: string, n = 0) => ({ id, n });
const BEFORE = { name: "K", rules: [item("a"), item("b"), item("c")], gates: [item("g")] };

test("a removed rule returns to its place, and later edits stay", () => {
  const after = { ...BEFORE, rules: [item("a"), item("c")] };
  const since = { ...after, name: "Renamed", rules: [item("new"), item("a", 7), item("c", 8)] };
  expect(putBack(BEFORE, after, since)).toEqual({
    name: "Renamed",
    rules: [item("new"), item("a", 7), item("b"), item("c", 8)],
    gates: [item("g")],
  });
});

test("an item that exists again is not duplicated", () => {
  const after = { ...BEFORE, rules: [item("a"), item("c")] };
  expect(putBack(BEFORE, after, BEFORE)).toEqual(BEFORE);
  const anew = { ...after, rules: [item("b", 9), item("a"), item("c")] };
  expect(putBack(BEFORE, after, anew)).toEqual(anew);
});

test("a field removed with its last item comes back, beside later items", () => {
  const { gates, ...after } = BEFORE;
  expect(putBack<object>(BEFORE, after, after)).toEqual(BEFORE);
  expect(putBack<object>(BEFORE, after, { ...after, gates: [item("h")] })).toMatchObject({
    gates: [item("g"), item("h")],
  });
  expect(gates.length).toBe(1);
});

test("other changes of the edit are reverted too, unless they were changed again", () => {
  const before = {
    modes: ["x", "y"],
    rules: [
      { id: "a", modes: ["x"] },
      { id: "b", modes: ["x", "y"] },
    ],
  };
  const after = { modes: ["y"], rules: [{ id: "a" }, { id: "b", modes: ["y"] }] };
  const since = { modes: ["y"], rules: [{ id: "a" }, { id: "b", modes: ["y", "z"] }] };
  expect(putBack<object>(before, after, since)).toEqual({
    modes: ["x", "y"],
    rules: [
      { id: "a", modes: ["x"] },
      { id: "b", modes: ["x", "y", "z"] },
    ],
  });
});

test("with nothing done since, an edit of any kind is taken back whole", () => {
  const list = fc.uniqueArray(fc.record({ id: fc.constantFrom(..."abcdef"), n: fc.nat(3) }), {
    selector: entry => entry.id,
  });
  const document = fc.record({ name: fc.string(), list, more: fc.jsonValue() });
  fc.assert(
    fc.property(document, document, (before, after) => {
      expect(putBack(before, after, after)).toEqual(before);
      expect(putBack(before, before, after)).toBe(after);
    }),
  );
});
