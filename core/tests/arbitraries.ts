import fc from "fast-check";
import { compile } from "../kit/compile";
import type { Kit, Move, Pattern, PatternKind, Prompt } from "../kit/schema";
import { PATTERN_KIND_NAMES } from "../patterns/recordOf";
import type { Take } from "../input/takeSchema";

/** `c` belongs to no pattern: its presses only break sequences. */
const CONTROLS = ["a", "b", "c", "u", "d", "l", "r"];
const GATES = ["g", "h"];
/** Gates derived from or counting others. */
const MADE_GATES = ["j", "n", "k"];

const frames = (max: number, min = 0) =>
  fc.oneof(
    fc.integer({ min, max }).map(n => `${n}f`),
    fc.integer({ min: min * 17, max: max * 17 }).map(n => `${n}ms`),
  );
const maybe = <T>(value: fc.Arbitrary<T>) => fc.option(value, { nil: undefined });
const control = fc.constantFrom("a", "b");
const clock = maybe(fc.constantFrom("game" as const, "real" as const));
const modes = maybe(fc.subarray(["x", "y"], { minLength: 1 }));
const common = { clock, modes, captures: maybe(fc.constantFrom(false, false, false, true)) };
const cancel = maybe(fc.constantFrom(["b"], ["u"]));

const step = fc.oneof(
  fc.record({ press: control, after: maybe(frames(3)), gap: maybe(frames(12)) }),
  fc.record({ release: control, gap: maybe(frames(12)) }),
  fc.record({ hold: control, for: frames(6), after: maybe(frames(3)) }),
  fc.record({ dir: fc.constantFrom("s:6", "s:2", "s:3", "s:5"), for: maybe(frames(4)) }),
  fc.record({ together: fc.constant(["a", "b"]), within: frames(5) }),
);

/** A generator for each kind of pattern, without its id and name. */
const PATTERNS = {
  press: fc.record({
    control,
    repeat: maybe(fc.record({ after: frames(8), every: frames(5, 1) })),
    ...common,
  }),
  release: fc.record({ control, ...common }),
  tap: fc.record({ control, max: frames(9), ...common }),
  hold: fc.record({
    control,
    for: frames(9),
    fire: fc.constantFrom("reach", "release"),
    max: maybe(frames(14)),
    repeat: maybe(fc.record({ every: frames(5, 1) })),
    cancel,
    ...common,
  }),
  charge: fc.record({
    control,
    full: frames(12, 4),
    min: maybe(frames(4)),
    limit: maybe(frames(20)),
    fire: fc.constantFrom("release", "full", "either"),
    curve: fc.constantFrom("linear", "ease-in"),
    levels: maybe(
      fc.constant([
        { name: "1", at: "3f" },
        { name: "2", at: "6f" },
      ]),
    ),
    output: maybe(fc.constant([2, -1])),
    cancel,
    ...common,
  }),
  taps: fc.record({
    control,
    count: fc.integer({ min: 1, max: 3 }),
    gap: frames(9),
    max: maybe(frames(6)),
    answer: fc.constantFrom("nth", "each", "final"),
    ...common,
  }),
  chord: fc.record({
    controls: fc.constant(["a", "b"]),
    spread: maybe(frames(5)),
    for: maybe(frames(6)),
    ...common,
  }),
  sequence: fc.record({
    steps: fc.array(step, { minLength: 1, maxLength: 4 }),
    gap: frames(9),
    total: maybe(frames(20)),
    others: fc.constantFrom("ignore", "break"),
    cancel,
    ...common,
  }),
  mash: fc.record({
    controls: fc.constantFrom(["a"], ["a", "b"]),
    count: fc.integer({ min: 1, max: 4 }),
    within: frames(20),
    alternate: maybe(fc.boolean()),
    ...common,
  }),
} satisfies Readonly<Record<PatternKind, fc.Arbitrary<object>>>;

/** Draws a pattern of one of the kinds; all kinds are equally likely unless one is named repeatedly. */
const patternOf = (kinds: readonly PatternKind[]): fc.Arbitrary<object> =>
  fc.oneof(...kinds.map(kind => (PATTERNS[kind] as fc.Arbitrary<object>).map(own => ({ kind, ...own }))));

const pattern = patternOf(PATTERN_KIND_NAMES);

/** Patterns that can fire with presses released long before. */
const rememberingPattern = patternOf(["press", "taps", "taps", "mash", "sequence"]);

/** `out:m0` exists in kits whose first move has a linger; others that name it do not compile. */
const gateName = fc.constantFrom(...GATES, ...MADE_GATES, "w", "busy:main", "out:m0");
const ownGate = fc.constantFrom(...GATES, ...MADE_GATES, "w");
const painted = fc.constantFrom(...GATES);

