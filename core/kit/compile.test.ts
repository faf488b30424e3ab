import { expect, test } from "vitest";
import { formatIssue } from "../formats/formatIssue";
import { sketchKit } from "../tests/strips";
import { compile } from "./compile";
import { parseKit } from "./parseKit";
import type { Kit } from "./schema";

/** Returns the sentences of all faults in a kit given as loosely as in a file. */
function faultsOf(rest: object): string[] {
  const read = parseKit({ ...sketchKit("ab", {}), ...rest });
  return read.ok ? [] : read.issues.map(formatIssue);
}

function warningsOf(rest: Partial<Kit>): string[] {
  const compiled = compile(sketchKit("ab", rest));
  if (!compiled.ok) throw new Error(compiled.issues.map(formatIssue).join("\n"));
  return compiled.warnings.map(formatIssue);
}

const press = { id: "p", name: "P", kind: "press", control: "a" };
const hold = { id: "h", name: "H", kind: "hold", control: "a", for: "18f", fire: "reach" };
const gate = { id: "g", name: "G" };
const move = { id: "m", name: "M", pattern: "p" };
const prompt = { id: "r", name: "R", ask: ["p"], starts: { at: "0f" }, window: "9f" };

test.each([
  [{ patterns: [{ ...press, control: "z" }] }, 'patterns[0].control: there is no control "z"'],
  [{ patterns: [press, press] }, 'patterns[1].id: "p" is already the name of another pattern'],
  [
    {
      gates: [
        { ...gate, all: ["later"] },
        { id: "later", name: "L" },
      ],
    },
    'gates[0].all[0]: "later" is not above this gate',
  ],
  [{ gates: [{ ...gate, any: ["g"] }] }, 'gates[0].any[0]: "g" is not above this gate'],
  [{ gates: [gate, { id: "d", name: "D", all: ["g"], none: ["g"] }] }, "gates[1]: has all and none"],
  [{ gates: [{ ...gate, while: "nobody" }] }, 'gates[0].while: there is no pattern "nobody"'],
  [
    {
      patterns: [
        { id: "c", name: "C", kind: "charge", control: "a", from: "100ms", full: "6f", fire: "full" },
      ],
    },
    "patterns[0].full: full (6 f) is not above from (6 f)",
  ],
  [
    {
      patterns: [
        {
          id: "c",
          name: "C",
          kind: "charge",
          control: "a",
          full: "9f",
          fire: "full",
          levels: [
            { name: "x", at: "5f" },
            { name: "y", at: "4f" },
          ],
        },
      ],
    },
    'patterns[0].levels[1].at: level "y" (4 f) is below',
  ],
  [
    {
      patterns: [
        { id: "c", name: "C", kind: "charge", control: "a", full: "9f", fire: "full", curve: "swoop" },
      ],
    },
    "patterns[0].curve: 'swoop' is not an easing curve",
  ],
  [
    { patterns: [{ ...hold, max: "20f" }] },
    "patterns[0].max: a hold that fires when reached has no longest press",
  ],
  [
    { patterns: [{ ...hold, fire: "release", repeat: { every: "3f" } }] },
    "patterns[0].repeat: a hold that fires on release cannot repeat",
  ],
  [
    { patterns: [{ ...press, repeat: { after: "3f", every: "0f" } }] },
    "patterns[0].repeat.every: '0f' is no time at all",
  ],
  [
    { controls: [{ id: "a", name: "A", bindings: [], pressAt: 0.4, releaseAt: 0.5 }] },
    "controls[0].releaseAt: releaseAt 0.5 is above pressAt 0.4",
  ],
  [
    { controls: [{ id: "a", name: "A", bindings: [["key:"]] }] },
    "controls[0].bindings[0][0]: 'key:' is not a key or button",
  ],
  [
    { sticks: [{ id: "s", name: "S", up: "a", down: "b", left: "x", right: "b" }] },
    'sticks[0].left: there is no control "x"',
  ],
  [
    { sticks: [{ id: "s", name: "S", up: "a", down: "b", left: "a", right: "b" }] },
    'sticks[0].left: "a" is used for two directions',
  ],
  [
    { patterns: [{ id: "q", name: "Q", kind: "sequence", gap: "3f", steps: [{ dir: "s:0" }] }] },
    "patterns[0].steps[0].dir: 's:0' is not a direction",
  ],
  [
    { patterns: [{ id: "q", name: "Q", kind: "sequence", gap: "3f", steps: [] }] },
    "patterns[0].steps: is empty",
  ],
  [
    { patterns: [press], moves: [{ ...move, when: { count: 2 } }] },
    "moves[0].when.count: P carries no count",
  ],
  [
    { patterns: [press], moves: [{ ...move, when: { level: 1 } }] },
    "moves[0].when.level: P carries no level",
  ],
  [
    {
      patterns: [press],
      gates: [gate],
      moves: [{ ...move, opens: [{ gate: "g", from: "5f", to: "80ms" }] }],
    },
    "moves[0].opens[0].to: to (80ms) is before from (5f)",
  ],
  [{ patterns: [press], prompts: [{ ...prompt, ask: [] }] }, "prompts[0].ask: asks for nothing"],
  [
    { patterns: [press], prompts: [{ ...prompt, grades: [{ name: "ok", within: "1f" }] }] },
    'prompts[0].grades[0].name: a grade may not be called "ok"',
  ],
  [{ start: "x" }, "start: names a first mode, but the kit has no modes"],
  [
    {
      patterns: [{ id: "t", name: "T", kind: "taps", control: "a", count: 100000, gap: "9f", answer: "nth" }],
    },
    "patterns[0].count: 100000 is out of range: give a number from 1 to 999",
  ],
  [{ rate: 0 }, "rate: 0 is not a rate"],
  [{ rate: 59.94 }, "rate: 59.94 is not a rate"],
  [{ patterns: [{ ...hold, for: "12" }] }, "patterns[0].for: '12' is not a length: write 12f or 200ms"],
  [{ patterns: [{ ...hold, fire: undefined }] }, "patterns[0].fire: is missing"],
  [
    { patterns: [{ id: "q", name: "Q", kind: "sequence", gap: "3f", steps: [{ hold: "a" }] }] },
    "patterns[0].steps[0].for: is missing",
  ],
])("the fault in %j", (rest, sentence) => {
  expect(faultsOf(JSON.parse(JSON.stringify(rest)) as object).join("\n")).toContain(sentence);
});

