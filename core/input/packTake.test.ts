import fc from "fast-check";
import { expect, test } from "vitest";
import { anyTake } from "../tests/arbitraries";
import { packTake, unpackTake } from "./packTake";

test("a take unpacked is the take that was packed, whatever it holds", () => {
  fc.assert(
    fc.property(anyTake, take => {
      expect(unpackTake(packTake(take))).toEqual(take);
    }),
  );
  const full = {
    format: "moss-tap/take",
    version: 1,
    id: "a",
    name: "A",
    rate: 60,
    frames: 10,
    lanes: { tap: [[0.5, 1]], empty: [] },
    gates: { ground: [[2, 1]] },
    speed: [[3, 50]],
    note: "by hand",
  } as const;
  expect(unpackTake(packTake(full))).toEqual(full);
});

test.each([
  undefined,
  null,
  3,
  "x",
  [],
  {},
  { lanes: 3 },
  { lanes: { a: 1 } },
  { lanes: { a: { packed: 1 } } },
])("what is not packed stays as it is: %o", input => expect(unpackTake(input)).toEqual(input));