const move = (patterns: number) =>
  fc.record({
    pattern: fc.nat(patterns - 1).map(i => `p${i}`),
    again: maybe(fc.constant("held" as const)),
    memory: clock,
    needs: maybe(fc.array(fc.record({ gate: gateName, coyote: maybe(frames(8)) }), { maxLength: 2 })),
    bans: maybe(fc.array(gateName, { maxLength: 1 })),
    buffer: maybe(frames(10)),
    defer: maybe(frames(4)),
    priority: maybe(fc.integer({ min: 0, max: 2 })),
    slot: maybe(fc.constantFrom("main", "feet")),
    spends: maybe(fc.array(ownGate, { maxLength: 1 })),
    linger: maybe(frames(8)),
    shares: maybe(fc.boolean()),
    cooldown: maybe(frames(10)),
    uses: maybe(fc.record({ max: fc.integer({ min: 1, max: 2 }), refill: gateName })),
    frames: maybe(fc.record({ startup: frames(3), active: frames(3), recovery: frames(5) })),
    opens: maybe(
      fc.constantFrom(
        [{ gate: "w", from: "2f", to: "6f" }],
        [{ gate: "w", from: "0f", to: "0f" }],
        [
          { gate: "w", from: "0f", to: "2f" },
          { gate: "h", from: "4f", to: "4f" },
        ],
      ),
    ),
    clock,
    modes,
  });

/** A move with long times: its requests wait while nothing else happens, and so does its timeline. */
const patientMove = (patterns: number) =>
  fc
    .record({
      needs: fc.array(
        fc.record({ gate: fc.oneof(painted, painted, gateName), coyote: maybe(frames(30, 5)) }),
        { minLength: 1, maxLength: 2 },
      ),
      bans: maybe(fc.constantFrom(["h"], ["h"], ["w"])),
      buffer: frames(40, 5),
      defer: maybe(frames(15)),
      cooldown: maybe(frames(60, 20)),
      frames: maybe(fc.record({ startup: frames(12), active: frames(12), recovery: frames(12) })),
    })
    .chain(own => move(patterns).map(other => ({ ...other, modes: undefined, ...own })));

const prompt = (patterns: number) =>
  fc.record({
    ask: fc.array(
      fc.nat(patterns - 1).map(i => `p${i}`),
      { minLength: 1, maxLength: 3 },
    ),
    draw: maybe(fc.integer({ min: 0, max: 2 ** 32 - 1 })),
    starts: fc.oneof(
      fc.record({ at: frames(30) }),
      fc.record({ gate: gateName }),
      fc.record({ prompt: fc.constant("r0"), on: fc.constantFrom("success", "failure", "any") }),
    ),
    lead: maybe(frames(5)),
    window: frames(15),
    target: maybe(frames(5)),
    grades: maybe(
      fc.constantFrom(
        [{ name: "gold", within: "2f" }],
        [{ name: "gold", within: "2f", early: "0f" }],
        [
          { name: "gold", within: "1f", late: "3f" },
          { name: "silver", within: "2f", early: "5f", late: "0f" },
        ],
      ),
    ),
    early: maybe(fc.constantFrom("ignore", "allow", "fail")),
    wrong: maybe(fc.constant("fail")),
    wrongOn: maybe(fc.constant(["b"])),
    captures: maybe(fc.constantFrom(["a"], ["b"])),
    opens: maybe(fc.constant("o")),
    clock,
    modes,
  });

function named<T>(prefix: string, items: readonly T[]): (T & { id: string; name: string })[] {
  return items.map((item, i) => ({ id: `${prefix}${i}`, name: `${prefix}${i}`, ...item }));
}

const anyGates = (patterns: number, moves: number) => {
  const fires = fc.nat(patterns - 1).map(i => ({ fires: `p${i}` }));
  const performs = fc.nat(Math.max(0, moves - 1)).map(i => ({ performs: `m${i}` }));
  const counted = fc
    .tuple(moves > 0 ? fc.oneof(fires, performs) : fires, fc.integer({ min: 1, max: 3 }), maybe(painted))
    .map(([of, atLeast, until]) => ({ ...of, atLeast, until }));
  const derived = fc.oneof(
    fc.constantFrom(
      { all: ["g", "h"] },
      { any: ["g", "busy:main"] },
      { none: ["g", "w"] },
      { any: ["out:m0"] },
    ),
    fc.nat(patterns - 1).map(i => ({ while: `p${i}` })),
  );
  return fc.record({
    g: fc.record({ spentFor: maybe(frames(12)), linger: maybe(frames(6)) }),
    j: fc
      .tuple(derived, maybe(frames(6)), maybe(frames(6)))
      .map(([of, spentFor, linger]) => ({ ...of, spentFor, linger })),
    k: fc.tuple(counted, maybe(frames(4))).map(([of, linger]) => ({ ...of, linger })),
    n: fc.constantFrom({ none: ["j"] }, { any: ["j", "h"] }, {}),
  });
};

