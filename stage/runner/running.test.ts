import { expect, test } from "vitest";
import { readTake, type Kit, type Take } from "#core";
import { compileRules, runRules, type RunnerDocument } from "../index";

const FLAT: RunnerDocument = {
  kind: "runner",
  tilePx: 32,
  level: [" ".repeat(60), `${" ".repeat(10)}@${" ".repeat(49)}`, "#".repeat(60)],
  run: { left: "left", right: "right", speed: 6, accel: 30 },
  fall: { up: 50, down: 70, most: 20 },
  height: { by: "fixed" },
  gates: { footing: "footing" },
};

function kitWith(run: Partial<RunnerDocument["run"]>, more: Partial<RunnerDocument> = {}): Kit {
  return {
    format: "moss-tap/kit",
    version: 1,
    id: "k",
    name: "K",
    rate: 60,
    controls: ["left", "right", "leap", "go"].map(id => ({ id, name: id, bindings: [] })),
    gates: [{ id: "footing", name: "Footing" }],
    patterns: [
      { id: "p", name: "P", kind: "press", control: "leap" },
      { id: "q", name: "Q", kind: "press", control: "go" },
    ],
    moves: [
      { id: "hop", name: "Hop", pattern: "p", effect: { leap: 16 } },
      { id: "run", name: "Run", pattern: "q", effect: { run: 12 } },
    ],
    stage: { ...FLAT, run: { ...FLAT.run, ...run }, ...more },
  };
}

/** Returns the horizontal speed on each frame, in tiles per second, and the body's greatest height. */
function play(kit: Kit, lanes: Take["lanes"], frames = 120) {
  const rules = compileRules(kit);
  if (!rules.ok) throw new Error(JSON.stringify(rules.issues));
  const take: Take = { format: "moss-tap/take", version: 1, id: "t", name: "T", rate: 60, frames, lanes };
  const { track } = runRules(rules.value, readTake(rules.value.program, take));
  const at = (frame: number, k: 0 | 1) => track[frame * 2 + k]!;
  return {
    speed: (frame: number) => (at(frame, 0) - at(frame - 1, 0)) * 60,
    top: Math.max(...Array.from({ length: frames }, (_, frame) => at(frame, 1))) - 1,
  };
}

const held = (from: number, to: number): [number, number][] => [
  [from, 1],
  [to, 0],
];
/** Returns the change of speed in one frame at an acceleration, in tiles per second. */
const perFrame = (accel: number) => accel / 60;

test("it speeds up, comes to rest and turns by numbers of their own, and by others in the air", () => {
  const kit = kitWith({ brake: 60, turn: 90, air: { accel: 12, brake: 6 } });
  const walk = play(kit, { right: held(5, 40), left: held(60, 90) });
  expect(walk.speed(6) - walk.speed(5)).toBeCloseTo(perFrame(30), 3);
  expect(walk.speed(39)).toBeCloseTo(6, 3);
  expect(walk.speed(41) - walk.speed(40)).toBeCloseTo(-perFrame(60), 3);
  const turn = play(kit, { right: held(5, 40), left: held(40, 90) });
  expect(turn.speed(41) - turn.speed(40)).toBeCloseTo(-perFrame(90), 3);
  const air = play(kit, { leap: held(5, 7), right: held(8, 16) });
  expect(air.speed(10) - air.speed(9)).toBeCloseTo(perFrame(12), 3);
  expect(air.speed(18) - air.speed(17)).toBeCloseTo(-perFrame(6), 3);
});

test("a walk lingers after its release; a run stops at once", () => {
  const kit = kitWith({ brake: 1000, linger: "12f" });
  const walk = play(kit, { right: held(5, 40) });
  expect(walk.speed(51)).toBeCloseTo(6, 3);
  expect(walk.speed(54)).toBeCloseTo(0, 3);
  const run = play(kit, { right: held(5, 60), go: held(20, 22) });
  expect(run.speed(59)).toBeCloseTo(12, 3);
  expect(run.speed(61)).toBeCloseTo(0, 3);
});

