import { expect, test } from "vitest";
import { listChanges, type Kit } from "#core";
import { readKitAndTakes } from "../../tests/evaluated";
import { formatChange } from "./changeWords";

const { kit: OLD } = readKitAndTakes("demo/belfry-runner");

/** Formats every change that an edit makes. */
function wordsOf(edit: (kit: Kit) => Kit): readonly string[] {
  const kit = edit(OLD);
  return listChanges(OLD, kit).map(change => formatChange(OLD, kit, change));
}

const editHop = (change: object) => (kit: Kit) => ({
  ...kit,
  moves: kit.moves!.map(move => (move.id === "hop" ? { ...move, ...change } : move)),
});

test("a changed number or choice is read in the rule's sentence, with the old value in it", () => {
  expect(wordsOf(editHop({ buffer: "2f", needs: [{ gate: "footing", coyote: "1f" }] }))).toEqual([
    "Hop on Leap press, if Footing is open: buffer 2f, coyote 1f (was 5f); spends Footing; priority 2",
    "Hop on Leap press, if Footing is open: buffer 2f (was 6f), coyote 1f; spends Footing; priority 2",
  ]);
});

test("a clause that came or went is read in the sentences of both versions", () => {
  const { buffer: _buffer, ...rest } = OLD.moves!.find(({ id }) => id === "hop")!;
  const without = (kit: Kit): Kit => ({
    ...kit,
    moves: kit.moves!.map(move => (move.id === "hop" ? rest : move)),
  });
  expect(wordsOf(without)).toEqual([
    "Hop on Leap press, if Footing is open, coyote 5f; spends Footing; priority 2. " +
      "Before: Hop on Leap press, if Footing is open: buffer 6f, coyote 5f; spends Footing; priority 2",
  ]);
});

test("rules that came or went are named, and fields without a sentence show both values", () => {
  expect(wordsOf(kit => ({ ...kit, moves: kit.moves!.slice(1) }))).toEqual(["Moves: Hop is gone"]);
  const [first] = OLD.controls;
  expect(
    wordsOf(kit => ({ ...kit, controls: [{ ...first!, pressAt: 0.7 }, ...kit.controls.slice(1)] })),
  ).toEqual([`${first!.name}, pressAt: 0.7 (was nothing)`]);
});
