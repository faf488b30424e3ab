import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { formatTrace, readTake } from "#core";
import { handOf, parseRules, playRoutine, runRules, type HandLine } from "./index";

const read = parseRules(JSON.parse(readFileSync("demo/belfry-runner/kit.json", "utf8")));
if (!read.ok) throw new Error("the demo must read");
const rules = read.value;

const RIGHT: HandLine = { control: "right", for: "600f", after: "0f", turns: "open", isEachTime: false };
const LEAP: HandLine = {
  control: "leap",
  for: "9f",
  after: "2f",
  gate: "footing",
  turns: "closed",
  isEachTime: true,
};

const play = (lines: readonly HandLine[], seed = 1, uneven = 0) =>
  playRoutine(rules, handOf(lines, 60, seed, uneven), 480, "t", "T");

test("a line holds its control for its length, some time after its gate changed, every time or only the first", () => {
  const take = play([RIGHT, LEAP]);
  const { events } = formatTrace(rules.program, runRules(rules, readTake(rules.program, take)).trace);
  const closes = events.flatMap(event =>
    event.kind === "gate" && event.id === "footing" && !event.open ? [event.f] : [],
  );
  const lane = take.lanes.leap!;
  const presses = lane.flatMap(([x, value], k) => (value === 1 ? [[x, (lane[k + 1]?.[0] ?? 480) - x]] : []));
  expect(presses.length).toBeGreaterThan(2);
  for (const [from, length] of presses) {
    // Counted from the last frame on which it was open.
    expect(closes).toContain(from! - 1);
    if (from! + 9 < 480) expect(length).toBe(9);
  }
  const once = play([RIGHT, { ...LEAP, isEachTime: false }]).lanes.leap!;
  expect(once.filter(([, value]) => value === 1).length).toBe(1);
});

test.each([0, 1, 2, 3, 7])(
  "%d frames after a gate closes count from the last frame on which it was open",
  n => {
    const take = play([RIGHT, { ...LEAP, after: `${n}f`, isEachTime: false }]);
    const { events } = formatTrace(rules.program, runRules(rules, readTake(rules.program, take)).trace);
    const [[from]] = take.lanes.leap as [[number, number]];
    const closes = events.find(event => event.kind === "gate" && event.id === "footing" && !event.open)!.f;
    expect(from).toBe(closes - 1 + n);
    // The same press is late by that much for a coyote.
    const performed = events.find(event => event.kind === "performed" && event.f === from);
    expect(performed).toMatchObject({
      by: n === 0 ? "direct" : n <= 5 ? "coyote" : (expect.anything() as unknown),
    });
  },
);

test("a seed decides the deviations: equal seeds play alike, others differ, and no seed gives none", () => {
  expect(play([RIGHT, LEAP], 3, 4)).toEqual(play([RIGHT, LEAP], 3, 4));
  expect(play([RIGHT, LEAP], 4, 4)).not.toEqual(play([RIGHT, LEAP], 3, 4));
  expect(play([RIGHT, LEAP], 4, 0)).toEqual(play([RIGHT, LEAP], 3, 0));
});

test("an unknown gate or control is ignored", () => {
  expect(
    play([
      { ...LEAP, gate: "gone" },
      { ...RIGHT, control: "gone" },
    ]).lanes,
  ).toEqual({});
});
