import { expect, test } from "vitest";
import { createJudge } from "../../judging/judge";
import { readKitAndTakes } from "../../tests/evaluated";
import { findPressToSee } from "./pressToSee";

test.each([
  ["belfry-runner", "3-eaten", 136, "Leap", "which was lost"],
  ["clapper-duel", "2-pressed-too-early", 24, "Strike", "which was lost"],
  ["rope-catch", "2-sloppy-round", expect.any(Number), expect.any(String), "which no move or prompt used"],
])("%s has a press to look at, by its own rules and takes", (demo, takeId, frame, control, what) => {
  const { kit, takes } = readKitAndTakes(`demo/${demo}`);
  const found = findPressToSee(createJudge(), kit, takes)!;
  expect({ ...found, take: found.take.id }).toEqual({ take: takeId, frame, control, what });
});

test("without takes, with rules that do not compile, and with long takes there is none", () => {
  const { kit, takes } = readKitAndTakes("demo/belfry-runner");
  expect(findPressToSee(createJudge(), kit, [])).toBeUndefined();
  expect(findPressToSee(createJudge(), { ...kit, controls: [] }, takes)).toBeUndefined();
  expect(findPressToSee(createJudge(), kit, [...takes, { ...takes[0]!, frames: 6000 }])).toBeUndefined();
});
