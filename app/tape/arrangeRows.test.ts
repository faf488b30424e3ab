import { expect, test } from "vitest";
import { arrangeRows, foldRows, moveRow } from "./arrangeRows";
import { addMark, addSpan, createRow, EMPTY_TAPE, type TapeModel } from "./tapeRows";

const AS_IS = { folded: [], order: [] };

function sketch(): TapeModel {
  const a = createRow("controls", { id: "a", name: "Leap" });
  const b = createRow("controls", { id: "b", name: "Brace" });
  addSpan(a, 2, 6, "down");
  addSpan(b, 4, 9, "down");
  addSpan(b, 20, 22, "down");
  const hop = createRow("moves", { id: "hop", name: "Hop" });
  const dash = createRow("moves", { id: "dash", name: "Dash" });
  addMark(hop, 8, "performed", 40, 6);
  addMark(dash, 3, "lost", 30, 1);
  return {
    ...EMPTY_TAPE,
    frames: 40,
    rows: [a, b, hop, dash, createRow("time", { id: "speed", name: "Speed" })],
  };
}

const namesOf = (model: TapeModel) => model.rows.map(row => row.name);

test("rows stand as the kit has them, the speed only where there is any or it is to be painted", () => {
  expect(namesOf(arrangeRows(sketch(), AS_IS, "", false))).toEqual(["Leap", "Brace", "Hop", "Dash"]);
  expect(namesOf(arrangeRows(sketch(), AS_IS, "", true)).at(-1)).toBe("Speed");
  const slow = sketch();
  addSpan(slow.rows.at(-1)!, 3, 8, "speed", "50 %");
  expect(namesOf(arrangeRows(slow, AS_IS, "", false)).at(-1)).toBe("Speed");
});

test("a folded group is one row with what was down in any of it, and every mark in frame order", () => {
  const folded = foldRows(foldRows(AS_IS, "controls"), "moves");
  const [controls, moves] = arrangeRows(sketch(), folded, "", false).rows;
  expect(controls).toMatchObject({
    name: "Controls, 2 folded",
    folded: 2,
    spanFrom: [2, 20],
    spanTo: [9, 22],
  });
  expect(moves).toMatchObject({ markFrame: [3, 8], markLook: ["lost", "performed"], markNote: [30, 40] });
  expect(foldRows(folded, "moves").folded).toEqual(["controls"]);
});

test("what is looked for by name is found in folded groups too", () => {
  const folded = foldRows(AS_IS, "moves");
  expect(namesOf(arrangeRows(sketch(), folded, " das", false))).toEqual(["Dash"]);
});

test("a row moves within its group and no farther; rows the order does not know stand last", () => {
  const shown = arrangeRows(sketch(), AS_IS, "", false).rows;
  const moved = moveRow(AS_IS, shown, 0, 1);
  expect(namesOf(arrangeRows(sketch(), moved, "", false))).toEqual(["Brace", "Leap", "Hop", "Dash"]);
  expect(moveRow(AS_IS, shown, 1, 1)).toBe(AS_IS);
  expect(moveRow(AS_IS, shown, 0, -1)).toBe(AS_IS);
  const onlyDash = { folded: [], order: ["moves:dash"] };
  expect(namesOf(arrangeRows(sketch(), onlyDash, "", false)).slice(2)).toEqual(["Dash", "Hop"]);
});
