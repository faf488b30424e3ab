import { expect, test } from "vitest";
import { listChanges, type Kit } from "#core";
import { readKitAndTakes } from "../../tests/evaluated";
import { formatChanges } from "./changeWords";

const { kit: OLD } = readKitAndTakes("demo/belfry-runner");

/** Formats every change that an edit makes. */
function wordsOf(edit: (kit: Kit) => Kit): readonly string[] {
  const kit = edit(OLD);
  return formatChanges(OLD, kit, listChanges(OLD, kit));
}

const editHop = (change: object) => (kit: Kit) => ({
  ...kit,
  moves: kit.moves!.map(move => (move.id === "hop" ? { ...move, ...change } : move)),
});

test("the changes of a rule are read in its sentence, with each old value in it", () => {
  expect(wordsOf(editHop({ buffer: "2f", needs: [{ gate: "footing", coyote: "1f" }] }))).toEqual([
    "Hop on Leap press, if Footing is open: buffer 2f (was 6f), coyote 1f (was 5f); spends Footing; priority 2",
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

test("rules that stay in a list that gains or loses others are compared, too", () => {
  const kit = editHop({ buffer: "2f" })(OLD);
  const moved = { ...kit, moves: kit.moves!.filter(({ id }) => id !== kit.moves!.at(-1)!.id) };
  expect(wordsOf(() => moved)).toEqual([
    `Moves: ${kit.moves!.at(-1)!.name} is gone`,
    "Hop on Leap press, if Footing is open: buffer 2f (was 6f), coyote 5f; spends Footing; priority 2",
  ]);
});
