import fc from "fast-check";
import { expect, test } from "vitest";
import { compile } from "../kit/compile";
import { evaluate } from "../run/run";
import { formatIssue } from "../formats/formatIssue";
import { formatPhasedTrace } from "../trace/formatTrace";
import { EDGE } from "../trace/trace";
import { anyKit, anyTake } from "../tests/arbitraries";
import { assertUntil } from "../tests/assertUntil";
import { judgeSlowly, type Press, type Seen } from "../tests/slowChecks";
import { drawTake, mustCompile, sketchKit } from "../tests/strips";
import type { Kit } from "../kit/schema";
import type { Take } from "../input/takeSchema";
import { landLeeway, landTime } from "./checkTimes";
import type { AskedEvent } from "./askedEvent";
import type { Check } from "./checksSchema";
import { EXPECTATION_NAMES, expectationOf } from "./expectations/kinds";
import { compileCheck } from "./compileCheck";
import { checksDocument, parseChecks } from "./parseChecks";
import { orderResults } from "./results";
import { listStory } from "./story";
import { indexTrace } from "./traceIndex";

function see(kit: Kit, take: Take, rateHz = kit.rate) {
  const program = mustCompile({ ...kit, rate: rateHz });
  const trace = evaluate(program, take);
  const presses: Press[] = [];
  for (let i = 0; i < trace.count; i++)
    if (trace.kind[i] === EDGE && trace.payload[trace.at[i]!] === 1)
      presses.push([program.controls[trace.subject[i]!]!.id, trace.frame[i]!]);
  const seen: Seen = {
    events: formatPhasedTrace(program, trace).events,
    presses,
    frames: trace.frames,
    rateHz,
  };
  return { program, trace, seen };
}

function judge(kit: Kit, check: Check, { program, trace }: ReturnType<typeof see>) {
  const compiled = compileCheck(program, kit.rate, check);
  if (!compiled.ok) throw new Error(compiled.issues.map(formatIssue).join("\n"));
  return compiled.value(indexTrace(program, trace));
}

/**
 * Builds the event a check would ask for from an event that happened: its kind, its id and some of its
 * fields, single or in a list.
 */
function askFor(event: Seen["events"][number], pick: number): AskedEvent {
  const { kind, id, ...rest } = event as Seen["events"][number] & Record<string, unknown>;
  const fields = Object.entries(rest).filter(
    ([field], k) => field !== "f" && field !== "edges" && (pick >> k) & 1,
  );
  const asked = fields.map(([field, value], k) => [
    field,
    (pick >> (k + 3)) & 1 && field !== "repeat" ? [value, value] : value,
  ]);
  return { kind, id, ...Object.fromEntries(asked) } as AskedEvent;
}

const length = fc.oneof(
  fc.nat(140).map(frames => `${frames}f`),
  fc.nat(2400).map(ms => `${ms}ms`),
);
const short = fc.oneof(
  fc.nat(6).map(frames => `${frames}f`),
  fc.nat(90).map(ms => `${ms}.5ms`),
);
const maybe = <T>(value: fc.Arbitrary<T>) => fc.option(value, { nil: undefined, freq: 2 });

interface Draw {
  readonly name: (typeof EXPECTATION_NAMES)[number];
  readonly picks: readonly number[];
  readonly from: string | undefined;
  readonly to: string | undefined;
  readonly within: string | undefined;
  readonly min: number;
  readonly jitter: number;
}

const draws: fc.Arbitrary<Draw> = fc.record({
  name: fc.constantFrom(...EXPECTATION_NAMES),
  picks: fc.array(fc.nat(4095), { minLength: 8, maxLength: 8 }),
  from: maybe(length),
  to: maybe(length),
  within: maybe(short),
  min: fc.nat(4),
  jitter: fc.integer({ min: -3, max: 3 }),
});

