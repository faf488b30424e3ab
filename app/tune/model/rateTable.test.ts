import { expect, test } from "vitest";
import type { AlignedEvent } from "#core";
import { countDifferences, toggleRate } from "./rateTable";

const event = (what: AlignedEvent["what"]): AlignedEvent =>
  ({ kind: "performed", id: "hop", what, was: 0, is: 0 }) as AlignedEvent;

test("differences are counted by their kind, worst first; like events add none", () => {
  expect(countDifferences([event("same"), event("same")])).toEqual([]);
  expect(
    countDifferences(["slipped", "gone", "new", "gone", "changed", "same"].map(what => event(what as never))),
  ).toEqual(["2 gone", "1 new", "1 other", "1 moved"]);
});

test("a rate is toggled in its place", () => {
  expect(toggleRate([30, 144], 60)).toEqual([30, 60, 144]);
  expect(toggleRate([30, 60, 144], 60)).toEqual([30, 144]);
});
