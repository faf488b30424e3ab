import { expect, test } from "vitest";
import type { AlignedEvent } from "#core";
import { readKitAndTakes } from "../../tests/evaluated";
import { countDifferences, groupEvents, listStoryRules } from "./storyRules";

const event = (what: AlignedEvent["what"]): AlignedEvent =>
  ({ kind: "performed", id: "hop", what, was: 0, is: 0 }) as AlignedEvent;

test("differences are counted by their kind, worst first; like events add none", () => {
  expect(countDifferences([event("same"), event("same")])).toEqual([]);
  expect(
    countDifferences(["slipped", "gone", "new", "gone", "changed", "same"].map(what => event(what as never))),
  ).toEqual(["2 gone", "1 new", "1 other", "1 moved"]);
});

test("the rules of two kits are those of the first, with those that only the second has after their like", () => {
  const { kit } = readKitAndTakes("demo/belfry-runner");
  const [first, ...rest] = kit.moves!;
  const names = listStoryRules({ ...kit, moves: rest }, kit).map(({ name }) => name);
  expect(names.slice(0, rest.length + 1)).toEqual([...rest.map(({ name }) => name), first!.name]);
  expect(listStoryRules(kit)).toHaveLength(kit.moves!.length + (kit.prompts?.length ?? 0));
});

test("a move and a prompt of one id have their own events", () => {
  const ofPrompt = { ...event("new"), kind: "prompt" } as AlignedEvent;
  const stories = [{ take: "t", version: 0, events: [event("gone"), ofPrompt] }];
  expect(groupEvents(stories)({ kind: "prompt", id: "hop" })).toEqual([ofPrompt]);
});
