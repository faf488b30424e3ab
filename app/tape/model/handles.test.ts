import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { compile, evaluate, parseKit, parseTake, writeAt, type Kit, type Take } from "#core";
import { listChanges } from "./changes";
import { listHandles } from "./handles";
import { fateOfNote, fatesOf, pathOfFate } from "./pressOf";
import { buildTape } from "./buildTape";

const read = <T>(parsed: { ok: true; value: T } | { ok: false }): T => {
  if (!parsed.ok) throw new Error("the demo must read");
  return parsed.value;
};
const KIT = read<Kit>(parseKit(JSON.parse(readFileSync("e2e/belfry/kit.json", "utf8"))));
const TAKE = read<Take>(parseTake(JSON.parse(readFileSync("e2e/belfry/sloppy-climb.json", "utf8"))));

function open(kit: Kit) {
  const program = read(compile(kit));
  const trace = evaluate(program, TAKE);
  const model = buildTape(kit, program, trace);
  return { program, trace, model, rowOf: (id: string) => model.rows.findIndex(row => row.id === id) };
}

test("the handle of a buffer stands where its memory ends, and pulling it that far saves the press", () => {
  const { model, program, trace, rowOf } = open(KIT);
  const lost = fatesOf(program, trace).find(fate => fate.outcome === "lost")!;
  const handle = listHandles(KIT, model, rowOf("hop")).find(found => found.anchor === lost.frame + 1)!;
  expect(handle).toMatchObject({
    edge: lost.frame + 7,
    path: ["moves", 0, "buffer"],
    words: "remembered for",
  });
  const pulled = open(writeAt(KIT, handle.path, "8f"));
  const changes = listChanges(pulled.model, pulled.program, trace, pulled.trace);
  expect(changes.map(change => change.what).sort()).toEqual(["gone", "new"]);
  expect(changes.every(change => change.row === rowOf("hop"))).toBe(true);
});

test("handles of hold, tap and gap stand on the limits of each attempt", () => {
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
    { anchor: tails[0]!, edge: tails[0]! + 5, words: "forgiven for" },
  ]);
});

test("a click on a lost mark leads to its press, and a line joins press, fire and loss", () => {
  const { model, program, trace, rowOf } = open(KIT);
  const hop = model.rows[rowOf("hop")]!;
  const k = hop.markLook.indexOf("lost");
  const fate = fateOfNote(program, trace, hop.markNote[k]!)!;
  expect(fate).toMatchObject({ outcome: "lost", frame: hop.markMade[k]! });
  expect(pathOfFate(program, model, fate)).toEqual([
    { row: rowOf("leap"), frame: fate.frame },
    { row: rowOf("leap-press"), frame: fate.frame },
    { row: rowOf("hop"), frame: fate.frame },
    { row: rowOf("hop"), frame: hop.markFrame[k]! },
  ]);
});
