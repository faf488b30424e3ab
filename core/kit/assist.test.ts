import fc from "fast-check";
import { expect, test } from "vitest";
import { evaluate } from "../run/run";
import { formatIssue } from "../formats/formatIssue";
import type { Take } from "../input/takeSchema";
import { anyKit, anyTake } from "../tests/arbitraries";
import { assertUntil } from "../tests/assertUntil";
import { DURATION_PATTERN, parseFrames } from "../time/duration";
import { formatTrace } from "../trace/formatTrace";
import { writeAt } from "./editAt";
import { listLengths } from "./lengths";
import type { Kit } from "./schema";
import { drawMove, drawPhases, drawTake, mustCompile, sketchKit } from "../tests/strips";
import { applyAssist, scaleLength } from "./applyAssist";
import type { Assist } from "./assistSchema";
import { compile } from "./compile";
import { parseKit } from "./parseKit";

const KIT = sketchKit("ab", {
  gates: [{ id: "g", name: "G" }],
  patterns: [
    { id: "p", name: "P", kind: "press", control: "a" },
    { id: "h", name: "H", kind: "hold", control: "b", for: "5f", fire: "reach" },
    { id: "t", name: "T", kind: "taps", control: "a", count: 2, gap: "4f", answer: "nth" },
    { id: "m", name: "M", kind: "mash", controls: ["a", "b"], count: 4, within: "20f", alternate: true },
  ],
  moves: [
    {
      id: "hop",
      name: "Hop",
      pattern: "p",
      needs: [{ gate: "g", coyote: "33.5ms" }],
      buffer: "3f",
      cooldown: "2f",
    },
  ],
  prompts: [
    {
      id: "q",
      name: "Q",
      ask: ["p"],
      starts: { at: "10f" },
      window: "10f",
      grades: [{ name: "good", within: "3f" }],
    },
  ],
});

const assist = (fields: Partial<Assist>): Assist => ({ id: "x", name: "X", ...fields });

test("windows grow by a factor, each in its own unit; waiting times are unchanged", () => {
  const { patterns, moves, prompts } = applyAssist(KIT, assist({ windows: 150 }));
  expect(moves![0]).toMatchObject({ buffer: "5f", cooldown: "2f", needs: [{ coyote: "50.25ms" }] });
  expect(prompts![0]).toMatchObject({ window: "15f", grades: [{ within: "5f" }], starts: { at: "10f" } });
  expect(
    patterns.map(pattern => ("gap" in pattern ? pattern.gap : "for" in pattern ? pattern.for : "")),
  ).toEqual(["", "5f", "6f", ""]);
  expect(patterns[3]).toMatchObject({ within: "30f" });
  const gaps = applyAssist(KIT, assist({ windows: 150, gaps: 200 }));
  expect(gaps.patterns[2]).toMatchObject({ gap: "12f" });
  expect(applyAssist(KIT, assist({}))).toEqual(KIT);
  expect(["1f", "0f", "3f", "0.1ms"].map(written => scaleLength(written, 10))).toEqual([
    "1f",
    "0f",
    "1f",
    "0.01ms",
  ]);
});

test("a mash becomes a hold of its first control for the time it had", () => {
  expect(applyAssist(KIT, assist({ mashes: true })).patterns[3]).toEqual({
    id: "m",
    name: "M",
    kind: "hold",
    control: "a",
    for: "20f",
    fire: "reach",
  });
});

test("a control that is held becomes one that a press turns down and the next one up", () => {
  const held = applyAssist(KIT, assist({ toggles: true }));
  expect(held.controls.map(({ toggle }) => toggle)).toEqual([undefined, true]);
  const program = mustCompile(held);
  const trace = evaluate(program, drawTake({ b: "..#..........##......#.." }));
  // Down from frame 2, fired on 7, released by the press on 13; down again from 21.
  expect(drawPhases(program, trace, "h")).toBe("..~~~~~F=====........~~~");
});

