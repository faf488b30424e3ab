import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { notes, readTake, type Kit, type Take } from "#core";
import { sketchKit } from "../../core/tests/strips";
import { findAdvantage } from "./advantage";
import { BLOWS, findCancels, formatRanges } from "./cancels";
import { compileRules } from "../rules";
import { runRules } from "../staging";

const DUEL = JSON.parse(readFileSync("demo/clapper-duel/kit.json", "utf8")) as Kit;
const indexOf = (kit: Kit, id: string) => kit.moves!.findIndex(move => move.id === id);

/** Returns the moves performed on the frame of a second press, which comes `age` frames after the first. */
function followedBy(kit: Kit, first: string, second: string, age: number): readonly string[] {
  const rules = compileRules(kit);
  if (!rules.ok) throw new Error("the kit has faults");
  const press = (at: number): [number, number][] => [
    [at, 1],
    [at + 1, 0],
  ];
  const lanes =
    first === second
      ? { [first]: [...press(5), ...press(5 + age)] }
      : { [first]: press(5), [second]: press(5 + age) };
  const take: Take = {
    ...{ format: "moss-tap/take", version: 1, id: "t", name: "T", rate: kit.rate, frames: 120 },
    lanes,
  };
  const { program } = rules.value;
  const { trace } = runRules(rules.value, readTake(program, take));
  return Array.from({ length: trace.count }, (_, i) => i)
    .filter(i => trace.kind[i] === notes.performed.code && trace.frame[i] === 5 + age)
    .map(i => program.moves[trace.subject[i]!]!.id);
}

test("on every frame of a blow, a press performs the moves that may follow, and no other", () => {
  const away = [{ at: "1f", does: "away", for: "300f" }];
  const alone: Kit = { ...DUEL, stage: { ...(DUEL.stage as object), script: away } };
  const chime = indexOf(DUEL, "chime");
  const { frames, follows } = findCancels(DUEL, chime)!;
  expect(frames).toBe(26);
  expect([...follows.keys()]).toEqual([...BLOWS]);
  expect(formatRanges(follows.get("hit")![indexOf(DUEL, "toll")]!)).toBe("10–24f");
  expect(formatRanges(follows.get("miss")![chime]!)).toBe("");
  let performed = 0;
  for (const id of ["chime", "toll", "peal"])
    for (let age = 2; age < 26; age++) {
      const may = follows.get("miss")![indexOf(DUEL, id)]!.some(({ from, to }) => age >= from && age <= to);
      const isPerformed = followedBy(alone, "strike", "strike", age).includes(id);
      expect([id, age, isPerformed]).toEqual([id, age, may]);
      if (isPerformed) performed++;
    }
  expect(performed).toBe(15);
});

test("a kit without a stage: windows by gates, free gates, priorities, uses and slots", () => {
  const frames = { startup: "4f", active: "3f", recovery: "13f" };
  const kit: Kit = sketchKit("ab", {
    gates: [
      { id: "ground", name: "Ground" },
      { id: "late", name: "Late" },
    ],
    patterns: [
      { id: "pa", name: "PA", kind: "press", control: "a" },
      { id: "pb", name: "PB", kind: "press", control: "b" },
    ],
    moves: [
      {
        id: "jab",
        name: "Jab",
        pattern: "pa",
        bans: ["busy:main"],
        frames,
        opens: [{ gate: "late", from: "8f", to: "12f" }],
      },
      { id: "kick", name: "Kick", pattern: "pb", needs: [{ gate: "late", coyote: "2f" }], frames },
      { id: "low", name: "Low", pattern: "pb", bans: ["busy:main"] },
      { id: "dash", name: "Dash", pattern: "pb", slot: "feet", priority: -1, needs: [{ gate: "ground" }] },
      { id: "roll", name: "Roll", pattern: "pb", off: true },
    ],
  });
  const { follows, frames: whole } = findCancels(kit, 0)!;
  const words = follows.get("miss")!.map(formatRanges);
  expect(whole).toBe(20);
  // Kick by its window and coyote; Dash where Kick does not take its press, with the ground that a game would open.
  expect(words).toEqual(["", "8–14f", "", "1–7f, 15–19f", ""]);
  for (let age = 2; age < 20; age++) {
    const isKick = followedBy(kit, "a", "b", age).includes("kick");
    expect([age, isKick]).toEqual([age, age >= 8 && age <= 14]);
  }
  expect(findCancels(kit, 2)).toBeUndefined();
});

