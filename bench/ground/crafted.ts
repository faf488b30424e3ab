import { makeLargeKit, makeTake } from "../scenes";

/** A document crafted to be difficult. */
export interface Crafted {
  readonly name: string;
  readonly text: string;
}

const many = <T>(count: number, make: (k: number) => T): T[] =>
  Array.from({ length: count }, (_, k) => make(k));

const PRESS = { id: "p", name: "P", kind: "press", control: "a" };
const A = { id: "a", name: "A", bindings: [["key:KeyA"]] };

const kit = (more: object) => ({
  format: "moss-tap/kit",
  version: 1,
  id: "k",
  name: "K",
  rate: 60,
  controls: [A],
  patterns: [PRESS],
  ...more,
});
const take = (more: object) => ({
  format: "moss-tap/take",
  version: 1,
  id: "t",
  name: "T",
  rate: 60,
  frames: 600,
  lanes: { a: [[1, 1]] },
  ...more,
});
const charge = (more: object) =>
  kit({
    patterns: [{ id: "c", name: "C", kind: "charge", control: "a", full: "9f", fire: "full", ...more }],
  });
const runner = (level: unknown, more: object = {}) => kit({ stage: { kind: "runner", level, ...more } });

const HUGE = [1e6, 1e8, 1e12, 1e300, -1e308, 1e-300];
const SIZES = [10, 1000, 1001, 5000, 60_000];
const ODD_IDS = [
  "a/b",
  "..",
  ".",
  "a?b",
  "a#b",
  "a\u0000b",
  "\ud800",
  "%2e",
  "\\",
  " ",
  "",
  "constructor",
  "__proto__",
];

function nested(depth: number, open: string, close: string): string {
  return `{"format":"moss-tap/kit","version":1,"id":"k","name":"K","rate":60,"controls":${open.repeat(depth)}1${close.repeat(depth)}}`;
}

/** Texts that are not documents, or JSON of a difficult shape. */
const TEXTS: readonly Crafted[] = [
  ...[100, 20_000, 200_000].flatMap(depth => [
    { name: `lists ${depth} deep`, text: nested(depth, "[", "]") },
    { name: `objects ${depth} deep`, text: nested(depth, '{"a":', "}") },
  ]),
  { name: "nothing", text: "" },
  { name: "a number without end", text: JSON.stringify(take({ frames: 1 })).replace(":1,", ":1e999,") },
  ...["1e999", "-1e999", "1e308", "-1e308"].flatMap(number => [
    {
      name: `an output of ${number}`,
      text: JSON.stringify(charge({ output: ["@", 1] })).replace('"@"', number),
    },
    {
      name: `a press at ${number}`,
      text: JSON.stringify(take({ lanes: { a: [["@", 1]] } })).replace('"@"', number),
    },
    {
      name: `a value of ${number}`,
      text: JSON.stringify(take({ lanes: { a: [[1, "@"]] } })).replace('"@"', number),
    },
    { name: `${number} frames`, text: JSON.stringify(take({ frames: "@" })).replace('"@"', number) },
    { name: `a rate of ${number}`, text: JSON.stringify(take({ rate: "@" })).replace('"@"', number) },
    { name: `a kit's rate of ${number}`, text: JSON.stringify(kit({ rate: "@" })).replace('"@"', number) },
    {
      name: `a press at ${number} of 1`,
      text: JSON.stringify(kit({ controls: [{ ...A, pressAt: "@" }] })).replace('"@"', number),
    },
  ]),
];

