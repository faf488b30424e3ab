import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { formatTrace, parseTake, readTake, type Take } from "#core";
import { compileRules, parseRules, runRules } from "#stage";
import type { PageListener } from "../input/pageEvents";
import { beginRound } from "./round";
import { clockWords } from "./lists";
import { createRounds, type RoundStore } from "./rounds";

const KIT = (() => {
  const read = parseRules(JSON.parse(readFileSync("demo/belfry-runner/kit.json", "utf8")));
  if (!read.ok) throw new Error("the demo must read");
  return read.value.kit;
})();
const RULES = (() => {
  const compiled = compileRules(KIT);
  if (!compiled.ok) throw new Error("the demo must compile");
  return compiled.value;
})();

/** Creates a world whose clock the test controls, with its page's listener. */
function createWorld() {
  let now = 0;
  let listener: PageListener | undefined;
  return {
    world: {
      nowMs: () => now,
      listen(given: PageListener) {
        listener = given;
        return () => void (listener = undefined);
      },
      readPads: undefined,
    },
    page: () => listener!,
    isRecognised: () => listener !== undefined,
    pass: (ms: number) => void (now += ms),
    key: (code: string, value: number, isRepeat = false) => listener!.report({ code, value, isRepeat }, now),
  };
}

const NAMED = { id: "r", name: "Round 1" };

test("a round is the take that gives its trace again, by keys and by touch, with its devices", () => {
  const { world, pass, key, isRecognised } = createWorld();
  const round = beginRound(world, RULES, KIT.controls, () => undefined);
  const turn = (ms: number) => {
    pass(ms);
    round.turn();
  };
  turn(100);
  key("key:ArrowRight", 1);
  key("key:ArrowRight", 1, true);
  turn(300);
  round.holdOnScreen("leap", true);
  turn(120);
  round.holdOnScreen("leap", false);
  expect(round.isHeld("right")).toBe(true);
  turn(200);
  const events = () => formatTrace(RULES.program, round.session.trace).events;
  const take = round.end(NAMED)!;
  expect(isRecognised()).toBe(false);
  expect(round.end(NAMED)).toBeUndefined();
  expect(take).toMatchObject({ ...NAMED, kit: KIT.id, rate: 60, device: "keys, touch" });
  expect(parseTake(take).ok).toBe(true);
  // Controls still held at the end are released within the take.
  expect(take.lanes.right!.at(-1)![1]).toBe(0);
  const { trace } = runRules(RULES, readTake(RULES.program, take));
  expect(formatTrace(RULES.program, trace).events).toEqual(events());
  expect(events().some(({ kind }) => kind === "performed")).toBe(true);
});

test("a pad plays a round, and lets go when it is pulled out", () => {
  const { world, pass, page } = createWorld();
  let pads: { buttons: { value: number }[]; axes: number[] }[] = [];
  const readPads = () =>
    pads.map((pad, index) => ({ ...pad, index, id: "Pad", mapping: "standard", connected: true }));
  const controls = KIT.controls.map(control => ({
    ...control,
    bindings: [[`pad:${control.id === "leap" ? 0 : 9}`]],
  }));
  const round = beginRound({ ...world, readPads }, RULES, controls, () => undefined);
  const turn = (value: number) => {
    pads = [{ buttons: [{ value }], axes: [] }];
    pass(50);
    round.turn();
  };
  turn(0);
  turn(1);
  expect([round.isHeld("leap"), round.inHand()]).toEqual([true, "pad"]);
  pads = [];
  page().padsChanged();
  expect(round.isHeld("leap")).toBe(false);
  expect(round.end(NAMED)).toMatchObject({ device: "pad", lanes: { leap: [[6, 1], expect.anything()] } });
});

test("a round pauses while its page is hidden, and releases controls when its window loses focus", () => {
  const { world, pass, key, page } = createWorld();
  let left = 0;
  const round = beginRound(world, RULES, KIT.controls, () => left++);
  pass(100);
  round.turn();
  key("key:Space", 1);
  page().letAllGo(100);
  expect(round.isHeld("leap")).toBe(false);
  page().hide(true, 100);
  const at = round.session.state.frame;
  pass(60_000);
  round.turn();
  expect(round.session.state.frame).toBe(at);
  page().hide(false, 60_100);
  pass(50);
  round.turn();
  expect(round.session.state.frame).toBe(at + 3);
  page().leave();
  expect(left).toBe(1);
});

const take = (id: string): Take => ({
  format: "moss-tap/take",
  version: 1,
  id,
  name: `Round ${id}`,
  kit: KIT.id,
  rate: 60,
  frames: 60,
  lanes: {},
});

/** Creates a store in memory, which may be full. */
function createSmall(isFull = false): RoundStore {
  const kept = new Map<string, string>();
  return {
    getItem: key => kept.get(key) ?? null,
    setItem(key, value) {
      if (isFull) throw new Error("the store is full");
      kept.set(key, value);
    },
  };
}

test("rounds are kept from one visit to the next, go by the name that is given, and leave only where they are wanted", () => {
  const small = createSmall();
  const rounds = createRounds(KIT, small);
  rounds.add(take("1"));
  rounds.add(take("2"));
  rounds.rename("2", "  ");
  rounds.rename("1", " The long one ");
  rounds.setSent("1", false);
  const again = createRounds(KIT, small);
  expect(again.list().map(({ isSent, take: { name } }) => [name, isSent])).toEqual([
    ["The long one", false],
    ["Round 2", true],
  ]);
  expect(again.isUnsaved()).toBe(true);
  const sent = again.toDocument(" Wren ");
  expect(sent.takes).toEqual([{ ...take("2"), name: "Wren, Round 2", player: "Wren" }]);
  expect(again.toDocument("").takes).toEqual([take("2")]);
  again.saved();
  expect(again.isUnsaved()).toBe(false);
  again.setSent("1", true);
  expect(again.isUnsaved()).toBe(true);
  expect(createRounds({ ...KIT, id: "other" }, small).list()).toEqual([]);
});

test("a store that is full, forbidden or contains other data loses no played round", () => {
  for (const small of [createSmall(true), undefined]) {
    const rounds = createRounds(KIT, small);
    rounds.add(take("1"));
    expect(rounds.list()).toHaveLength(1);
  }
  for (const stray of ["{", "3", '[{"take": {}}]', "[null]"]) {
    const rounds = createRounds(KIT, { getItem: () => stray, setItem: () => undefined });
    expect(rounds.list()).toEqual([]);
  }
});

test.each([
  [0, "0:00"],
  [9.99, "0:09"],
  [60, "1:00"],
  [605, "10:05"],
])("%d s are formatted as %s", (seconds, words) => {
  expect(clockWords(seconds)).toBe(words);
});
