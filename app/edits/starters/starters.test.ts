import { expect, test } from "vitest";
import {
  compile,
  describeRule,
  findFollowUp,
  takeOut,
  evaluate,
  formatSentence,
  nameIn,
  formatTrace,
  offerMove,
  offerPattern,
  readAt,
  writeAt,
  type Kit,
  type Take,
} from "#core";
import { listRules, offersOf } from "../../shape/model/rules";
import { duplicateRule, listLeaning, moveRule, removeRule, turnRule } from "../ruleEdits";
import { giveDuel, giveRopes, giveRunner } from "../giveStage";
import { addFollowing, addPlain, applyStarter, STARTERS } from "./starters";

const BARE: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "bare",
  name: "Bare",
  rate: 60,
  controls: [
    { id: "a", name: "Leap", bindings: [] },
    { id: "b", name: "Strike", bindings: [] },
  ],
  patterns: [],
};

function take(lanes: Take["lanes"], gates: Take["gates"] = {}): Take {
  return { format: "moss-tap/take", version: 1, id: "t", name: "T", rate: 60, frames: 240, lanes, gates };
}

function eventsOf(kit: Kit, played: Take) {
  const compiled = compile(kit);
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.issues));
  return formatTrace(compiled.value, evaluate(compiled.value, played)).events;
}

const start = (id: string, kit = BARE) =>
  applyStarter(
    kit,
    STARTERS.find(item => item.id === id)!,
    "a",
  );

test.each(STARTERS.map(starter => [starter.words, starter.id]))(
  "%s: compiles without a word, twice over, and opens one of its rules",
  (_words, id) => {
    const once = start(id);
    const twice = start(id, once.kit);
    const compiled = compile(twice.kit);
    expect(compiled).toMatchObject({ ok: true });
    expect(listRules(once.kit).map(rule => rule.key)).toContain(once.opens);
    expect(twice.opens).not.toBe(once.opens);
    const names = listRules(twice.kit)
      .filter(rule => rule.name !== "")
      .map(rule => `${rule.list} ${rule.name}`);
    expect(new Set(names).size).toBe(names.length);
  },
);

test("attacks created on a duel's stage land there; on another stage and without one they have no effect", () => {
  const effects = (kit: Kit) => start("chain", kit).kit.moves!.map(move => move.effect);
  expect(effects(giveDuel(BARE))).toEqual([{ strike: 5 }, { strike: 5 }, { strike: 5 }]);
  expect(effects(giveRopes(BARE))).toEqual([undefined, undefined, undefined]);
  expect(effects(BARE)).toEqual([undefined, undefined, undefined]);
});

test("tap or hold leaves no length of press over", () => {
  const compiled = compile(start("tap-or-hold").kit);
  expect(compiled).toMatchObject({ ok: true, warnings: [] });
});

test("a chain of attacks comes out one after the other, presses during the one before remembered", () => {
  const { kit } = start("chain");
  const presses = [10, 16, 40].flatMap((f): [number, number][] => [
    [f, 1],
    [f + 3, 0],
  ]);
  const performed = eventsOf(kit, take({ a: presses })).filter(event => event.kind === "performed");
  expect(performed.map(event => [event.id, event.f])).toEqual([
    ["first-blow", 10],
    ["second-blow", 19],
    ["third-blow", 40],
  ]);
});

/** Returns every rule as a sentence in plain text. */
function sentences(kit: Kit): string[] {
  return listRules(kit).map(rule => formatSentence(describeRule(kit, rule.list, rule.index), nameIn(kit)));
}

test("rules read as whole sentences", () => {
  const kit = ["late", "charge", "double", "prompt", "motion"].reduce(
    (made, id) => start(id, made).kit,
    BARE,
  );
  expect(sentences(kit)).toEqual([
    "Jump on Leap press, if Footing is open: buffer 6f, coyote 5f; spends Footing",
    "Leap press when Leap is pressed",
    "Leap charge while Leap is held charges to full at 60f along ease in, worth 0 to 100, and fires when let go; levels: one at 15f, two at 35f, three at 60f",
    "Leap twice when Leap is tapped 2 times, each within 14f of the one before, answering the last tap",
    "Quarter turn on turn down ↓, then turn down-right ↘, then turn right →, then press Leap: each within 10f of the one before",
    "Footing is open while the stage, a move, a prompt or a take holds it open",
    "Catch asks for Leap press, shown at 60f, its window opening 30f later, for 40f; best at 20f; graded perfect within 4f, good within 12f; a press before its window fails it",
  ]);
});

