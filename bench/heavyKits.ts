import type { Kit, Take } from "#core";

/** A legal kit at a bound of its schema, with its takes. */
export interface HeavyKit {
  readonly name: string;
  readonly kit: Kit;
  readonly takes: readonly Take[];
}

const many = <T>(count: number, make: (k: number) => T): T[] =>
  Array.from({ length: count }, (_, k) => make(k));
const CONTROLS = many(4, k => ({ id: `c${k}`, name: `Control ${k}`, bindings: [[`key:Key${"ASDF"[k]}`]] }));
const PRESSES = many(4, k => ({ id: `press${k}`, name: `Press ${k}`, kind: "press", control: `c${k}` }));

function kitOf(id: string, parts: object): Kit {
  const base = { format: "moss-tap/kit", version: 1, id, name: id, rate: 60, controls: CONTROLS };
  return { ...base, patterns: PRESSES, ...parts } as unknown as Kit;
}

function takeOf(kit: Kit, k = 0): Take {
  const lanes = Object.fromEntries(
    kit.controls
      .slice(0, 4)
      .map(({ id }, c) => [
        id,
        many(20, n => [10 + n * 27 + c * 7 + (k % 5) + (n % 2) * 8, (n + 1) % 2] as [number, number]),
      ]),
  );
  const base = { format: "moss-tap/take", version: 1, rate: kit.rate, kit: kit.id } as const;
  return { ...base, id: `t${k}`, name: `Take ${k}`, frames: 600, lanes };
}

/** Rules of different lengths in turn on four controls. */
const LENGTH_RULES = (count: number) =>
  many(count, k => {
    const base = { id: `r${k}`, name: `Rule number ${k}`, control: `c${k % 4}` };
    return k % 2 === 0
      ? { ...base, kind: "tap", max: `${3 + (k % 37)}f` }
      : { ...base, kind: "hold", for: `${5 + (k % 53)}f`, fire: "reach" };
  });

const SEQUENCES = (count: number, steps: number) =>
  many(count, k => ({
    id: `s${k}`,
    name: `Sequence ${k}`,
    kind: "sequence",
    gap: "30f",
    steps: many(steps, n => ({ press: `c${(k + n * 3 + ((k >> (n % 8)) & 1)) % 4}` })),
  }));

const GATES = (count: number) => many(count, k => ({ id: `g${k}`, name: `Gate ${k}` }));
const GATE_CHAIN = (count: number) =>
  many(count, k => ({ id: `g${k}`, name: `Gate ${k}`, ...(k === 0 ? {} : { all: [`g${k - 1}`] }) }));

const MOVES = (count: number, needs: number) =>
  many(count, k => ({
    id: `m${k}`,
    name: `Move ${k}`,
    pattern: `press${k % 4}`,
    buffer: "6f",
    needs: many(needs, n => ({ gate: `g${n}`, coyote: "3f" })),
  }));

const PROMPTS = (count: number) =>
  many(count, k => ({
    id: `q${k}`,
    name: `Prompt ${k}`,
    ask: [`press${k % 4}`],
    starts: { at: `${10 + k}f` },
    window: "30f",
  }));

const AXES: readonly (readonly [string, object, number])[] = [
  ["1,000 rules on four controls", { patterns: LENGTH_RULES(1000) }, 3],
  ["1,000 controls", { controls: many(1000, k => ({ ...CONTROLS[k % 4]!, id: `c${k}`, bindings: [] })) }, 3],
  ["1,000 moves", { moves: MOVES(1000, 0) }, 3],
  ["1,000 moves, 7 needs each", { gates: GATES(1000), moves: MOVES(1000, 7) }, 3],
  ["120 moves, 64 needs each", { gates: GATES(64), moves: MOVES(120, 64) }, 3],
  ["999 sequences of 8 steps", { patterns: SEQUENCES(999, 8) }, 3],
  ["150 sequences of 64 steps", { patterns: SEQUENCES(150, 64) }, 3],
  [
    "a chain of 1,000 gates",
    { gates: GATE_CHAIN(1000), moves: [{ ...MOVES(1, 0)[0]!, needs: [{ gate: "g999" }] }] },
    3,
  ],
  ["1,000 prompts", { prompts: PROMPTS(1000) }, 3],
  ["1,000 modes", { modes: many(1000, k => ({ id: `mode${k}`, name: `Mode ${k}` })), start: "mode0" }, 3],
  ["1,000 takes", {}, 1000],
  ["500 rules, 500 takes", { patterns: LENGTH_RULES(500) }, 500],
];

/** Returns the heaviest legal kits: one axis at its bound each, and two at once. */
export function listHeavyKits(): readonly HeavyKit[] {
  return AXES.map(([name, parts, takes], n) => {
    const kit = kitOf(`heavy-${n}`, parts);
    return { name, kit, takes: many(takes, k => takeOf(kit, k)) };
  });
}
