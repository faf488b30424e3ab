import { expect, test } from "vitest";
import type { Take } from "#core";
import { DEFAULT_STUDY_SETTINGS } from "../../document/studySettings";
import { filterTakes, listFilters } from "./takeFilter";

const { takeList: ALL_TAKES } = DEFAULT_STUDY_SETTINGS;

const take = (name: string, more: Partial<Take> = {}): Take => {
  return { format: "moss-tap/take", version: 1, id: name, name, rate: 60, frames: 9, lanes: {}, ...more };
};
const TAKES = [
  take("One", { player: "Wren", device: "keys" }),
  take("Two", { player: "Wren", device: "pad", note: "left hand" }),
  take("Three", { player: "Moth" }),
];
const names = (by: string, words = "") => filterTakes(TAKES, { by, words }).map(({ name }) => name);

test("takes are filtered by any field in which some differ, and found by any of their words", () => {
  expect(listFilters(TAKES).map(({ label }) => label)).toEqual([
    "all takes",
    "takes by Moth",
    "takes by Wren",
    "takes played on keys",
    "takes played on pad",
    "takes with a note",
  ]);
  expect(listFilters([take("Bare")])).toHaveLength(1);
  expect(names("player Wren")).toEqual(["One", "Two"]);
  expect(names("device pad")).toEqual(["Two"]);
  expect(names("note")).toEqual(["Two"]);
  expect(names("all", " LEFT ")).toEqual(["Two"]);
  expect(names("player Wren", "moth")).toEqual([]);
  // A filter without matching takes lets all through.
  expect(names("player Nobody")).toEqual(["One", "Two", "Three"]);
  expect(filterTakes(TAKES, ALL_TAKES)).toEqual(TAKES);
});