test("every offered clause compiles and can be removed again", () => {
  const modes = [
    { id: "x", name: "X" },
    { id: "y", name: "Y" },
  ];
  const full = STARTERS.reduce((kit, starter) => applyStarter(kit, starter, "a").kit, {
    ...BARE,
    modes,
  } as Kit);
  let tried = 0;
  for (const rule of listRules(full)) {
    for (const offer of offersOf(full, rule)) {
      tried++;
      const grown = writeAt(full, [rule.list, rule.index], offer.becomes);
      expect(compile(grown), offer.words).toMatchObject({ ok: true });
      const before = describeRule(full, rule.list, rule.index).length;
      const parts = describeRule(grown, rule.list, rule.index);
      expect(parts.length, offer.words).toBeGreaterThan(before);
      const clauses = parts.flatMap(part => (part.clause ? [part.clause] : []));
      for (const clause of clauses) {
        const less = takeOut(grown, [rule.list, rule.index, ...clause]);
        expect(readAt(less, [rule.list, rule.index]), clause.join()).not.toEqual(offer.becomes);
      }
    }
  }
  expect(tried).toBeGreaterThan(60);
});

test("a gate and a move can be created alone; a move needs a pattern", () => {
  expect(addPlain(BARE, "move").opens).toBe("");
  const withPress = start("press").kit;
  const moved = addPlain(withPress, "move");
  expect(moved.opens).toBe("move:move");
  expect(offerMove(moved.kit.moves![0]!, moved.kit).length).toBeGreaterThan(3);
  expect(offerPattern(withPress.patterns[0]!, withPress)[0]!.words).toBe("… and again while it is held");
  expect(addPlain(withPress, "gate").kit.gates).toEqual([{ id: "gate", name: "Gate 1" }]);
});

test("rules are copied, moved, disabled and deleted; rules that depend on one are listed", () => {
  const { kit } = start("late");
  const pattern = { list: "patterns", index: 0 } as const;
  expect(listLeaning(kit, pattern)).toEqual(["Jump"]);
  expect(listLeaning(kit, { list: "gates", index: 0 })).toEqual(["Jump"]);
  expect(listLeaning(kit, { list: "moves", index: 0 })).toEqual([]);
  const copied = duplicateRule(kit, { list: "moves", index: 0 });
  expect(copied.moves!.map(move => [move.id, move.name])).toEqual([
    ["jump", "Jump"],
    ["jump-2", "Jump 2"],
  ]);
  expect(moveRule(copied, { list: "moves", index: 0 }, 1).moves!.map(move => move.id)).toEqual([
    "jump-2",
    "jump",
  ]);
  expect(moveRule(kit, { list: "moves", index: 0 }, -1)).toBe(kit);
  const off = turnRule(kit, { list: "moves", index: 0 });
  expect(off.moves![0]!.off).toBe(true);
  expect(turnRule(off, { list: "moves", index: 0 })).toEqual(kit);
  expect("moves" in removeRule(kit, { list: "moves", index: 0 })).toBe(false);
  expect(compile(removeRule(kit, pattern))).toMatchObject({ ok: false });
});

test("a starter uses the existing press; a wrong button differs from the one asked for", () => {
  const twice = start("late", start("early").kit).kit;
  expect(twice.patterns.filter(pattern => pattern.kind === "press").length).toBe(1);
  const { kit } = start("prompt");
  const offer = offersOf(kit, { list: "prompts", index: 0 }).find(item =>
    item.words.includes("wrong button"),
  )!;
  expect(offer.becomes).toMatchObject({ wrong: "fail", wrongOn: ["b"] });
  const alone = { ...kit, controls: kit.controls.slice(0, 1) };
  expect(
    offersOf(alone, { list: "prompts", index: 0 }).some(item => item.words.includes("wrong button")),
  ).toBe(false);
});

test("one more move after another follows it, from one click; one without a timeline has none", () => {
  const { kit } = start("chain");
  const grown = addFollowing(kit, 2)!;
  expect(grown.opens).toBe("move:after-third-blow");
  expect(compile(grown.kit)).toMatchObject({ ok: true, warnings: [] });
  expect(findFollowUp(grown.kit, 2, 3)!.gain).toBeGreaterThan(0);
  expect(addFollowing(addPlain(start("press").kit, "move").kit, 0)).toBeUndefined();
});

test("an early press is buffered for an existing busy slot, the ground, or a new gate", () => {
  const waiting = (kit: Kit) => {
    const { moves } = start("early", kit).kit;
    const { bans, needs } = moves!.at(-1)!;
    return { bans, needs };
  };
  expect(waiting(start("chain").kit)).toEqual({ bans: ["busy:main"], needs: undefined });
  expect(waiting(giveRunner(BARE))).toEqual({ bans: undefined, needs: [{ gate: "footing" }] });
  expect(waiting(BARE)).toEqual({ bans: undefined, needs: [{ gate: "ready" }] });
});

test("a move created beside another rule uses that rule's pattern", () => {
  const two = start("hold", start("press").kit).kit;
  expect(addPlain(two, "move").kit.moves![0]!.pattern).toBe(two.patterns[0]!.id);
  const onHold = addPlain(two, "move", `pattern:${two.patterns[1]!.id}`).kit;
  expect(onHold.moves![0]!.pattern).toBe(two.patterns[1]!.id);
  expect(addPlain(onHold, "move", `move:${onHold.moves![0]!.id}`).kit.moves![1]!.pattern).toBe(
    two.patterns[1]!.id,
  );
});