const DOCUMENTS: readonly (readonly [string, unknown])[] = [
  ...HUGE.flatMap((worth): [string, unknown][] => [
    [`a charge worth ${worth}`, charge({ output: [worth, worth] })],
    [`a curve that stops at ${worth}`, charge({ curve: `linear(0, ${worth}, 1)` })],
    [`a bezier of ${worth}`, charge({ curve: `cubic-bezier(0.1, ${worth}, 0.2, 1)` })],
    [`gravity of ${worth}`, runner(["P"], { gravity: worth })],
    [
      `a leap of ${worth}`,
      kit({
        stage: { kind: "runner", level: ["P", "#"] },
        moves: [{ id: "m", name: "M", pattern: "p", effect: { kind: "jump", speed: worth } }],
      }),
    ],
  ]),
  ...SIZES.flatMap((size): [string, unknown][] => [
    [`a name of ${size} letters`, kit({ name: "n".repeat(size) })],
    [`a rule's name of ${size} letters`, kit({ patterns: [{ ...PRESS, name: "🜁".repeat(size / 2) }] })],
    [`an id of ${size} letters`, kit({ id: "i".repeat(size) })],
    [`${size} rules`, kit({ patterns: many(size, k => ({ ...PRESS, id: `p${k}` })) })],
    [`${size} rules of one id`, kit({ patterns: many(size, () => PRESS) })],
    [`${size} controls`, kit({ controls: many(size, k => ({ ...A, id: k === 0 ? "a" : `a${k}` })) })],
    [
      `${size} controls with a rule each`,
      kit({
        controls: many(size, k => ({ ...A, id: `a${k}` })),
        patterns: many(size, k => ({ ...PRESS, id: `p${k}`, control: `a${k}` })),
      }),
    ],
    [
      `a chord of ${size}`,
      kit({
        patterns: [{ id: "c", name: "C", kind: "chord", controls: many(size, k => `a${k}`), spread: "4f" }],
      }),
    ],
    [
      `${size} moves that need ${size / 10} gates`,
      kit({
        gates: many(Math.min(size / 10, 1000), k => ({ id: `g${k}`, name: "G" })),
        moves: many(Math.min(size, 1000), m => ({
          id: `m${m}`,
          name: "M",
          pattern: "p",
          needs: many(Math.min(20, size / 10), k => ({ gate: `g${k}` })),
        })),
      }),
    ],
    [`${size} modes`, kit({ modes: many(size, k => ({ id: `mode${k}`, name: "M" })) })],
    [`a level of ${size} rows`, runner(many(size, () => "#"))],
    [`a level ${size} wide`, runner(["#".repeat(size), "P"])],
    [`a curve of ${size} zeros`, charge({ curve: `linear(${"0".repeat(size)}, 1)` })],
    [`a curve of ${size} stops`, charge({ curve: `linear(${many(size, k => k / size).join(", ")})` })],
    [`a lane of ${size} pairs`, take({ frames: size, lanes: { a: many(size, k => [k, k % 2]) } })],
    [`${size} lanes`, take({ lanes: Object.fromEntries(many(size, k => [`a${k}`, [[1, 1]]])) })],
    [`a lane of ${size} lists`, take({ lanes: { a: many(size, () => [[1], 1]) } })],
    [`a note of ${size} letters`, take({ note: "n".repeat(size) })],
  ]),
  ...ODD_IDS.flatMap((id): [string, unknown][] => [
    [`a kit's id ${JSON.stringify(id)}`, kit({ id })],
    [`a rule's id ${JSON.stringify(id)}`, kit({ patterns: [{ ...PRESS, id }] })],
    [`a lane's id ${JSON.stringify(id)}`, take({ lanes: { [id]: [[1, 1]] } })],
  ]),
  ...[1, 2, 8, 50, 64, 100].map((steps): [string, unknown] => [
    `200 sequences of ${steps} steps`,
    kit({
      patterns: many(200, k => ({
        id: `s${k}`,
        name: "S",
        kind: "sequence",
        gap: "30f",
        steps: many(steps, () => ({ press: "a" })),
      })),
    }),
  ]),
  ...[1, 24, 1000, 1e6].map((rate): [string, unknown] => [
    `an hour at ${rate} frames a second`,
    take({ rate, frames: rate * 3600 }),
  ]),
  ...[1e4, 1e6, 17_280_000, 17_280_001, 1e9].map((frames): [string, unknown] => [
    `${frames} frames`,
    take({ frames, rate: 1 }),
  ]),
  ...["[------", "Boss [ 2 ]", '", "', "<script>", "\u202e", "a\u0300".repeat(90)].flatMap(
    (name): [string, unknown][] => [
      [`a take called ${name}`, take({ name })],
      [`a kit called ${name}`, kit({ name })],
    ],
  ),
  ["900 rules of all kinds", makeLargeKit(15)],
  ["half an hour of presses", makeTake(108_000)],
];

/**
 * Returns crafted documents: sizes, depths, numbers, ids and names, each slightly and far beyond the limit.
 */
export function listCrafted(): readonly Crafted[] {
  return [...TEXTS, ...DOCUMENTS.map(([name, document]) => ({ name, text: JSON.stringify(document) }))];
}