const PLAIN_MODES = { modes: undefined, start: undefined, switches: undefined };
const TWO_MODES = (carry: boolean) => ({
  modes: [
    { id: "x", name: "X" },
    { id: "y", name: "Y", carry },
  ],
  switches: [
    { when: { gate: "h", turns: "open" }, to: "y" },
    { when: { gate: "h", turns: "closed" }, to: "x" },
    { when: { gate: "k", turns: "open" }, to: "y" },
  ],
});

/** Random kits that compile, made of these patterns, with at least so many prompts. */
const kitOf = (
  patterns: fc.Arbitrary<object>,
  minPatterns: number,
  minPrompts: number,
  moveOf: (patterns: number) => fc.Arbitrary<object> = move,
): fc.Arbitrary<Kit> =>
  fc
    .record({
      patterns: fc.array(patterns, { minLength: minPatterns, maxLength: 6 }),
      modes: fc.constantFrom(PLAIN_MODES, PLAIN_MODES, TWO_MODES(false), TWO_MODES(true)),
      opposites: fc.constantFrom("neutral", "latest", "first"),
      queue: maybe(fc.constantFrom("newest", "all")),
      mirrorWhen: maybe(fc.constantFrom("g", "out:m0")),
    })
    .chain(base =>
      fc.record({
        base: fc.constant(base),
        moves: fc.array(moveOf(base.patterns.length), { maxLength: 4 }),
        prompts: fc.array(prompt(base.patterns.length), { minLength: minPrompts, maxLength: minPrompts + 2 }),
      }),
    )
    .chain(({ base, moves, prompts }) =>
      anyGates(base.patterns.length, moves.length).map(gates => ({ base, moves, prompts, gates })),
    )
    .map(({ base, moves, prompts, gates }) => {
      const hasModes = base.modes.modes !== undefined;
      const strip = <T extends object>(item: T) => (hasModes ? item : { ...item, modes: undefined });
      const kit = {
        format: "moss-tap/kit",
        version: 1,
        id: "any",
        name: "Any",
        rate: 60,
        controls: CONTROLS.map(id => ({
          id,
          name: id,
          bindings: [],
          ...(id === "b" ? { pressAt: 0.6 } : {}),
        })),
        sticks: [
          {
            id: "s",
            name: "S",
            up: "u",
            down: "d",
            left: "l",
            right: "r",
            opposites: base.opposites,
            mirrorWhen: base.mirrorWhen,
          },
        ],
        gates: ["g", "h", "w", "o", "j", "n", "k"].map(id => ({
          id,
          name: id,
          ...gates[id as keyof typeof gates],
        })),
        patterns: named("p", base.patterns.map(strip)),
        moves: named("m", moves.map(strip)),
        prompts: named("r", prompts.map(strip)),
        queue: base.queue,
        ...base.modes,
      };
      return JSON.parse(JSON.stringify(kit)) as Kit & {
        patterns: Pattern[];
        moves: Move[];
        prompts: Prompt[];
      };
    })
    .filter(kit => compile(kit).ok);

/** A random kit that compiles: every kind of rule, sometimes two modes, sometimes prompts. */
export const anyKit = kitOf(pattern, 1, 0);

/** A random kit whose moves wait and run for long, so that frames are skipped meanwhile. */
export const anyPatientKit = kitOf(patternOf(["press", "press", "hold"]), 1, 0, patientMove);

/** A random kit whose prompts share presses with chains of taps, sequences and mashes. */
export const anySharingKit = kitOf(rememberingPattern, 3, 2);

const lane = <T>(value: fc.Arbitrary<T>, gap: number) =>
  fc.array(fc.tuple(fc.double({ min: 0.05, max: gap, noNaN: true }), value), { maxLength: 24 }).map(pairs => {
    let x = 0;
    return pairs.map(([by, v]): [number, T] => [(x = Math.round((x + by) * 100) / 100), v]);
  });

const value = fc.constantFrom(0, 0, 0.45, 1, 1);

/** Lanes with so many frames between two changes at most. */
const lanesOf = (gap: number) =>
  fc.record({
    lanes: fc.record(Object.fromEntries(CONTROLS.map(id => [id, lane(value, gap)]))),
    gates: fc.record({
      g: lane(fc.constantFrom(0 as const, 1 as const), gap + 6),
      h: lane(fc.constantFrom(0 as const, 1 as const), gap + 21),
    }),
    speed: maybe(lane(fc.constantFrom(0, 50, 100, 400), 40)),
  });

/** A random take of two seconds, sometimes in slow motion, with painted gates; with hardly a quiet frame, or with many. */
export const anyTake: fc.Arbitrary<Take> = fc
  .oneof(lanesOf(9), lanesOf(9), lanesOf(150))
  .map(({ lanes, gates, speed }) => {
    const take = {
      format: "moss-tap/take",
      version: 1,
      id: "any",
      name: "Any",
      rate: 60,
      frames: 120,
      lanes,
      gates,
      speed,
    };
    return JSON.parse(JSON.stringify(take)) as Take;
  });
