import { expect, test } from "vitest";
import { arrangeRows, foldRows, listStirring, moveRow } from "./arrangeRows";
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

test("rows follow the kit's order, the speed only if the take has one or it is to be painted", () => {
  expect(namesOf(arrangeRows(sketch(), AS_IS))).toEqual(["Leap", "Brace", "Hop", "Dash"]);
  expect(namesOf(arrangeRows(sketch(), AS_IS, { isPainting: true })).at(-1)).toBe("Speed");
  const slow = sketch();
  addSpan(slow.rows.at(-1)!, 3, 8, "speed", "50 %");
  expect(namesOf(arrangeRows(slow, AS_IS)).at(-1)).toBe("Speed");
});

test("a folded group is one row with what was down in any of it, and every mark in frame order", () => {
  const folded = foldRows(foldRows(AS_IS, "controls"), "moves");
  const [controls, moves] = arrangeRows(sketch(), folded).rows;
  expect(controls).toMatchObject({
    name: "Controls, 2 folded",
    folded: 2,
    spanFrom: [2, 20],
    spanTo: [9, 22],
  });
  expect(moves).toMatchObject({ markFrame: [3, 8], markLook: ["lost", "performed"], markNote: [30, 40] });
  expect(foldRows(folded, "moves").folded).toEqual(["controls"]);
});

test("a search by name includes folded groups", () => {
  const folded = foldRows(AS_IS, "moves");
  expect(namesOf(arrangeRows(sketch(), folded, { word: " das" }))).toEqual(["Dash"]);
});

test("a row moves only within its group; rows without a stored order come last", () => {
  const whole = sketch().rows;
  const shown = arrangeRows(sketch(), AS_IS).rows;
  const moved = moveRow(AS_IS, whole, shown, 0, 1);
  expect(namesOf(arrangeRows(sketch(), moved))).toEqual(["Brace", "Leap", "Hop", "Dash"]);
  expect(moveRow(AS_IS, whole, shown, 1, 1)).toBe(AS_IS);
  expect(moveRow(AS_IS, whole, shown, 0, -1)).toBe(AS_IS);
  const onlyDash = { folded: [], order: ["moves:dash"] };
  expect(namesOf(arrangeRows(sketch(), onlyDash)).slice(2)).toEqual(["Dash", "Hop"]);
});

test("rows are filtered to those with content or those of a rule; while painting every lane is shown", () => {
  const still = sketch();
  const model = { ...still, rows: [...still.rows, createRow("moves", { id: "nap", name: "Nap" })] };
  expect(namesOf(arrangeRows(model, AS_IS))).toContain("Nap");
  expect(namesOf(arrangeRows(model, AS_IS, { only: listStirring(model) }))).not.toContain("Nap");
  const nothing = { ...EMPTY_TAPE, rows: [createRow("moves", { id: "nap", name: "Nap" })] };
  expect(namesOf(arrangeRows(nothing, AS_IS, { only: listStirring(nothing) }))).toEqual(["Nap"]);
  const only = new Set(["controls:b", "moves:hop"]);
  expect(namesOf(arrangeRows(model, AS_IS, { only }))).toEqual(["Brace", "Hop"]);
  expect(namesOf(arrangeRows(model, AS_IS, { only, isPainting: true }))).toEqual([
    "Leap",
    "Brace",
    "Hop",
    "Speed",
  ]);
});

test("a row moved among few shown ones passes its neighbour; those not shown keep their places", () => {
  const whole = [..."abcd"].map(id => createRow("controls", { id, name: id }));
  const shown = [whole[0]!, whole[2]!];
  const moved = moveRow(AS_IS, whole, shown, 0, 1);
  expect(moved.order).toEqual(["controls:b", "controls:c", "controls:a", "controls:d"]);
});
