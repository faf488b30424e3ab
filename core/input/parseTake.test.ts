import fc from "fast-check";
import { expect, test } from "vitest";
import { parseLayout } from "../kit/layout";
import { ID_PATTERN } from "../formats/bounds";
import { parseTake } from "./parseTake";
import type { Take } from "./takeSchema";

const id = fc.oneof(
  fc.constantFrom("constructor", "prototype", "__proto__", "toString", "hasOwnProperty", "0", "a:b"),
  fc.string({ minLength: 1, maxLength: 12 }).filter(written => ID_PATTERN.test(written)),
);
const places = fc.uniqueArray(
  fc.integer({ min: 0, max: 4000 }).map(x => x / 8),
  { maxLength: 12 },
);
const lane = fc
  .tuple(places, fc.array(fc.integer({ min: 0, max: 128 }), { minLength: 12, maxLength: 12 }))
  .map(([xs, values]) => xs.sort((a, b) => a - b).map((x, k): [number, number] => [x, values[k]! / 128]));

test("a take written and parsed is unchanged, for any ids, names and values", () => {
  let strange = 0;
  const takes = fc.record({
    name: fc.string({ unit: "binary", maxLength: 100 }),
    lanes: fc.dictionary(id, lane, { noNullPrototype: true }),
  });
  fc.assert(
    fc.property(takes, ({ name, lanes }) => {
      const take = { format: "moss-tap/take", version: 1, id: "t", name, rate: 60, frames: 600, lanes };
      const text = JSON.stringify(take);
      const read = parseTake(JSON.parse(text));
      expect(read).toMatchObject({ ok: true });
      expect(JSON.stringify(read.ok && read.value)).toBe(text);
      if (Object.keys(lanes).some(key => key in Object.prototype)) strange++;
    }),
    { numRuns: 300 },
  );
  expect(strange).toBeGreaterThan(20);
});

test("a faulty lane is reported by its name, even an unusual one", () => {
  const take = { format: "moss-tap/take", version: 1, id: "t", name: "T", rate: 60, frames: 9 };
  const faults = (lanes: unknown) => {
    const read = parseTake({ ...take, lanes } as unknown as Take);
    return read.ok ? [] : read.issues.map(issue => issue.path.join("."));
  };
  expect(faults({ constructor: [[0, 2]] })).toEqual(["lanes.constructor.0.1"]);
  expect(faults(JSON.parse('{"__proto__": [[-1, 1]]}'))).toEqual(["lanes.__proto__.0.0"]);
  expect(faults([])).toEqual(["lanes"]);
  const layout = { format: "moss-tap/layout", version: 1, id: "l", name: "L" };
  expect(parseLayout({ ...layout, bindings: { constructor: [["key:KeyA"]] } })).toMatchObject({
    ok: true,
    value: { bindings: { constructor: [["key:KeyA"]] } },
  });
});