/** Builds a check about an event that happened in a run, or nearly happened. */
function checkOf(kit: Kit, { seen, program, trace }: ReturnType<typeof see>, draw: Draw): Check | undefined {
  const { picks, from, to, within, min, jitter } = draw;
  const { events } = seen;
  if (events.length === 0) return undefined;
  const at = (k: number) => events[picks[k]! % events.length]!;
  const asked = (k: number) => askFor(at(k), picks[k + 1]!);
  const inFrames = (written: string) => parseFloat(written) * (written.endsWith("ms") ? 60 / 1000 : 1);
  // A stretch that ends before it begins is refused.
  if (from && to && inFrames(to) < inFrames(from)) return undefined;
  const base = { id: "c", name: "C", on: "*" as const, ...(from ? { from } : {}), ...(to ? { to } : {}) };
  const near = (f: number) => `${Math.max(0, f + jitter)}f`;
  const leeway = within ? { within } : {};
  switch (draw.name) {
    case "happens":
      return { ...base, happens: asked(0), at: near(at(0).f), ...leeway };
    case "never":
      return { ...base, never: asked(0) };
    case "counts":
      return { ...base, counts: asked(0), min, ...(jitter > 0 ? { max: min + jitter } : {}) };
    case "order":
      return { ...base, order: [asked(0), asked(2), asked(4)] };
    case "answers": {
      const control = kit.controls[picks[0]! % kit.controls.length]!.id;
      const move = kit.moves?.[picks[1]! % (kit.moves.length + 2)]?.id;
      return { ...base, answers: control, ...(move ? { move } : {}), ...leeway };
    }
    case "same": {
      const story = listStory(program, trace).map(
        ([f, ...rest], k) => [k === min ? Math.max(0, f + jitter) : f, ...rest] as never,
      );
      return {
        ...base,
        same: jitter === 3 ? story.slice(0, -1) : story,
        ...(within ? { slip: within } : {}),
      };
    }
  }
}

test("every expectation agrees with a literal implementation of its definition, on any kit, take and rate", () => {
  const outcomes = ["never", "early", "late", "ok"].map(why => `happens ${why}`);
  const others = ["never ok", "never happened", "counts ok", "counts too-few", "counts too-many", "order ok"];
  const rest = ["order broken", "answers ok", "answers unanswered", "same ok", "same differs"];
  const vacuous = ["never vacuous", "counts vacuous", "answers vacuous"];
  const wanted = [...outcomes, ...others, ...rest, ...vacuous];
  const found = new Set<string>();
  assertUntil(
    fc.property(
      anyKit,
      anyTake,
      fc.array(draws, { minLength: 6, maxLength: 6 }),
      fc.constantFrom(60, 60, 30, 144),
      (kit, take, all, rateHz) => {
        if (!compile({ ...kit, rate: rateHz }).ok) return;
        const own = see(kit, take);
        const run = rateHz === kit.rate ? own : see(kit, take, rateHz);
        for (const draw of all) {
          const check = checkOf(kit, own, draw);
          if (!check) continue;
          expect(
            parseChecks(JSON.parse(JSON.stringify(checksDocument("d", "D", undefined, [check])))),
          ).toMatchObject({
            ok: true,
          });
          const verdict = judge(kit, check, run);
          expect(verdict, JSON.stringify(check)).toEqual(judgeSlowly(kit, check, run.seen));
          found.add(`${draw.name} ${verdict.why ?? "ok"}`);
          if (verdict.vacuous) found.add(`${draw.name} vacuous`);
        }
      },
    ),
    { numRuns: 120 },
    () => wanted.every(key => found.has(key)),
  );
  expect(wanted.filter(key => !found.has(key))).toEqual([]);
});

test.each([
  ["10f", 60, 60, 10, 10],
  ["10f", 60, 144, 24, 24],
  ["7f", 60, 30, 4, 3],
  ["6f", 60, 30, 3, 3],
  ["5f", 60, 144, 12, 12],
  ["1f", 60, 30, 1, 0],
  ["100ms", 60, 60, 6, 6],
  ["91.666ms", 60, 60, 5, 5],
  ["91.667ms", 60, 60, 6, 5],
  ["99.999ms", 60, 60, 6, 5],
  ["25ms", 60, 60, 2, 1],
  ["0ms", 60, 1000, 0, 0],
] as const)(
  "%s of a kit at %i, judged at %i: lands on %i, reaches %i",
  (written, kitHz, hz, when, leeway) => {
    expect(landTime(written, kitHz, hz)).toBe(when);
    expect(landLeeway(written, kitHz, hz)).toBe(leeway);
  },
);

const KIT = sketchKit("ab", {
  gates: [{ id: "g", name: "G" }],
  patterns: [{ id: "p", name: "P", kind: "press", control: "a" }],
  moves: [{ id: "m", name: "M", pattern: "p", needs: [{ gate: "g" }], buffer: "3f" }],
});

const document = (...checks: object[]) => ({
  format: "moss-tap/checks",
  version: 1,
  id: "d",
  name: "D",
  checks: checks.map((check, k) => ({ id: `c${k}`, name: "C", on: "*", ...check })),
});