test("a kit without a stage: a gate that a game opens stays open, and moves for different counts are no rivals", () => {
  const kit: Kit = sketchKit("ab", {
    gates: [
      { id: "ground", name: "Ground" },
      { id: "air", name: "Air", none: ["ground"] },
    ],
    patterns: [
      { id: "pa", name: "PA", kind: "press", control: "a" },
      { id: "taps", name: "Taps", kind: "taps", control: "b", count: 2, gap: "6f", answer: "each" },
    ],
    moves: [
      {
        ...{ id: "jab", name: "Jab", pattern: "pa", needs: [{ gate: "ground", coyote: "3f" }] },
        frames: { startup: "4f", active: "3f", recovery: "5f" },
      },
      {
        id: "hop",
        name: "Hop",
        pattern: "taps",
        when: { count: 1 },
        needs: [{ gate: "ground" }],
        slot: "feet",
      },
      { id: "roll", name: "Roll", pattern: "taps", when: { count: 2 }, slot: "feet" },
      { id: "any", name: "Any", pattern: "taps", needs: [{ gate: "ground" }], slot: "feet", priority: 1 },
      { id: "dive", name: "Dive", pattern: "pa", modes: ["low"], needs: [{ gate: "ground" }], priority: 1 },
      { id: "glide", name: "Glide", pattern: "pa", modes: ["high"], slot: "wings", priority: 2 },
    ],
    modes: [
      { id: "low", name: "Low" },
      { id: "high", name: "High" },
    ],
    start: "low",
    switches: [{ when: { gate: "air", turns: "open" }, to: "high" }],
  });
  const wordsOf = (of: Kit) => findCancels(of, 0)!.follows.get("miss")!.map(formatRanges);
  // It is on the ground all the while, so Any takes every tap, and nothing turns the mode to that of the air.
  expect(wordsOf(kit)).toEqual(["", "", "", "1–11f", "1–11f", ""]);
  // A move that needs no ground itself is tried on it, too, as long as that leaves it in the first mode.
  const free: Kit = {
    ...kit,
    moves: kit.moves!.map(move => (move.id === "jab" ? { ...move, needs: [] } : move)),
  };
  expect(wordsOf(free)).toEqual(["", "", "", "1–11f", "1–11f", ""]);
  const flying: Kit = { ...free, switches: [{ when: { gate: "ground", turns: "open" }, to: "high" }] };
  expect(wordsOf(flying)[4]).toBe("1–11f");
  const without: Kit = { ...kit, moves: kit.moves!.filter(({ id }) => id !== "any" && id !== "dive") };
  expect(wordsOf(without)).toEqual(["1–11f", "1–11f", "1–11f", ""]);
});

test("a move of a motion, of taps or of mashing is tried as the first one, too", () => {
  const stick = { id: "s", name: "S", up: "u", down: "d", left: "l", right: "r" };
  const patterns: Kit["patterns"] = [
    {
      id: "turn",
      name: "Turn",
      kind: "sequence",
      gap: "12f",
      steps: [{ dir: "s:2" }, { dir: "s:3" }, { dir: "s:6" }, { press: "a" }],
    },
    { id: "twice", name: "Twice", kind: "taps", control: "a", count: 2, gap: "12f", answer: "final" },
    { id: "mash", name: "Mash", kind: "mash", controls: ["a"], count: 4, within: "40f" },
  ];
  const blow = { frames: { startup: "4f", active: "2f", recovery: "10f" }, effect: { strike: 5 } };
  const own: Kit = {
    ...DUEL,
    controls: ["a", "u", "d", "l", "r"].map(id => ({ id, name: id, bindings: [] })),
    sticks: [stick],
    gates: [
      { id: "struck", name: "Struck" },
      { id: "blocked", name: "Blocked" },
    ],
    patterns,
    moves: patterns.map(({ id }) => ({ id: `m-${id}`, name: id, pattern: id, ...blow })),
    prompts: [],
  };
  for (const move of own.moves!.keys()) {
    const found = findCancels(own, move);
    expect(found?.frames, own.moves![move]!.name).toBe(16);
    expect([...found!.follows.keys()]).toEqual(["miss", "hit", "guard"]);
    expect(findAdvantage(own, move)?.onHit, own.moves![move]!.name).toBeGreaterThan(0);
  }
});