test("an assisted kit is a kit: it compiles, and a move is saved by the longer window", () => {
  const take = drawTake({ a: "..#......." }, { g: "......####" });
  expect(drawMove(mustCompile(KIT), evaluate(mustCompile(KIT), take), "hop")).toBe(".....L....");
  const longer = mustCompile(applyAssist(KIT, assist({ windows: 200 })));
  expect(drawMove(longer, evaluate(longer, take), "hop")).toBe("......b...");
  let compiled = 0;
  fc.assert(
    fc.property(
      anyKit,
      fc.integer({ min: 100, max: 300 }),
      fc.boolean(),
      fc.boolean(),
      (kit, windows, toggles, mashes) => {
        const made = applyAssist(kit, assist({ windows, gaps: windows, toggles, mashes }));
        expect(parseKit({ ...kit, assists: [assist({ windows, toggles, mashes })] }).ok).toBe(
          parseKit(kit).ok,
        );
        if (!compile(kit).ok) return;
        expect(compile(made).ok).toBe(true);
        compiled++;
      },
    ),
  );
  expect(compiled).toBeGreaterThan(20);
});

test("what is scaled stops at the longest length, with a warning", () => {
  const longest = ["999999999999f", "999999999999ms", "999999999998.999ms"];
  for (const written of longest)
    for (const percent of [100, 101, 150, 1000, 10_000]) {
      const scaled = scaleLength(written, percent);
      expect(scaled).toMatch(DURATION_PATTERN);
      expect(parseFrames(scaled, 1000, "atMost")).toBeGreaterThanOrEqual(
        parseFrames(written, 1000, "atMost")!,
      );
    }
  const kit = parseKit({
    ...KIT,
    moves: [{ ...KIT.moves![0]!, buffer: "999999999999f" }],
    assists: [assist({ windows: 150 }), assist({ id: "y", toggles: true })],
  });
  expect(
    kit.ok && kit.warnings?.map(issue => formatIssue(issue)).filter(line => /assists/.test(line)),
  ).toEqual([
    "assists[0]: 150 % of the 999999999999f at moves[0].buffer is longer than a length can be: it stays at 999999999999f",
  ]);
});

// Without prompts: a prompt that is shown for longer may take a press that a move had.
test("an assist takes no performed press away, whatever the lengths", () => {
  const bounds = fc.constantFrom("0f", "1f", "999999999999f", "999999999999.999ms", undefined);
  const performed = (kit: Kit, take: Take) => {
    const program = mustCompile(kit);
    const { events } = formatTrace(program, evaluate(program, take));
    return events.filter(event => event.kind === "performed").length;
  };
  let met = 0;
  assertUntil(
    fc.property(anyTake, bounds, bounds, fc.constantFrom(100, 150, 1000), (take, buffer, coyote, windows) => {
      const [move] = KIT.moves!;
      const needs = [{ gate: "g", ...(coyote === undefined ? {} : { coyote }) }];
      const { buffer: _buffer, cooldown: _cooldown, ...rest } = move!;
      const { prompts: _prompts, ...unprompted } = KIT;
      const kit = { ...unprompted, moves: [{ ...rest, needs, ...(buffer === undefined ? {} : { buffer }) }] };
      const before = performed(kit, take);
      expect(performed(applyAssist(kit, assist({ windows })), take)).toBeGreaterThanOrEqual(before);
      met += before;
    }),
    { numRuns: 100 },
    () => met > 20,
  );
});

test("every length of any kit can be at its bound, at any rate and under any assist", () => {
  fc.assert(
    fc.property(
      anyKit,
      anyTake,
      fc.constantFrom(1, 60, 1000),
      fc.constantFrom(100, 1000),
      (kit, take, rate, by) => {
        const long = listLengths(kit).reduce((now, { path }) => writeAt(now, path, "999999999999f"), {
          ...kit,
          rate,
        });
        const compiled = compile(applyAssist(long, assist({ windows: by, gaps: by })));
        // Some rules compare two lengths, and refuse equal ones.
        if (!compiled.ok) return;
        const events = formatTrace(compiled.value, evaluate(compiled.value, take)).events;
        expect(JSON.stringify(events)).not.toMatch(/null|e\+|\d{16}/);
        JSON.stringify(compiled.value, (_, value: unknown) => {
          if (typeof value === "number" && Number.isFinite(value))
            expect(Math.abs(value)).toBeLessThan(2 ** 53);
          return value;
        });
      },
    ),
    { numRuns: 60 },
  );
});
