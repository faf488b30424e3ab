import fc from "fast-check";
import { expect, test } from "vitest";
import { anyKit } from "../tests/arbitraries";
import { assertUntil } from "../tests/assertUntil";
import { findEditFault, parseKitShape } from "./parseKit";
import type { Kit, Pattern } from "./schema";

const LISTS = ["controls", "gates", "patterns", "moves", "prompts"] as const;

const EMPTY: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "k",
  name: "K",
  rate: 60,
  controls: [],
  patterns: [],
};

/** Returns an item with one of its fields removed, replaced by an impossible value, or kept. */
function damage(item: object, k: number): object {
  const names = Object.keys(item);
  const name = names[k % names.length]!;
  const values: unknown[] = [undefined, -1e9, "x".repeat(300), [], Reflect.get(item, name)];
  return { ...item, [name]: values[k % values.length] };
}

test("the fault of an edit is the first one of the whole kit, with its path there", () => {
  const met = new Set<string>();
  assertUntil(
    fc.property(anyKit, fc.constantFrom(...LISTS), fc.nat(), fc.nat(), (drawn, list, place, k) => {
      const read = parseKitShape(JSON.parse(JSON.stringify(drawn)));
      const items: readonly object[] = (read.ok && read.value[list]) || [];
      if (!read.ok || items.length === 0) return;
      const before = read.value;
      const i = place % items.length;
      const after = { ...before, [list]: items.map((item, p) => (p === i ? damage(item, k) : item)) } as Kit;
      const whole = parseKitShape(after);
      expect(findEditFault(before, after)).toEqual(whole.ok ? undefined : whole.issues[0]);
      met.add(`${list} ${whole.ok ? "fine" : i > 0 ? "refused later" : "refused"}`);
    }),
    { numRuns: 300 },
    () => met.size >= 3 * LISTS.length - 1,
  );
  for (const list of LISTS) expect([...met]).toContain(`${list} refused`);
  expect([...met]).toContain("patterns refused later");
  expect([...met]).toContain("patterns fine");
});

test("a list that grows past its bound is refused", () => {
  const control = { id: "a", name: "A", bindings: [] };
  const kit: Kit = { ...EMPTY, controls: [control] };
  const grown = { ...kit, controls: Array.from({ length: 1001 }, (_, k) => ({ ...control, id: `a${k}` })) };
  expect(findEditFault(kit, grown)?.path).toEqual(["controls"]);
  expect(findEditFault(kit, { ...kit, rate: -1 })?.path).toEqual(["rate"]);
});

test("a rule is refused with which the lists of a kit hold too much in all", () => {
  const sequence = (k: number): Pattern => {
    const steps = Array.from({ length: 60 }, () => ({ press: "a" }));
    return { id: `s${k}`, name: "S", kind: "sequence", gap: "9f", steps };
  };
  const kit: Kit = { ...EMPTY, patterns: Array.from({ length: 163 }, (_, k) => sequence(k)) };
  expect(parseKitShape(kit).ok).toBe(true);
  const grown = { ...kit, patterns: [...kit.patterns, sequence(163)] };
  expect(findEditFault(kit, grown)?.path).toEqual(["patterns", 163, "steps"]);
  // A change of another rule is no way around it, and one that takes something out is.
  expect(findEditFault(grown, { ...grown, name: "Other" })?.code).toBe("many-in-all");
  expect(findEditFault(grown, kit)).toBeUndefined();
});
