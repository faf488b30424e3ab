import fc from "fast-check";
import { expect, test } from "vitest";
import { describeGate } from "../gates/describeGate";
import { describeSwitch } from "../modes/describeSwitch";
import { describeMove } from "../moves/describeMove";
import { describePattern } from "../patterns/describePattern";
import { describePrompt } from "../prompts/describePrompt";
import { anyKit } from "../tests/arbitraries";
import { expectSame } from "../tests/expectSame";
import { deleteAt, readAt, writeAt } from "./editAt";
import type { Kit } from "./schema";
import type { SentencePart } from "./sentence";

type Describe = (rule: object) => readonly SentencePart[];

/** Yields every rule of a kit with the function that describes it. */
function* rulesOf(kit: Kit): Generator<readonly [list: string, rule: object, describe: Describe]> {
  for (const rule of kit.patterns) yield ["pattern", rule, next => describePattern(next as typeof rule, kit)];
  for (const rule of kit.moves ?? []) yield ["move", rule, next => describeMove(next as typeof rule)];
  for (const rule of kit.gates ?? []) yield ["gate", rule, next => describeGate(next as typeof rule)];
  for (const rule of kit.prompts ?? [])
    yield ["prompt", rule, next => describePrompt(next as typeof rule, kit)];
  for (const rule of kit.switches ?? [])
    yield ["switch", rule, next => describeSwitch(next as typeof rule, kit)];
}

/** Returns the shown value of a part, and another one it could be changed to; undefined for a part of words. */
function valuesOf(part: SentencePart): { readonly shown: unknown; readonly other: unknown } | undefined {
  switch (part.kind) {
    case "words":
    case "name":
      return undefined;
    case "ref":
      return { shown: part.id, other: part.list === "direction" ? "s:8" : "another" };
    case "length":
      return { shown: part.value, other: part.value === "7f" ? "8f" : "7f" };
    case "count":
    case "number":
      return { shown: part.value, other: part.value + 1 };
    case "text":
      return { shown: part.value, other: `${part.value} too` };
    case "choice":
      return { shown: part.value, other: part.options.find(({ value }) => value !== part.value)?.value };
    case "swap":
      // It replaces the value at its path by another form.
      return undefined;
  }
}

const placeOf = (part: SentencePart) => ("path" in part ? JSON.stringify(part.path) : "");

test("every editable part of a sentence writes the field it shows, and no other", () => {
  const written = new Map<string, number>();
  fc.assert(
    fc.property(anyKit, kit => {
      for (const [list, rule, describe] of rulesOf(kit)) {
        const parts = describe(rule);
        for (const part of parts) {
          const values = valuesOf(part);
          if (!values || values.other === undefined || !("path" in part)) continue;
          const stored = readAt(rule, part.path);
          if (stored !== undefined && typeof stored !== "boolean") expectSame(stored, values.shown);
          const after = describe(writeAt(rule, part.path, values.other));
          const own = after.filter(other => placeOf(other) === placeOf(part)).map(valuesOf);
          expectSame(own.map(found => found?.shown).includes(values.other), true);
          written.set(`${list} ${part.kind}`, (written.get(`${list} ${part.kind}`) ?? 0) + 1);
        }
      }
    }),
    { numRuns: 60 },
  );
  expect([...written.keys()].sort()).toEqual(
    expect.arrayContaining([
      "gate length",
      "move choice",
      "move count",
      "move length",
      "move ref",
      "pattern choice",
      "pattern count",
      "pattern length",
      "pattern ref",
      "prompt choice",
      "prompt length",
      "prompt ref",
      "switch ref",
    ]),
  );
});

test("removing a clause removes the value it belongs to and leaves a grammatical sentence", () => {
  const removed = new Set<string>();
  fc.assert(
    fc.property(anyKit, kit => {
      for (const [list, rule, describe] of rulesOf(kit))
        for (const { clause } of describe(rule)) {
          if (!clause) continue;
          expectSame(readAt(rule, clause) === undefined, false);
          const left = deleteAt(rule, clause);
          const isListItem = typeof clause.at(-1) === "number";
          if (!isListItem) expectSame(readAt(left, clause), undefined);
          const after = describe(left);
          if (!isListItem)
            expect(after.map(part => JSON.stringify(part.clause))).not.toContain(JSON.stringify(clause));
          removed.add(`${list} ${clause.filter(step => typeof step === "string").join(".")}`);
        }
    }),
    { numRuns: 50 },
  );
  expect(removed.size).toBeGreaterThan(20);
});