test("every fault is listed, unknown fields one by one and at any depth", () => {
  const faults = faultsOf({
    colour: 1,
    patterns: [{ ...press, speed: 2, repeat: { after: "1f", every: "1f", until: "9f" } }],
    size: 3,
  });
  expect(faults.map(fault => fault.split(":")[0])).toEqual(
    ["colour", "size", "patterns[0].speed", "patterns[0].repeat.until"].sort(
      (a, b) => faults.findIndex(f => f.startsWith(`${a}:`)) - faults.findIndex(f => f.startsWith(`${b}:`)),
    ),
  );
  expect(faults.length).toBe(4);
});

test("references to what is off are allowed, and the slot's busy gate may be named anywhere", () => {
  const rest = {
    patterns: [{ ...press, off: true }],
    gates: [
      { id: "w", name: "W", while: "p" },
      { id: "free", name: "F", none: ["busy:main"] },
    ],
    moves: [{ ...move, bans: ["busy:main"] }],
    prompts: [prompt],
  };
  expect(faultsOf(rest)).toEqual([]);
});

const tap = (max: string) =>
  ({ id: "t", name: "T", kind: "tap", control: "a", max }) as Kit["patterns"][number];
const held = hold as Kit["patterns"][number];

const SWITCHES = [
  { when: { gate: "g", turns: "open" }, to: "earth" },
  { when: { gate: "g", turns: "closed" }, to: "air" },
];

/** A move that needs a gate, in a mode entered and left with that gate. */
const grounded = (need: object, more: object = {}) => ({
  gates: [gate],
  patterns: [press],
  modes: [
    { id: "earth", name: "Earth" },
    { id: "air", name: "Air" },
  ],
  switches: SWITCHES,
  moves: [{ ...move, modes: ["earth"], needs: [{ gate: "g", ...need }], ...more }],
});

