import { expect, test } from "vitest";
import { freeName, nextTakeNumber } from "./takeNames";

const named = (...names: string[]) => names.map(name => ({ name }));

test("a name that is taken gets a number, the first that is free", () => {
  expect(freeName(named("Hands"), "Other")).toBe("Other");
  expect(freeName(named("Hands", "Hands 2"), "Hands")).toBe("Hands 3");
});

test("a number is never given twice, whatever was deleted or renamed since", () => {
  expect(nextTakeNumber(named())).toBe(1);
  expect(nextTakeNumber(named("Clean climb", "Sloppy"))).toBe(3);
  expect(nextTakeNumber(named("Take 7"))).toBe(8);
  expect(nextTakeNumber(named("Take 2"), 9)).toBe(10);
});