test("a lift has its own start, length and strength, and ends on release or keeps on", () => {
  const lift = { by: "lift", control: "leap", for: "21f" } as const;
  const top = (height: RunnerDocument["height"], to: number) =>
    play(kitWith({}, { height }), { leap: held(5, to) }).top;
  const plain = top({ by: "fixed" }, 60);
  const whole = top(lift, 60);
  expect(whole).toBeGreaterThan(plain * 1.5);
  expect(top({ ...lift, share: 0.5 }, 60)).toBeGreaterThan(plain * 1.1);
  expect(top({ ...lift, share: 0.5 }, 60)).toBeLessThan(whole);
  expect(top({ ...lift, from: "6f" }, 60)).not.toBeCloseTo(whole, 2);
  expect(top(lift, 8)).toBeLessThan(whole);
  expect(top({ ...lift, keeps: true }, 8)).toBeCloseTo(whole, 5);
});

const STEP = { id: "step", name: "Step", pattern: "q", effect: { step: 1 } };
/** Returns the distance from the start on a frame, in tiles. */
function placeOf(kit: Kit, lanes: Take["lanes"], gates: Take["gates"] = {}) {
  const rules = compileRules(kit);
  if (!rules.ok) throw new Error(JSON.stringify(rules.issues));
  const take: Take = {
    format: "moss-tap/take",
    version: 1,
    id: "t",
    name: "T",
    rate: 60,
    frames: 240,
    lanes,
    gates,
  };
  const { track } = runRules(rules.value, readTake(rules.value.program, take));
  return (frame: number) => track[frame * 2]! - track[0]!;
}

test.each([4, 7, 13])("steps land exactly at speed %d, and one asked for during a step is added", speed => {
  const kit = { ...kitWith({ speed }), moves: [STEP] };
  expect(placeOf(kit, { go: held(5, 7) })(239)).toBeCloseTo(1, 5);
  const twice: [number, number][] = [...held(5, 7), ...held(10, 12)];
  expect(placeOf(kit, { go: twice })(239)).toBeCloseTo(2, 5);
  const five = [5, 9, 13, 17, 21].flatMap(from => held(from, from + 2));
  expect(placeOf(kit, { go: five })(239)).toBeCloseTo(5, 5);
  const back = { ...kit, moves: [{ ...STEP, effect: { step: -2 } }] };
  expect(placeOf(back, { go: held(5, 7) })(239)).toBeCloseTo(-2, 5);
});

test("a run stops on the frame on which its direction is released", () => {
  const run = play(kitWith({}), { right: held(5, 60), go: held(6, 8) });
  expect(run.speed(59)).toBeCloseTo(12, 3);
  expect(run.speed(60)).toBe(0);
});

test("an open gate of halts keeps the direction away, and it counts again when the gate closes", () => {
  const kit = {
    ...kitWith({ accel: 600 }, { halts: ["stun"] }),
    gates: [...kitWith({}).gates!, { id: "stun", name: "Stun" }],
  };
  const place = placeOf(
    kit,
    { right: held(5, 200) },
    {
      stun: [
        [30, 1],
        [60, 0],
      ],
    },
  );
  expect(place(59)).toBeCloseTo(place(31), 3);
  expect(place(70) - place(60)).toBeCloseTo(10 * (6 / 60), 3);
});

test("steered by the rules, a direction moves the body only while an active pattern sees it", () => {
  const base = kitWith({ steers: "rules", accel: 600 });
  expect(placeOf(base, { right: held(5, 100) })(90)).toBeCloseTo(0, 5);
  const walk = { id: "w", name: "W", kind: "press", control: "right" } as const;
  const walking = { ...base, patterns: [...base.patterns, walk] };
  expect(placeOf(walking, { right: held(5, 100) })(90)).toBeGreaterThan(8);
  expect(
    placeOf(
      { ...walking, patterns: [...base.patterns, { ...walk, off: true }] },
      { right: held(5, 100) },
    )(90),
  ).toBeCloseTo(0, 5);
  // A chord that captures the direction hides it from the walk, and sees it itself.
  const captured = {
    ...walking,
    modes: [
      { id: "free", name: "Free" },
      { id: "bound", name: "Bound" },
    ],
    switches: [{ when: { gate: "footing", turns: "open" } as const, to: "bound" }],
    patterns: [...base.patterns, { ...walk, modes: ["free"] }],
  };
  expect(placeOf(captured, { right: held(5, 100) })(90)).toBeCloseTo(0, 5);
});
