import { expect, test } from "vitest";
import { drawTake, sketchKit } from "../../../core/tests/strips";
import type { Kit, Take } from "#core";
import { compareTake, formatDifference } from "#link";
import { evaluateWith } from "../../tests/evaluated";
import { arrangeRows } from "./arrangeRows";
import { buildTape, createTapeBuilder } from "./buildTape";
import { listFacts } from "./frameFacts";
import type { TapeModel } from "./tapeRows";

const KIT: Kit = sketchKit("a", {
  gates: [{ id: "ground", name: "Ground" }],
  patterns: [{ id: "press", name: "Press", kind: "press", control: "a" }],
  moves: [
    { id: "hop", name: "Hop", pattern: "press", needs: [{ gate: "ground" }], buffer: "3f" },
    { id: "roll", name: "Roll", pattern: "press" },
  ],
});

/** Hop by the rules on 10, 50 and 90; Roll never, since Hop has its press. */
const TAKE: Take = {
  ...drawTake(
    { a: `${".".repeat(10)}#${".".repeat(39)}#${".".repeat(39)}#${".".repeat(60)}` },
    { ground: "#".repeat(151) },
  ),
  did: { hop: [10, 52], roll: [130] },
};

const marksOf = ({ rows }: TapeModel, id: string) => {
  const row = rows.find(item => item.group === "game" && item.id === id)!;
  return row.markFrame.map((frame, k) => [frame, row.markLook[k], row.markText[k]]);
};

test("each act of the game is a mark, compared with the rules; an act of the rules alone has one too", () => {
  const { rules, trace } = evaluateWith(KIT, TAKE);
  const model = buildTape(rules, trace, TAKE);
  expect(marksOf(model, "hop")).toEqual([
    [10, "did", ""],
    [52, "differs", "2f later than the rules"],
    [90, "absent", "only the rules"],
  ]);
  expect(marksOf(model, "roll")).toEqual([[130, "differs", "only the game"]]);
  const facts = listFacts(model, rules, trace, 52).map(({ name, fact }) => `${name}: ${fact}`);
  expect(facts).toContain("Hop, in the game: performed, 2f later than the rules");
  const lacking = listFacts(model, rules, trace, 90).map(({ name, fact }) => `${name}: ${fact}`);
  expect(lacking).toContain("Hop, in the game: not performed, only the rules");
});

test("a take without reports has no such rows, and a move that was never reported has none on the tape", () => {
  const { rules, trace } = evaluateWith(KIT, TAKE);
  const { did: _did, ...bare } = TAKE;
  expect(buildTape(rules, trace, bare).rows.filter(({ group }) => group === "game")).toEqual([]);
  const model = buildTape(rules, trace, { ...TAKE, did: { roll: [130] } });
  const shown = arrangeRows(model, { folded: [], order: [] } as never).rows.filter(
    ({ group }) => group === "game",
  );
  // The rules perform Hop, which the game never did.
  expect(shown.map(({ name }) => name)).toEqual(["Hop, in the game", "Roll, in the game"]);
});

test("of a recording, only the moves that it shows are compared, also one that the game never performed", () => {
  const { rules, trace } = evaluateWith(KIT, TAKE);
  const gameOf = (did: Take["did"]) =>
    buildTape(rules, trace, { ...TAKE, did: did!, didOf: "listed" }).rows.filter(
      ({ group }) => group === "game",
    );
  expect(gameOf({ roll: [130] }).map(({ id }) => id)).toEqual(["roll"]);
  const [hop, ...others] = gameOf({ hop: [] });
  expect(others).toEqual([]);
  expect(hop!.markText).toEqual(["only the rules", "only the rules", "only the rules"]);
  const differences = (did: Take["did"], didOf?: "listed") => {
    const take: Take = { ...TAKE, did: did!, ...(didOf ? { didOf } : {}) };
    return compareTake(rules.program, trace, take).map(formatDifference);
  };
  expect(differences({ roll: [130] }, "listed")).toEqual(["only the game"]);
  expect(differences({ roll: [130] })).toHaveLength(4);
  expect(differences({ hop: [] }, "listed")).toHaveLength(3);
});

test("while it is played, an act is drawn at once and compared when nothing can change it any more", () => {
  const { rules, trace } = evaluateWith(KIT, TAKE);
  const builder = createTapeBuilder(rules, 60);
  const upTo = (frames: number) => {
    const count = Array.from(trace.frame.slice(0, trace.count)).filter(frame => frame < frames).length;
    const acts = [
      { f: 10, id: "hop" },
      { f: 52, id: "hop" },
      { f: 130, id: "roll" },
    ].filter(({ f }) => f < frames);
    return builder.extend({ ...trace, count, frames }, acts);
  };
  expect(marksOf(upTo(53), "hop")).toEqual([
    [10, "did", ""],
    [52, "did", ""],
  ]);
  expect(marksOf(upTo(84), "hop").at(-1)).toEqual([52, "differs", "2f later than the rules"]);
  expect(marksOf(upTo(151), "hop").at(-1)).toEqual([90, "absent", "only the rules"]);
});
