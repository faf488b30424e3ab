import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { loadKit } from "../runtime/runtime";
import {
  compareActs,
  countDifferences,
  framesLater,
  listDifferences,
  type Act,
  type LinkEvent,
  type PairedAct,
} from "#link";
import { FAULTS } from "./ownInput.mjs";
import { createGame } from "./playGame.mjs";

const KIT: unknown = JSON.parse(readFileSync("demo/belfry-runner/kit.json", "utf8"));
const FRAMES = 20_000;

/** Plays the sample game beside the rules, and returns what both performed. */
function playBeside(fault: string | undefined, seed: number) {
  const loaded = loadKit(KIT);
  if (!loaded.ok) throw new Error("the demo must load");
  const acts: Act[] = [];
  const events: LinkEvent[] = [];
  const link = {
    step(input: Parameters<typeof loaded.runtime.step>[0] & { did?: readonly string[] }) {
      const stepped = loaded.runtime.step(input);
      events.push(...stepped.filter(event => event.kind !== "phase"));
      acts.push(...(input.did ?? []).map(id => ({ f: loaded.runtime.frame, id })));
      return stepped;
    },
  };
  const play = createGame({ link, asks: false, seed, fault });
  for (let f = 0; f < FRAMES; f++) play();
  return { acts, events, pairs: compareActs(acts, events, 60, 60) };
}

test.each([1, 2, 3])("without a fault, the game's own input code does what the rules do (seed %i)", seed => {
  const { pairs, events } = playBeside(undefined, seed);
  expect(listDifferences(pairs)).toEqual([]);
  expect(countDifferences(pairs).agreed).toBeGreaterThan(200);
  const by = new Set(events.flatMap(event => (event.kind === "performed" ? [event.by] : [])));
  expect([...by].sort()).toEqual(["buffer", "coyote", "direct"]);
});

/** A difference on the first frame that has any: what the fault itself makes, before it has consequences. */
const FIRST: Readonly<Record<string, string>> = {
  "coyote+1": "hop only game",
  "buffer-2": "hop only rules",
  // The body leaps before it lands, so that the footing for which the rules wait never comes.
  "early-frame": "hop only game",
  double: "hop only game",
  deaf: "second-hop only rules",
};

test.each(Object.keys(FAULTS))("with the fault %s, the differences are the right ones", fault => {
  const { pairs, events } = playBeside(fault, 1);
  const different = pairs.filter(pair => framesLater(pair) !== 0);
  expect(different.length).toBeGreaterThan(3);
  const frameOf = ({ game, rules }: PairedAct) => Math.min(game ?? Infinity, rules ?? Infinity);
  const first = frameOf(different[0]!);
  const words = different
    .filter(pair => frameOf(pair) === first)
    .map(pair => {
      const later = framesLater(pair);
      if (later !== undefined) return `${pair.id} ${-later}f earlier`;
      return `${pair.id} only ${pair.game === undefined ? "rules" : "game"}`;
    });
  expect(words).toContain(FIRST[fault]);
  if (fault === "coyote+1") {
    const left = events.findLast(
      event => event.kind === "gate" && event.id === "footing" && event.f <= first,
    )!;
    expect(first - (left.f - 1)).toBe(6);
  }
  if (fault === "buffer-2") {
    const hop = events.find(event => event.kind === "performed" && event.f === first);
    expect(hop?.kind === "performed" && hop.waited).toBeGreaterThan(4);
  }
});
