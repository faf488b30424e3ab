import { expect, test } from "vitest";
import { drawTake, play, sketchKit } from "../tests/strips";
import { listPressRows, PRESS_COLUMNS } from "./pressRows";

const KIT = sketchKit("ab", {
  gates: [{ id: "g", name: "G" }],
  patterns: [
    { id: "p", name: "P", kind: "press", control: "a" },
    { id: "h", name: "H", kind: "hold", control: "b", for: "3f", fire: "reach" },
  ],
  moves: [{ id: "m", name: "M", pattern: "p", needs: [{ gate: "g" }], buffer: "2f" }],
  modes: [
    { id: "one", name: "One" },
    { id: "two", name: "Two" },
  ],
  switches: [{ when: { move: "m" }, to: "two" }],
});

test("every press is a row with its length, its fate, its missing gate and by how much it missed", () => {
  const { program, trace } = play(
    KIT,
    drawTake({ a: ".##...#.#........", b: "...##.....######." }, { g: "......########..." }),
  );
  const rows = listPressRows(program, trace, { id: "t", player: "Ada" });
  const facts = rows.map(
    ({ control, frame, held_frames, outcome, used_by, waited, by, lost_why, missed_by }) =>
      [control, frame, held_frames, outcome, used_by, waited, by, lost_why, missed_by].join(" "),
  );
  expect(facts).toEqual([
    "a 1 2 lost    gate:g 3",
    "b 3 2 lapsed     ",
    "a 6 1 used m 0 direct  ",
    "a 8 1 used m 0 direct  ",
    "b 10 6 fired     ",
  ]);
  expect(rows.map(row => row.mode)).toEqual(["one", "one", "one", "two", "two"]);
  expect(rows.map(row => row.rule)).toEqual(["p", "h", "p", "p", "h"]);
  expect(rows[1]).toMatchObject({ lapsed_why: "too-short", player: "Ada", ms: 50 });
  for (const row of rows) expect(Object.keys(row)).toEqual(PRESS_COLUMNS.map(([name]) => name));
});

test("a press that is never released is held to the end; a banned one waits for the ban to close", () => {
  const kit = { ...KIT, moves: [{ id: "m", name: "M", pattern: "p", bans: ["g"] }], switches: [] };
  const { program, trace } = play(kit, drawTake({ a: "....####" }, { g: "..####.." }));
  expect(listPressRows(program, trace, { id: "t" })).toMatchObject([
    { held_frames: 4, lost_move: "m", lost_why: "ban:g", missed_by: 2, player: null },
  ]);
});
