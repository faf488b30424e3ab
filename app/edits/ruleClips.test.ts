import fc from "fast-check";
import { expect, test } from "vitest";
import { formatTrace, parseKit, readTake, run, type Kit } from "#core";
import { compileRules } from "#stage";
import { anyKit, anyTake } from "../../core/tests/arbitraries";
import { mustCompile } from "../../core/tests/strips";
import { readKitAndTakes } from "../tests/evaluated";
import { copyRules, pasteRules } from "./ruleClips";

const RUNNER = readKitAndTakes("demo/belfry-runner").kit;
const EMPTY: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "e",
  name: "E",
  rate: 60,
  controls: [],
  patterns: [],
};
const placeOf = (kit: Kit, list: "patterns" | "moves" | "gates" | "prompts", id: string) => ({
  list,
  index: (kit[list] ?? []).findIndex(item => item.id === id),
});
const listAll = (kit: Kit) =>
  (["patterns", "moves", "gates", "prompts"] as const).flatMap(list =>
    (kit[list] ?? []).map((_, index) => ({ list, index })),
  );

test("a move is copied with the pattern, control and gates that it refers to, as a kit", () => {
  const clip = copyRules(RUNNER, [placeOf(RUNNER, "moves", "hop")]);
  expect(clip.controls.map(({ id }) => id)).toEqual(["leap"]);
  expect(clip.moves?.map(({ id }) => id)).toEqual(["hop"]);
  expect(clip.gates?.map(({ id }) => id)).toEqual(["footing"]);
  expect(parseKit(JSON.parse(JSON.stringify(clip))).ok).toBe(true);
});

test("in its own kit a pasted move is a second one on the same pattern", () => {
  const { kit, added, controls } = pasteRules(RUNNER, copyRules(RUNNER, [placeOf(RUNNER, "moves", "hop")]));
  expect(added).toEqual([{ list: "moves", id: "hop-2", name: "Hop 2" }]);
  expect(controls).toEqual([]);
  expect(kit.patterns).toEqual(RUNNER.patterns);
  const { id: _id, name: _name, ...copy } = kit.moves!.at(-1)!;
  const { id: _first, name: _own, ...hop } = RUNNER.moves!.find(({ id }) => id === "hop")!;
  expect(copy).toEqual(hop);
  expect(compileRules(kit).ok).toBe(true);
});

test("in another kit controls and gates of the same name are used, taken ids and names are avoided, and time is kept", () => {
  const other: Kit = {
    ...EMPTY,
    rate: 120,
    controls: [
      { id: "a", name: "leap", bindings: [["key:KeyX"]] },
      { id: "leap", name: "Other", bindings: [["key:KeyY"]] },
    ] as unknown as Kit["controls"],
    patterns: [{ id: "leap-press", name: "Leap press", kind: "press", control: "a" }],
  } as Kit;
  const byName = { ...other, controls: [other.controls[0]!] };
  const clip = copyRules(RUNNER, [placeOf(RUNNER, "moves", "hop")]);
  const pasted = pasteRules(byName, clip);
  const pattern = pasted.kit.patterns.at(-1)!;
  expect("control" in pattern && pattern.control).toBe("a");
  expect(new Set(pasted.kit.patterns.map(({ id }) => id)).size).toBe(pasted.kit.patterns.length);
  expect(pasted.kit.moves!.at(-1)!.pattern).toBe(pattern.id);
  // 6 frames at 60 Hz are 12 at 120.
  expect((pasted.kit.moves!.at(-1) as { buffer?: string }).buffer).toBe("12f");
  expect(compileRules(pasted.kit).ok).toBe(true);
  expect(pasteRules(other, clip).kit.controls).toHaveLength(2);
});

