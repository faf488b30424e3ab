import { expect, test } from "vitest";
import type { Blow, Cancels, FrameRange } from "#stage";
import { sketchKit } from "../../../core/tests/strips";
import { firstWindow, listCellLines } from "./cancelTable";

const cancels = (follows: Partial<Record<Blow, readonly FrameRange[]>>): Cancels => ({
  frames: 20,
  follows: new Map(Object.entries(follows).map(([blow, ranges]) => [blow as Blow, [ranges]])),
});

test("outcomes with the same frames are one line; all frames are in words; none is empty", () => {
  const late = [{ from: 8, to: 12 }];
  expect(listCellLines(cancels({ miss: late, hit: late, guard: late }), 0)).toEqual(["8–12f"]);
  expect(listCellLines(cancels({ miss: [], hit: late, guard: late }), 0)).toEqual([
    "8–12f on a hit, on a guard",
  ]);
  expect(
    listCellLines(cancels({ miss: [{ from: 1, to: 19 }], hit: [{ from: 4, to: 4 }], guard: [] }), 0),
  ).toEqual(["any frame on a miss", "4f on a hit"]);
  expect(listCellLines(cancels({ miss: [] }), 0)).toEqual([]);
});

test("the first window is from the first active frame to the last frame, also in ms and without a timeline", () => {
  const kit = sketchKit("a", {
    patterns: [{ id: "p", name: "P", kind: "press", control: "a" }],
    moves: [
      { id: "jab", name: "Jab", pattern: "p", frames: { startup: "100ms", active: "3f", recovery: "11f" } },
      { id: "hop", name: "Hop", pattern: "p" },
    ],
  });
  expect(firstWindow(kit, kit.moves![0]!, "hit")).toEqual({ when: "hit", from: "100ms", to: "19f" });
  expect(firstWindow(kit, kit.moves![1]!, "any")).toEqual({ when: "any", from: "0f", to: "0f" });
});
