import { expect, test } from "vitest";
import { freshLetter, paintTiles, resizeLevel, tileAt } from "./levelEdits";

const ROWS = ["", " @", "####"];
const at = (column: number, row: number) => ({ column, row });

test("a tile is painted where it is, rows padded as wide as the widest", () => {
  expect(paintTiles(ROWS, at(2, 0), at(2, 0), "#")).toEqual(["  # ", " @", "####"]);
  expect(tileAt(ROWS, at(3, 0))).toBe(" ");
  expect(tileAt(ROWS, at(0, 9))).toBe(" ");
});

test("painting the existing tile, or outside, returns the same rows", () => {
  expect(paintTiles(ROWS, at(0, 2), at(3, 2), "#")).toBe(ROWS);
  expect(paintTiles(ROWS, at(4, 0), at(4, 0), "#")).toBe(ROWS);
  expect(paintTiles(ROWS, at(-1, 0), at(0, -1), "#")).toBe(ROWS);
  expect(paintTiles(ROWS, at(0, 3), at(0, 3), "#")).toBe(ROWS);
});

test("a quick stroke leaves no gaps, also aslant", () => {
  expect(paintTiles(ROWS, at(0, 0), at(3, 0), "#")[0]).toBe("####");
  expect(paintTiles(ROWS, at(0, 0), at(2, 2), " ")).toEqual(["", "    ", "## #"]);
});

test("there is one start: set anew, the old one goes", () => {
  expect(paintTiles(ROWS, at(3, 0), at(3, 0), "@")).toEqual(["   @", "  ", "####"]);
});

test("a level grows and shrinks at its right and top, and not below its least", () => {
  const wide = resizeLevel(["#", "##########"], 1, 2);
  expect(wide).toEqual(["           ", "           ", "#          ", "########## "]);
  expect(resizeLevel(wide, -1, -1)).toEqual(["          ", "#         ", "##########"]);
  expect(resizeLevel(wide, -99, -99)).toEqual(["        ", "#       ", "########"]);
});

test("a zone more has a letter of its own", () => {
  expect(freshLetter({ a: "bell", c: "ring" })).toBe("b");
  expect(freshLetter(Object.fromEntries([..."abcdefghijklmnopqrstuvwxyz"].map(x => [x, x])))).toBeUndefined();
});
