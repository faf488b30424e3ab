import fc from "fast-check";
import { expect, test } from "vitest";
import { packTake, unpackTake } from "../input/packTake";
import { parseTake } from "../input/parseTake";
import type { Take } from "../input/takeSchema";
import { parseKit } from "../kit/parseKit";
import type { Kit } from "../kit/schema";
import { evaluate } from "../run/run";
import { formatTrace } from "../trace/formatTrace";
import { anyKit, anyTake } from "./arbitraries";
import { INHERITED, renameIds } from "./inheritedNames";
import { mustCompile } from "./strips";

const names = new Map(["a", "b", "u", "g", "h", "o", "p0", "m0", "r0"].map((id, k) => [id, INHERITED[k]!]));
const eventsOf = (kit: Kit, take: Take) => {
  const program = mustCompile(kit);
  return formatTrace(program, evaluate(program, take)).events;
};

test("ids named like inherited members give the same trace as any other ids", () => {
  fc.assert(
    fc.property(anyKit, anyTake, (kit, take) => {
      expect(eventsOf(renameIds(kit, names), renameIds(take, names))).toEqual(
        renameIds(eventsOf(kit, take), names),
      );
    }),
    { numRuns: 100 },
  );
});

test("a control without a lane is never down, whatever its id", () => {
  fc.assert(
    fc.property(anyKit, kit => {
      expect(eventsOf(renameIds(kit, names), EMPTY)).toEqual(renameIds(eventsOf(kit, EMPTY), names));
    }),
    { numRuns: 50 },
  );
});

const EMPTY: Take = {
  format: "moss-tap/take",
  version: 1,
  id: "empty",
  name: "Empty",
  rate: 60,
  frames: 30,
  lanes: {},
};

test("a lane survives being packed, written and parsed, whatever its id", () => {
  for (const id of INHERITED) {
    const lanes = renameIds({ a: [[1, 1] as const] }, new Map([["a", id]]));
    const take: Take = { ...EMPTY, lanes, gates: lanes };
    const read = parseTake(JSON.parse(JSON.stringify(unpackTake(structuredClone(packTake(take))))));
    expect(read.ok && JSON.stringify(read.value)).toBe(JSON.stringify(take));
  }
});

test("an expression, a field and a format named like an inherited member are refused with a sentence", () => {
  const pattern = { id: "c", name: "C", kind: "charge", control: "a", full: "9f", fire: "full" };
  for (const name of INHERITED) {
    const input = {
      format: "moss-tap/kit",
      version: 1,
      id: "k",
      name: "K",
      rate: 60,
      controls: [{ id: "a", name: "A", bindings: [] }],
      patterns: [{ ...pattern, curve: name, [name]: 1 }],
    };
    const read = parseKit(input);
    expect(read.ok).toBe(false);
  }
});