test.each([
  [
    "a dead stretch",
    { patterns: [tap("9f"), held] },
    "patterns[1]: a press of A held 10f to 17f ends in nothing",
  ],
  [
    "a stretch answered twice",
    { patterns: [tap("20f"), held] },
    "patterns[1]: a press of A held 18f to 20f is answered by both T and H",
  ],
  [
    "a long buffer",
    { patterns: [press], moves: [{ ...move, buffer: "61f" }] },
    "moves[0].buffer: the buffer waits for 61 f",
  ],
  [
    "two bindings alike",
    {
      controls: [
        { id: "a", name: "A", bindings: [["key:KeyJ"]] },
        { id: "b", name: "B", bindings: [["key:KeyJ"]] },
      ],
    },
    'controls[1].bindings[0]: key:KeyJ plays both "A" and "B"',
  ],
  [
    "a move nothing can reach",
    { patterns: [{ ...press, off: true }], moves: [move] },
    "moves[0]: M can never be performed: its pattern P is off",
  ],
  [
    "a move that needs what it bans",
    { patterns: [press], gates: [gate], moves: [{ ...move, needs: [{ gate: "g" }], bans: ["g"] }] },
    "it both needs and bans G",
  ],
  [
    "a gate nothing opens",
    { patterns: [press], gates: [gate], moves: [{ ...move, needs: [{ gate: "g" }] }] },
    "moves[0].needs[0]: nothing in the kit opens G",
  ],
  [
    "a busy gate of a slot without moves",
    { patterns: [press], moves: [{ ...move, needs: [{ gate: "busy:feet" }] }] },
    "moves[0].needs[0]: nothing in the kit opens Busy in feet",
  ],
  [
    "a prompt that follows itself",
    { patterns: [press], prompts: [{ ...prompt, starts: { prompt: "r", on: "any" } }] },
    "prompts[0].starts: R is never shown",
  ],
  [
    "a hold whose longest is below its shortest",
    { patterns: [{ ...hold, fire: "release", max: "9f" }] },
    "patterns[0]: H can never fire",
  ],
  [
    "a charge lost before it is full",
    {
      patterns: [
        { id: "c", name: "C", kind: "charge", control: "a", full: "60f", limit: "17f", fire: "release" },
      ],
    },
    "patterns[0].limit: C can never be full: a press is lost past 17f and full only at 60f",
  ],
  [
    "a coyote in a mode that ends with its gate",
    grounded({ coyote: "5f" }),
    "moves[0].needs[0].coyote: the coyote of M never counts: it works in Earth only, which begins when G opens",
  ],
  [
    "a buffer in a mode in which its gate is open",
    grounded({}, { buffer: "6f" }),
    "moves[0].buffer: the buffer of M never counts: it works in Earth only",
  ],
  [
    "a buffer that nothing makes wait",
    { patterns: [press], moves: [{ ...move, buffer: "6f" }] },
    "moves[0].buffer: the buffer of M never counts: nothing ever blocks it",
  ],
] as const)("the warning for %s", (_what, rest, sentence) => {
  expect(warningsOf(rest as unknown as Partial<Kit>).join("\n")).toContain(sentence);
});

test("a mode that can be entered in another way keeps its coyote and its buffer", () => {
  const kit = grounded({ coyote: "5f" }, { buffer: "6f" });
  const switches = [...SWITCHES, { when: { move: "m" }, to: "earth" }];
  expect(warningsOf({ ...kit, switches } as unknown as Partial<Kit>).join()).not.toMatch(/coyote|buffer/);
  const spends = grounded({ coyote: "5f" }, { buffer: "6f", spends: ["g"] });
  expect(warningsOf(spends as unknown as Partial<Kit>).join()).not.toMatch(/buffer of/);
});

test.each([
  ["tap and hold that meet", { patterns: [tap("17f"), held] }],
  [
    "a buffer of exactly a second",
    { patterns: [press], moves: [{ ...move, buffer: "60f", bans: ["busy:main"] }] },
  ],
  [
    "two controls with keys of their own",
    {
      controls: [
        { id: "a", name: "A", bindings: [["key:KeyJ"]] },
        { id: "b", name: "B", bindings: [["key:KeyJ", "key:KeyK"]] },
      ],
    },
  ],
] as const)("no warning for %s", (_what, rest) => {
  expect(warningsOf(rest as unknown as Partial<Kit>)).toEqual([]);
});
