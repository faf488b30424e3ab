import { expect, test } from "vitest";
import { createGrowingClock, readOutcomes, writeAt, type Kit } from "#core";
import { evaluateWith, readKitAndTake } from "../../tests/evaluated";
import { listChanges } from "./changes";
import { edgeOfWindow, framesOfWindow, listHandles } from "./handles";
import { fateOfNote, pathOfFate } from "./pressOf";
import { buildTape } from "./buildTape";

const { kit: KIT, take: TAKE } = readKitAndTake("e2e/belfry", "sloppy-climb");

function open(kit: Kit) {
  const { rules, program, trace } = evaluateWith(kit, TAKE);
  const model = buildTape(rules, trace);
  const fates = readOutcomes(program, trace).presses;
  return { fates, program, trace, model, rowOf: (id: string) => model.rows.findIndex(row => row.id === id) };
}

test("the handle of a buffer is at its end, and pulling it far enough saves the press", () => {
  const { model, fates, trace, rowOf } = open(KIT);
  const lost = fates.find(fate => fate.outcome === "lost")!;
  const handle = listHandles(KIT, model, rowOf("hop")).find(found => found.anchor === lost.frame + 1)!;
  expect(handle).toMatchObject({
    edge: lost.frame + 7,
    path: ["moves", 0, "buffer"],
    words: "buffer",
  });
  const pulled = open(writeAt(KIT, handle.path, "8f"));
  const changes = listChanges(pulled.model, pulled.program, trace, pulled.trace);
  expect(changes.map(change => change.what).sort()).toEqual(["gone", "new"]);
  expect(changes.every(change => change.row === rowOf("hop"))).toBe(true);
});

test("handles of hold, tap and gap are at the limits of each attempt", () => {
  const { model, rowOf } = open(KIT);
  const first = (id: string) => {
    const row = model.rows[rowOf(id)]!;
    return {
      handle: listHandles(KIT, model, rowOf(id))[0]!,
      from: row.spanFrom[row.spanLook.indexOf("forming")]!,
    };
  };
  const cling = first("cling");
  expect(cling.handle.edge).toBe(cling.from + 18);
  const tuck = first("tuck");
  expect(tuck.handle.edge).toBe(tuck.from + 10);
  const twice = first("right-twice");
  expect(twice.handle.edge).toBe(twice.from + 13);
});

test("the end of what a performed move opens can be pulled, never to before it opens", () => {
  const kit = writeAt(KIT, ["moves", 0, "opens"], [{ gate: "footing", from: "3f", to: "9f" }]);
  const { model, rowOf } = open(kit);
  const [handle] = listHandles(kit, model, rowOf("hop")).filter(found => found.words === "open until");
  expect(handle).toMatchObject({ edge: 37 + 10, anchor: 38, least: 3, path: ["moves", 0, "opens", 0, "to"] });
});

test("a gate spent by a hop leaves no coyote tail; one walked off does, and its end can be pulled", () => {
  const { model, rowOf } = open(KIT);
  const row = model.rows[rowOf("footing")]!;
  const tails = row.spanFrom.filter((_, k) => row.spanLook[k] === "forgiven");
  expect(tails.length).toBe(1);
  expect(listHandles(KIT, model, rowOf("footing"))).toMatchObject([
    { anchor: tails[0]!, edge: tails[0]! + 5, words: "coyote" },
  ]);
});

test("a click on a lost mark leads to its press, and a line joins press, fire and loss", () => {
  const { model, fates, program, trace, rowOf } = open(KIT);
  const hop = model.rows[rowOf("hop")]!;
  const k = hop.markLook.indexOf("lost");
  const fate = fateOfNote(fates, program, trace, hop.markNote[k]!)!;
  expect(fate).toMatchObject({ outcome: "lost", frame: hop.markMade[k]! });
  expect(pathOfFate(program, model, fate)).toEqual([
    { row: rowOf("leap"), frame: fate.frame },
    { row: rowOf("leap-press"), frame: fate.frame },
    { row: rowOf("hop"), frame: fate.frame },
    { row: rowOf("hop"), frame: hop.markFrame[k]! },
  ]);
});

test.each(["reach", "past", "after"] as const)(
  "under slow motion and a freeze an edge shows the length of the rule: %s",
  ends => {
    const clock = createGrowingClock();
    clock.turn(0, 25);
    clock.turn(30, 0);
    clock.turn(40, 100);
    clock.turn(50, 400);
    for (let frames = 0; frames < 40; frames++) {
      for (const anchor of [3, 28, 35, 44, 60]) {
        const edge = edgeOfWindow({ anchor, ends, isReal: false }, clock, frames);
        const longest = framesOfWindow({ anchor, ends, isReal: false }, clock, edge);
        expect(longest).toBeGreaterThanOrEqual(frames);
        expect(edgeOfWindow({ anchor, ends, isReal: false }, clock, longest)).toBe(edge);
        expect(edgeOfWindow({ anchor, ends, isReal: true }, clock, frames)).toBe(anchor + frames);
      }
    }
  },
);