test("rules limited to a mode are limited to the one of the same name, or hold in all modes", () => {
  const from = {
    ...EMPTY,
    controls: [{ id: "a", name: "A", bindings: [] }],
    modes: [
      { id: "x", name: "Ground", hides: [] },
      { id: "y", name: "Air" },
    ],
    patterns: [{ id: "p", name: "P", kind: "press", control: "a", modes: ["y"] }],
  } as unknown as Kit;
  const clip = copyRules(from, [placeOf(from, "patterns", "p")]);
  expect(clip.modes).toEqual([{ id: "y", name: "Air" }]);
  const limitsOf = ({ kit }: { kit: Kit }) => (kit.patterns.at(-1) as { modes?: readonly string[] }).modes;
  expect(limitsOf(pasteRules(from, clip))).toEqual(["y"]);
  const other = { ...EMPTY, modes: [{ id: "1", name: "air" }] } as unknown as Kit;
  expect(limitsOf(pasteRules(other, clip))).toEqual(["1"]);
  const nowhere = pasteRules(EMPTY, clip);
  expect(limitsOf(nowhere)).toBeUndefined();
  expect(nowhere.leftModes).toEqual(["Air"]);
});

test("a motion brings its stick, or uses the one that is there with its own controls", () => {
  const sides = ["up", "down", "left", "right"] as const;
  const stickKit = (id: string, name: string): Kit =>
    ({
      ...EMPTY,
      controls: sides.map(side => ({ id: `${id}-${side}`, name: `${name} ${side}`, bindings: [] })),
      sticks: [
        { id, name, opposites: "neutral", ...Object.fromEntries(sides.map(side => [side, `${id}-${side}`])) },
      ],
      patterns: [
        { id: "p", name: "P", kind: "sequence", steps: [{ dir: `${id}:6` }], gap: "5f", others: "ignore" },
      ],
    }) as unknown as Kit;
  const from = stickKit("lever", "Lever");
  const clip = copyRules(from, [placeOf(from, "patterns", "p")]);
  expect(clip.controls).toHaveLength(4);
  const brought = pasteRules(EMPTY, clip).kit;
  expect(brought.sticks).toEqual(from.sticks);
  const there = pasteRules(stickKit("way", "Lever"), clip).kit;
  expect(there.controls).toHaveLength(4);
  expect(there.sticks).toHaveLength(1);
  expect(JSON.stringify(there.patterns[1])).toContain('"dir":"way:6"');
  expect([brought, there].every(kit => compileRules(kit).ok)).toBe(true);
});

test("all rules of any kit, pasted into one without rules, give the same events", () => {
  fc.assert(
    fc.property(anyKit, anyTake, (kit, take) => {
      // Modes are not copied: every rule holds in all of them.
      const { modes: _modes, switches: _switches, ...rest } = kit;
      const plain = JSON.parse(
        JSON.stringify(rest, (key, value: unknown) => (key === "modes" ? undefined : value)),
      ) as Kit;
      // Any press can break a sequence, so that controls without rules matter too.
      const { rate, queue, controls, sticks } = plain;
      const target = { ...EMPTY, rate, controls, ...(queue ? { queue } : {}), ...(sticks ? { sticks } : {}) };
      const clip = copyRules(plain, listAll(plain));
      const { kit: pasted } = pasteRules(target, clip);
      const eventsOf = (of: Kit) => {
        const program = mustCompile(of);
        return formatTrace(program, run(program, readTake(program, take))).events;
      };
      expect(eventsOf(pasted)).toEqual(eventsOf(plain));
      // Under other ids too: every id of the kit is taken by something else.
      const others = {
        ...target,
        patterns: plain.patterns.map(({ id }) => ({ id, name: id, kind: "press", control: "b" })),
      };
      const beside = pasteRules(others as unknown as Kit, clip);
      expect(compileRules(beside.kit).ok).toBe(true);
      const ids = beside.kit.patterns.map(({ id }) => id);
      expect(new Set(ids).size).toBe(ids.length);
    }),
    { numRuns: 100 },
  );
});
