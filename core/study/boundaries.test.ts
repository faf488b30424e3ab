import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import type { Kit } from "../kit/schema";
import { evaluate } from "../run/run";
import { writeAt } from "../kit/editAt";
import { mustCompile, sketchKit } from "../tests/strips";
import { formatPhasedTrace } from "../trace/formatTrace";
import { findBoundaries } from "./boundaries";

/** Returns the numbers that takes were found for on both sides, and those without any, each as "rule, label". */
function foundIn(kit: Kit) {
  const boundaries = findBoundaries(kit);
  const named = (list: typeof boundaries) => list.map(({ number }) => `${number.rule}, ${number.label}`);
  return {
    whole: named(boundaries.filter(({ isWhole }) => isWhole)),
    none: named(boundaries.filter(({ takes }) => takes.length === 0)),
  };
}

const GLIDE = {
  id: "glide",
  name: "Glide",
  kind: "hold" as const,
  control: "a",
  for: "10f",
  fire: "reach" as const,
};
const WARD = { id: "ward", name: "Ward", kind: "press" as const, control: "b" };

test("the linger of an output is shown by a move that needs it, and by one that it keeps from happening", () => {
  const kit = (reader: object) =>
    sketchKit("ab", {
      patterns: [GLIDE, WARD],
      moves: [
        { id: "float", name: "Float", pattern: "glide", linger: "70f", slot: "feet" },
        { id: "block", name: "Block", pattern: "ward", ...reader },
      ],
    });
  for (const reader of [{ bans: ["out:float"] }, { needs: [{ gate: "out:float" }] }])
    expect(foundIn(kit(reader)).whole).toContain("Float, output stays on for");
  expect(foundIn(kit({})).none).toContain("Float, output stays on for");
});

test("the linger of an output is shown by a press on another control that began before it", () => {
  const kit = sketchKit("ab", {
    patterns: [
      { id: "p", name: "P", kind: "press", control: "a" },
      { id: "long", name: "Long", kind: "hold", control: "b", for: "15f", fire: "release" },
    ],
    moves: [
      { id: "spray", name: "Spray", pattern: "p", linger: "3f", slot: "arm" },
      { id: "steam", name: "Steam", pattern: "long", bans: ["out:spray"] },
    ],
  });
  expect(foundIn(kit).whole).toContain("Spray, output stays on for");
});

test("a timeline is shown by a move that it keeps from happening, not by its phases alone, also through a derived gate", () => {
  const kit = sketchKit("ab", {
    gates: [{ id: "free", name: "Free", none: ["busy:main"] }],
    patterns: [
      { id: "p", name: "P", kind: "press", control: "a" },
      { id: "q", name: "Q", kind: "press", control: "b" },
    ],
    moves: [
      {
        id: "blow",
        name: "Blow",
        pattern: "p",
        frames: { startup: "5f", active: "10f", recovery: "15f" },
      },
      { id: "next", name: "Next", pattern: "q", needs: [{ gate: "free" }], slot: "other" },
    ],
  });
  const recovery = findBoundaries(kit).find(({ number }) => number.label === "recovery")!;
  const plainOf = (of: Kit) => {
    const program = mustCompile(of);
    return recovery.takes.map(take =>
      formatPhasedTrace(program, evaluate(program, take)).events.filter(({ kind }) => kind !== "phase"),
    );
  };
  for (const other of ["14f", "16f"])
    expect(plainOf(writeAt(kit, recovery.number.path, other))).not.toEqual(plainOf(kit));
});

test("a priority is shown by presses that two moves want at once", () => {
  const kit = sketchKit("ab", {
    patterns: [
      { id: "both", name: "Both", kind: "chord", controls: ["a", "b"], spread: "2f" },
      { id: "p", name: "P", kind: "press", control: "a" },
    ],
    moves: [
      { id: "one", name: "One", pattern: "p", buffer: "4f" },
      { id: "two", name: "Two", pattern: "both", priority: 1, buffer: "4f" },
    ],
  });
  expect(foundIn(kit).none).not.toContain("Two, priority");
});

test("fewer taps than the whole count are tried, and taps that wait are waited for", () => {
  const kit = sketchKit("a", {
    patterns: [
      { id: "taps", name: "Taps", kind: "taps", control: "a", count: 3, gap: "70f", answer: "final" },
    ],
    moves: [{ id: "sip", name: "Sip", pattern: "taps", when: { count: 1 } }],
  });
  expect(foundIn(kit).whole).toEqual(
    expect.arrayContaining(["Taps, longest gap between taps", "Sip, number of taps wanted"]),
  );
});

test("the buffer of a move is shown while a slot is busy that keeps it from happening", () => {
  const kit = sketchKit("ab", {
    patterns: [GLIDE, WARD],
    moves: [
      {
        id: "float",
        name: "Float",
        pattern: "glide",
        slot: "feet",
        frames: { startup: "5f", active: "2f", recovery: "9f" },
      },
      { id: "block", name: "Block", pattern: "ward", bans: ["busy:feet"], buffer: "6f" },
    ],
  });
  expect(foundIn(kit).whole).toContain("Block, buffer");
});

test("a move of a lower level of a charge has its numbers shown, though a higher one is used first", () => {
  const kit = sketchKit("a", {
    patterns: [
      {
        id: "windup",
        name: "Wind-up",
        kind: "charge",
        control: "a",
        full: "40f",
        fire: "release",
        levels: [
          { name: "near", at: "10f" },
          { name: "far", at: "30f" },
        ],
      },
    ],
    moves: [
      {
        id: "toss",
        name: "Toss",
        pattern: "windup",
        when: { level: 1 },
        frames: { startup: "3f", active: "2f", recovery: "9f" },
      },
      { id: "lob", name: "Lob", pattern: "windup", when: { level: 2 }, priority: 1 },
    ],
  });
  expect(foundIn(kit).whole).toEqual(expect.arrayContaining(["Toss, startup", "Toss, recovery"]));
});

test("the chain of the duel: both ends of each window that a blow opens for the next", () => {
  const { stage: _stage, ...duel } = JSON.parse(readFileSync("demo/clapper-duel/kit.json", "utf8")) as Kit;
  expect(foundIn(duel).whole).toEqual(
    expect.arrayContaining([
      "Chime, opens from",
      "Chime, opens until",
      "Toll, opens from",
      "Toll, opens until",
    ]),
  );
});

test("each take gives another trace under a number one larger or one smaller", () => {
  const kit = sketchKit("ab", {
    patterns: [GLIDE, WARD],
    moves: [{ id: "block", name: "Block", pattern: "ward", cooldown: "20f" }],
  });
  for (const { number, takes } of findBoundaries(kit)) {
    if (number.kind !== "length") continue;
    const frames = Number.parseInt(String(number.value), 10);
    expect(takes.length).toBeGreaterThan(0);
    for (const take of takes) {
      const eventsOf = (of: Kit) => {
        const program = mustCompile(of);
        return formatPhasedTrace(program, evaluate(program, take)).events;
      };
      const others = [frames - 1, frames + 1].map(other => eventsOf(writeAt(kit, number.path, `${other}f`)));
      expect(others.some(events => JSON.stringify(events) !== JSON.stringify(eventsOf(kit)))).toBe(true);
    }
  }
});