test.each([
  ["two expectations", { never: { kind: "lost", id: "m" }, answers: "a" }, ["checks[0].answers"]],
  ["none", {}, ["checks[0]"]],
  ["an unknown field", { answers: "a", hard: true }, ["checks[0].hard"]],
  ["a field of another", { answers: "a", slip: "1f" }, ["checks[0].slip"]],
  ["edges asked for", { never: { kind: "fired", id: "p", edges: [] } }, ["checks[0].never.edges"]],
  ["a field of another kind", { never: { kind: "gate", id: "g", by: "buffer" } }, ["checks[0].never.by"]],
  ["no time", { happens: { kind: "fired", id: "p" } }, ["checks[0].at"]],
  ["no count", { counts: { kind: "fired", id: "p" } }, ["checks[0].min"]],
  ["one event in order", { order: [{ kind: "fired", id: "p" }] }, ["checks[0].order"]],
  ["a length that is none", { answers: "a", within: "3" }, ["checks[0].within"]],
  ["a story with a stray entry", { same: [[1, "lost", "m"]] }, ["checks[0].same[0]"]],
  ["no rates", { answers: "a", rates: [] }, ["checks[0].rates"]],
  ["a frame past any take", { same: [[1e12, "performed", "m"]] }, ["checks[0].same[0][0]"]],
  ["an event past any take", { never: { kind: "lost", id: "m", f: 1e12 } }, ["checks[0].never.f"]],
  ["a count past any take", { counts: { kind: "lost", id: "m" }, max: 1e12 }, ["checks[0].max"]],
] as const)("a list with %s is refused with its place", (_what, check, paths) => {
  const parsed = parseChecks(document(check));
  expect(parsed.ok ? [] : parsed.issues.map(issue => formatIssue(issue).split(": ")[0])).toEqual(paths);
});

test("a duplicate id is refused; a missing id is reported with the existing ones", () => {
  const twice = document({ answers: "a" }, { answers: "b", id: "c0" });
  const parsed = parseChecks(twice);
  expect(parsed.ok ? [] : parsed.issues.map(formatIssue)).toEqual([
    'checks[1].id: "c0" is already the name of another check: give each its own id',
  ]);
  const program = mustCompile(KIT);
  const strange = [
    { never: { kind: "lost", id: "hop" } },
    {
      order: [
        { kind: "fired", id: "p" },
        { kind: "gate", id: "busy:feet" },
      ],
    },
    { answers: "c", move: "n" },
  ].map((check, k) => ({ id: `c${k}`, name: "C", on: "*", ...check }) as Check);
  const issues = strange.flatMap(check => {
    const compiled = compileCheck(program, 60, check);
    return compiled.ok ? [] : compiled.issues.map(formatIssue);
  });
  expect(issues).toEqual([
    'never.id: there is no move "hop": write one of m',
    'order[1].id: there is no gate "busy:feet": write one of g, busy:main',
    'answers: there is no control "c": write one of a, b',
    'move: there is no move "n": write one of m',
  ]);
  expect(strange.map(expectationOf)).toEqual(["never", "order", "answers"]);
});

test("results are ordered by check, take and rate; missing takes come last, once each", () => {
  const run = see(KIT, drawTake({ a: "..##....##.", b: "..........." }, { g: ".....######" }));
  const checks = [
    { id: "every", name: "", on: "*", answers: "a", within: "3f" },
    { id: "off", name: "", on: "*", answers: "a", off: true },
    {
      id: "named",
      name: "",
      on: ["gone", "two"],
      rates: [60, 30],
      counts: { kind: "performed", id: "m" },
      min: 2,
    },
  ] as Check[];
  const verdictOf = (c: number) => judge(KIT, checks[c]!, run);
  const rows = orderResults(checks, ["two", "one"], 60, [144], verdictOf).map(
    ({ check, take, rate, ok, why }) => `${check} ${take} ${rate} ${ok ? "ok" : why}`,
  );
  expect(rows).toEqual([
    "every two 60 ok",
    "every two 144 ok",
    "every one 60 ok",
    "every one 144 ok",
    ...[60, 30, 144].map(rate => `named two ${rate} ok`),
    ...[60, 30, 144].map(rate => `named gone ${rate} no-take`),
  ]);
  const missing = (given: string[]) =>
    orderResults(checks, ["two"], 60, [], verdictOf, given).filter(row => row.why === "no-take");
  expect(missing(["two", "gone"])).toEqual([]);
  expect(missing(["two"])).toHaveLength(2);
});
