import { expect, test } from "vitest";
import { compile } from "../kit/compile";
import { formatSentence } from "../kit/sentence";
import { gateName, nameOf } from "../kit/names";
import { sketchKit, drawTake, play } from "../tests/strips";
import { acceptFound } from "./acceptCheck";
import type { Check } from "./checksSchema";
import { compileCheck } from "./compileCheck";
import { describeCheck, offerCheck } from "./describeCheck";
import { formatVerdict } from "./formatVerdict";
import { mustAnswer, mustHappen, mustNever, mustStay } from "./makeCheck";
import { parseCheck } from "./parseChecks";
import { listStory } from "./story";
import { indexTrace } from "./traceIndex";

const KIT = sketchKit("ab", {
  gates: [{ id: "g", name: "Footing" }],
  patterns: [{ id: "p", name: "A press", kind: "press", control: "a" }],
  moves: [{ id: "m", name: "Hop", pattern: "p", needs: [{ gate: "g", coyote: "2f" }], buffer: "3f" }],
  prompts: [{ id: "r", name: "Ring", ask: ["p"], starts: { at: "2f" }, window: "8f" }],
});

const format = (check: Check) =>
  formatSentence(
    describeCheck(check, { take: id => `take ${id}`, gate: id => gateName(KIT, id) }),
    (list, id) => (list === "direction" ? id : nameOf(KIT, `${list}s` as "moves", id)),
  );

const check = (rest: object, on: "*" | string[] = ["t"]) => ({ id: "c", name: "C", on, ...rest }) as Check;

test.each([
  [
    { happens: { kind: "performed", id: "m", by: "coyote" }, at: "9f", within: "2f" },
    "In take t, Hop is performed by coyote at 9f, give or take 2f",
  ],
  [
    { never: { kind: "lost", id: "m", why: "gate:g" }, from: "5f" },
    "In take t, must not happen: Hop is lost, Footing was not open, from 5f",
  ],
  [
    { counts: { kind: "lost", id: "m", why: "gate:g" }, min: 1, max: 1 },
    "In take t, Hop is lost, Footing was not open, at least 1 and at most 1 time",
  ],
  [
    { happens: { kind: "performed", id: "m", waited: 1 }, at: "9f" },
    "In take t, Hop is performed, waited 1, at 9f",
  ],
  [{ counts: { kind: "gate", id: "g" }, max: 2 }, "In take t, Footing opens or closes at most 2 times"],
  [
    { counts: { kind: "prompt", id: "r", outcome: ["ok", "failed"] }, max: 2 },
    "In take t, Ring ends as ok or failed at most 2 times",
  ],
  [{ happens: { kind: "prompt", id: "r", outcome: "shown" }, at: "2f" }, "In take t, Ring is shown at 2f"],
  [
    {
      order: [
        { kind: "gate", id: "g", open: true },
        { kind: "performed", id: "m" },
      ],
    },
    "In take t, Footing turns open, then Hop is performed",
  ],
  [
    { answers: "a", move: "m", within: "3f", rates: [30, 60] },
    "In take t, every press of A is answered by Hop within 3f, at 30 and 60 frames a second",
  ],
  [{ same: [[4, "performed", "m"]] }, "In take t, the one thing happens as kept"],
] as const)("a check reads as a sentence", (rest, sentence) => {
  expect(format(check(rest))).toBe(sentence);
  expect(format(check(rest, "*"))).toBe(sentence.replace("In take t, ", "In every take "));
  expect(format(check(rest, ["t", "u"]))).toBe(sentence.replace("In take t", "In take t and take u"));
});

test("every offer makes a check that parses, compiles, and has another sentence", () => {
  const { program } = play(KIT, drawTake({ a: "#" }));
  const all = [
    check({ happens: { kind: "performed", id: "m" }, at: "9f" }),
    check({ counts: { kind: "performed", id: "m" }, max: 2 }),
    check({ answers: "a" }),
    check({ same: [] }),
  ];
  for (const one of all) {
    const offers = offerCheck(one, KIT, ["t", "u"]);
    expect(offers.length).toBeGreaterThan(3);
    for (const { becomes } of offers) {
      expect(parseCheck(JSON.parse(JSON.stringify(becomes)))).toMatchObject({ ok: true });
      expect(compileCheck(program, 60, becomes).ok).toBe(true);
      expect(format(becomes)).not.toBe(format(one));
    }
  }
  expect(compile(KIT).ok).toBe(true);
});

const PLAIN = { ...KIT, prompts: [] };

test("a check made from an event holds, fails once the event slips, and holds again when accepted", () => {
  const before = play(PLAIN, drawTake({ a: "...#......#...." }, { g: "##...######...." }));
  const event = before.of("performed")[0]!;
  const beginning = { id: "c", takeId: "t" };
  const made = [
    mustHappen(PLAIN, event, beginning),
    mustAnswer(PLAIN, "a", beginning),
    mustStay("T", listStory(before.program, before.trace), beginning),
  ];
  expect(made.map(({ name }) => name)).toEqual([
    `Hop is performed at ${event.f}f`,
    "Every press of A is answered",
    "T stays as it is",
  ]);
  expect(mustNever(PLAIN, event, beginning)).toMatchObject({
    name: "Never: Hop is performed",
    never: { kind: "performed", id: "m" },
  });
  const judge = (one: Check, run: ReturnType<typeof play>) => {
    const compiled = compileCheck(run.program, 60, one);
    if (!compiled.ok) throw new Error("it does not compile");
    return compiled.value(indexTrace(run.program, run.trace));
  };
  for (const one of made) expect(judge(one, before).ok).toBe(true);
  const after = play(PLAIN, drawTake({ a: ".......#......#" }, { g: "##...######...." }));
  const story = listStory(after.program, after.trace);
  for (const one of [made[0]!, made[2]!]) {
    const verdict = judge(one, after);
    expect(verdict.ok).toBe(false);
    expect(formatVerdict(verdict)).toMatch(/too late|the events differ/);
    const accepted = acceptFound(one, verdict, story)!;
    expect(judge(accepted.becomes, after).ok).toBe(true);
  }
  expect(
    acceptFound(mustNever(PLAIN, event, beginning), { ok: false, why: "happened", f: 1 }, story),
  ).toBeUndefined();
});
