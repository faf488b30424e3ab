import { expect, test } from "vitest";
import { deleteAt, readAt, writeAt } from "./editAt";

const DOCUMENT = { run: { speed: 6 }, list: [{ n: 1 }, { n: 2 }] };

test("a value is written below an object that is absent, and taken out again", () => {
  const path = ["run", "air", "turn"];
  const written = writeAt(DOCUMENT, path, 40);
  expect(written).toEqual({ ...DOCUMENT, run: { speed: 6, air: { turn: 40 } } });
  expect(readAt(DOCUMENT, path)).toBeUndefined();
  expect(deleteAt(written, path)).toEqual({ ...DOCUMENT, run: { speed: 6, air: {} } });
  expect(deleteAt(DOCUMENT, path)).toBe(DOCUMENT);
});

test("a value in a list is replaced, and all beside it is shared", () => {
  const written = writeAt(DOCUMENT, ["list", 1, "n"], 3);
  expect(written.list).toEqual([{ n: 1 }, { n: 3 }]);
  expect([written.run, written.list[0]]).toEqual([DOCUMENT.run, DOCUMENT.list[0]]);
  expect(written.list[0]).toBe(DOCUMENT.list[0]);
});
