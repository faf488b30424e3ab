import { expect, test } from "vitest";
import type { Kit } from "../kit/schema";
import { findFollowUp, listLinks } from "./followUp";

const frames = { startup: "6f", active: "4f", recovery: "14f" };
const KIT: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "k",
  name: "K",
  rate: 60,
  controls: [
    { id: "a", name: "A", bindings: [] },
    { id: "b", name: "B", bindings: [] },
  ],
  gates: [
    { id: "next", name: "Next" },
    { id: "ground", name: "Ground" },
  ],
  patterns: [
    { id: "pa", name: "PA", kind: "press", control: "a" },
    { id: "pb", name: "PB", kind: "press", control: "b" },
    { id: "ha", name: "HA", kind: "hold", control: "a", for: "9f", fire: "reach" },
  ],
  moves: [
    {
      id: "one",
      name: "One",
      pattern: "pa",
      bans: ["busy:main"],
      frames,
      opens: [{ gate: "next", from: "9f", to: "23f" }],
    },
    {
      id: "two",
      name: "Two",
      pattern: "pa",
      needs: [{ gate: "next" }, { gate: "ground" }],
      buffer: "5f",
      priority: 1,
      frames,
    },
    { id: "three", name: "Three", pattern: "pb", needs: [{ gate: "next", coyote: "3f" }], frames },
    { id: "held", name: "Held", pattern: "ha", needs: [{ gate: "next" }] },
  ],
};

test("links are moves that open gates for each other; each window equals the result of running every press", () => {
  expect(listLinks(KIT)).toEqual([
    [0, 1],
    [0, 2],
    [0, 3],
  ]);
  // Open from 9 to 23 frames after the performance, both included; buffered for 5 before and not later.
  expect(findFollowUp(KIT, 0, 1)).toEqual({
    earliestPress: 4,
    latestPress: 23,
    earliest: 9,
    latest: 23,
    gain: 15,
  });
  // Not buffered, but a coyote of 3 follows.
  expect(findFollowUp(KIT, 0, 2)).toEqual({
    earliestPress: 9,
    latestPress: 26,
    earliest: 9,
    latest: 26,
    gain: 15,
  });
});

test("a link in the middle of a chain is tried as if the one before had been made", () => {
  const kit: Kit = {
    ...KIT,
    gates: [...KIT.gates!, { id: "last", name: "Last" }],
    moves: [
      KIT.moves![0]!,
      { ...KIT.moves![1]!, opens: [{ gate: "last", from: "9f", to: "23f" }] },
      { id: "end", name: "End", pattern: "pa", needs: [{ gate: "last" }], priority: 2, frames },
    ],
  };
  expect(findFollowUp(kit, 1, 2)).toMatchObject({ earliestPress: 9, latestPress: 23, earliest: 9 });
});

test("a follow-up by a hold includes the frames of its hold", () => {
  // A press from 2 on is held for 9 frames and fires once the gate is open; a press at 14 on its last frame.
  expect(findFollowUp(KIT, 0, 3)).toMatchObject({
    earliestPress: 2,
    latestPress: 14,
    earliest: 11,
    latest: 23,
  });
});

test("a first blow that waits for recognition can be followed, whatever its pattern", () => {
  const waits = {
    ...KIT,
    patterns: [
      ...KIT.patterns,
      { id: "single", name: "Single", kind: "taps", control: "a", count: 1, gap: "3f", answer: "final" },
      { id: "twice", name: "Twice", kind: "taps", control: "b", count: 2, gap: "6f", answer: "nth" },
      { id: "both", name: "Both", kind: "chord", controls: ["a", "b"], spread: "2f" },
    ],
  } as Kit;
  const asked = (first: string, second: string): Kit => ({
    ...waits,
    moves: [
      { ...waits.moves![0]!, pattern: first },
      { ...waits.moves![2]!, pattern: second },
    ],
  });
  const plain = { earliest: 9, latest: 26, gain: 15 };
  expect(findFollowUp(asked("single", "pb"), 0, 1)).toMatchObject({ ...plain, earliestPress: 9 });
  expect(findFollowUp(asked("pa", "twice"), 0, 1)).toMatchObject({ ...plain, earliestPress: 9 });
  // Pressed two frames apart: the first button falls on the last busy frame and performs nothing alone.
  expect(findFollowUp(asked("pa", "both"), 0, 1)).toMatchObject({ ...plain, latest: 25 });
});

test("a move that never follows has no window", () => {
  const never = {
    ...KIT,
    moves: KIT.moves!.map(move => (move.id === "two" ? { ...move, bans: ["busy:main"] } : move)),
  };
  expect(findFollowUp(never, 0, 1)).toBeUndefined();
  expect(findFollowUp({ ...KIT, moves: [] }, 0, 1)).toBeUndefined();
});
