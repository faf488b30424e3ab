import fc from "fast-check";
import { expect, test } from "vitest";
import {
  createInputCursor,
  createTrace,
  formatTrace,
  loadInput,
  readTake,
  type Kit,
  type Move,
  type Take,
} from "#core";
import { createDuel, stepDuel, type DuelProgram } from "./duel/duel";
import {
  BODY_HEIGHT,
  checkStage,
  closedHeight,
  compileRules,
  createStaging,
  findJumpFacts,
  leapAtEdges,
  playRoutine,
  runRules,
  stepStaging,
  trackStride,
  writeTrack,
  type RunnerDocument,
} from "./index";
import { isBeam, parseLevel, zoneAt } from "./runner/level";
import { prepareRopes } from "./ropes/ropes";
import { expectWithin } from "../core/tests/expectWithin";

const FULL_SPEED = { speedPercent: 100 };

const RUNNER: RunnerDocument = {
  kind: "runner",
  tilePx: 32,
  level: [
    "                    ",
    "                    ",
    "                    ",
    " @             b    ",
    "##########   #######",
  ],
  zones: { b: "bell" },
  run: { left: "left", right: "right", speed: 6, accel: 60 },
  fall: { up: 50, down: 70, most: 20 },
  height: { by: "fixed" },
  gates: { footing: "footing", rising: "rising", falling: "falling", wall: "wall" },
};

function kitWith(stage: unknown, moves: readonly Move[] = [hop({})]): Kit {
  return {
    format: "moss-tap/kit",
    version: 1,
    id: "staged",
    name: "Staged",
    rate: 60,
    controls: ["left", "right", "leap"].map(id => ({ id, name: id, bindings: [] })),
    gates: ["footing", "rising", "falling", "wall", "bell"].map(id => ({ id, name: id })),
    patterns: [
      { id: "press", name: "Press", kind: "press", control: "leap" },
      {
        id: "coil",
        name: "Coil",
        kind: "charge",
        control: "left",
        full: "20f",
        output: [0, 24],
        fire: "release",
      },
    ],
    moves,
    stage,
  };
}

function hop(more: Partial<Move>): Move {
  return {
    id: "hop",
    name: "Hop",
    pattern: "press",
    needs: [{ gate: "footing", coyote: "5f" }],
    buffer: "6f",
    spends: ["footing"],
    effect: { leap: 16 },
    ...more,
  };
}

function mustCompile(kit: Kit) {
  const rules = compileRules(kit);
  if (!rules.ok) throw new Error(JSON.stringify(rules.issues));
  return rules.value;
}

function play(kit: Kit, lanes: Take["lanes"], frames = 240, speed?: Take["speed"]) {
  const rules = mustCompile(kit);
  const take: Take = {
    format: "moss-tap/take",
    version: 1,
    id: "t",
    name: "T",
    rate: 60,
    frames,
    lanes,
    ...(speed ? { speed } : {}),
  };
  const staged = runRules(rules, readTake(rules.program, take));
  const { events } = formatTrace(rules.program, staged.trace);
  return {
    events,
    track: staged.track,
    at: (frame: number) => [staged.track[frame * 2]!, staged.track[frame * 2 + 1]!] as const,
  };
}

const of = (events: ReturnType<typeof play>["events"], kind: string, id: string) =>
  events.flatMap(event => (event.kind === kind && event.id === id ? [event.f] : []));

test("a level is read from its rows: beams, zones, where the body starts; its sides are walls", () => {
  const level = parseLevel(RUNNER.level);
  expect([level.startX, level.startY]).toEqual([1.5, 1]);
  expect([isBeam(level, 0, 0), isBeam(level, 11, 0), isBeam(level, -1, 3), isBeam(level, 3, 99)]).toEqual([
    true,
    false,
    true,
    false,
  ]);
  expect(zoneAt(level, 15.5, 1.5)).toBe(1);
});

test("the ground is open from frame 0, closes on the frame after the launch, and opens again at the landing", () => {
  const { events, at } = play(kitWith(RUNNER), {
    leap: [
      [10, 1],
      [12, 0],
    ],
  });
  expect(of(events, "performed", "hop")).toEqual([10]);
  const gate = events.filter(event => event.kind === "gate" && event.id === "footing");
  expect(gate.slice(0, 2).map(event => [event.f, "open" in event && event.open])).toEqual([
    [0, true],
    [11, false],
  ]);
  const landed = gate[2]!.f;
  expect(at(landed - 1)[1]).toBe(1);
  expect(at(landed - 2)[1]).toBeGreaterThan(1);
});

test("a jump on the stage has the height of its facts, and of the closed form of the same stepping", () => {
  for (const launch of [8, 12.5, 16, 19]) {
    const { track } = play(kitWith(RUNNER, [hop({ effect: { leap: launch } })]), {
      leap: [
        [10, 1],
        [12, 0],
      ],
    });
    const top = Math.max(...track.filter((_, k) => k % 2 === 1)) - 1;
    const facts = findJumpFacts(RUNNER, 60, launch, 0);
    expect(facts.height).toBeCloseTo(top, 4);
    expect(facts.height).toBeCloseTo(closedHeight(launch, RUNNER.fall.up, 60), 9);
    expect(facts.floatiness).toBeGreaterThan(0.4);
    expect(facts.hasLanded).toBe(true);
  }
  const weightless = { ...RUNNER, fall: { ...RUNNER.fall, up: 0 } };
  expect(findJumpFacts(weightless, 60, 16, 0).hasLanded).toBe(false);
});

test.each([
  ["lift", { by: "lift", control: "leap", for: "10f" }],
  ["late and half a lift", { by: "lift", control: "leap", for: "10f", from: "3f", share: 0.4 }],
  ["float", { by: "float", control: "leap", share: 0.5 }],
  ["cut", { by: "cut", control: "leap", to: 0.4 }],
] as const)("a height by %s: held is higher than tapped, and both match their facts", (by, height) => {
  const stage = { ...RUNNER, height };
  const topOf = (held: number) => {
    const { track } = play(kitWith(stage), {
      leap: [
        [10, 1],
        [10 + held, 0],
      ],
    });
    return Math.max(...track.filter((_, k) => k % 2 === 1)) - 1;
  };
  const facts = (held: number) => findJumpFacts(stage, 60, 16, held).height;
  expect(topOf(40)).toBeGreaterThan(topOf(3) * 1.3);
  expect(topOf(3)).toBeCloseTo(facts(3), 4);
  expect(topOf(40)).toBeCloseTo(facts(40), 4);
});

test.each(["charged", "cut", "lift", "float"] as const)(
  "a charged leap is as strong as its charge, height by %s",
  by => {
    const spring = {
      id: "spring",
      name: "Spring",
      pattern: "coil",
      needs: [{ gate: "footing" }],
      effect: { leap: "output" },
    };
    const topOf = (held: number) => {
      const heights = {
        charged: { by },
        cut: { by, control: "leap", to: 0.4 },
        lift: { by, control: "leap", for: "9f" },
        float: { by, control: "leap", share: 0.5 },
      };
      const { track } = play(kitWith({ ...RUNNER, height: heights[by] }, [spring]), {
        left: [
          [10, 1],
          [10 + held, 0],
        ],
      });
      return Math.max(...track.filter((_, k) => k % 2 === 1)) - 1;
    };
    expect(topOf(20)).toBeCloseTo(closedHeight(24, 50, 60), 4);
    expect(topOf(10)).toBeCloseTo(closedHeight(12, 50, 60), 4);
  },
);

test("a jump is cut when its control is released, whichever control the stage names for jumps", () => {
  const topOf = (made: "leap" | "right", released: "leap" | "right") => {
    const kit = kitWith({ ...RUNNER, height: { by: "cut", control: "leap", to: 0.3 } });
    const patterns = kit.patterns.map(p =>
      p.id === "press" ? { ...p, control: made } : p,
    ) as Kit["patterns"];
    const { track } = play(
      { ...kit, patterns },
      {
        leap:
          released === "leap"
            ? [
                [9, 1],
                [14, 0],
              ]
            : [[9, 1]],
        right:
          released === "right"
            ? [
                [10, 1],
                [14, 0],
              ]
            : [[10, 1]],
      },
      60,
    );
    return Math.max(...track.filter((_, k) => k % 2 === 1)) - 1;
  };
  const whole = closedHeight(16, 50, 60);
  expect(topOf("right", "leap")).toBeCloseTo(whole, 4);
  expect(topOf("right", "right")).toBeLessThan(whole * 0.7);
  expect(topOf("leap", "right")).toBeCloseTo(whole, 4);
  expect(topOf("leap", "leap")).toBeLessThan(whole * 0.7);
});

test("walking off an edge closes the ground; a press soon after is within the coyote, one long after is lost", () => {
  const walked = play(kitWith(RUNNER), { right: [[0, 1]] });
  const left = walked.events.find(event => event.kind === "gate" && event.id === "footing" && !event.open)!.f;
  const late = play(kitWith(RUNNER), {
    right: [[0, 1]],
    leap: [
      [left + 3, 1],
      [left + 5, 0],
    ],
  });
  expect(late.events.find(event => event.kind === "performed")).toMatchObject({ f: left + 3, by: "coyote" });
  const lost = play(
    kitWith(RUNNER),
    {
      right: [[0, 1]],
      leap: [
        [left + 7, 1],
        [left + 9, 0],
      ],
    },
    left + 14,
  );
  expect(of(lost.events, "performed", "hop")).toEqual([]);
});

test("in slow motion the body follows the clock, and in a freeze it does not move", () => {
  const half = play(
    kitWith(RUNNER),
    {
      leap: [
        [10, 1],
        [12, 0],
      ],
    },
    240,
    [[0, 50]],
  );
  const full = play(kitWith(RUNNER), {
    leap: [
      [10, 1],
      [12, 0],
    ],
  });
  const top = (track: Float32Array) => Math.max(...track.filter((_, k) => k % 2 === 1));
  expect(top(half.track)).toBeCloseTo(top(full.track), 0);
  const frozen = play(
    kitWith(RUNNER),
    {
      leap: [
        [10, 1],
        [12, 0],
      ],
    },
    100,
    [[20, 0]],
  );
  expect(frozen.at(90)).toEqual(frozen.at(20));
});

test("a wall stops the body and opens its gate; a zone opens the gate it is named for", () => {
  const { events, at } = play(kitWith(RUNNER), { left: [[5, 1]] }, 90);
  expect(of(events, "gate", "wall").length).toBeGreaterThan(0);
  expect(at(80)[0]).toBeCloseTo(0.34, 2);
  const stage = { ...RUNNER, level: ["          ", " @  b     ", "##########"] };
  const walked = play(kitWith(stage), { right: [[0, 1]] }, 90);
  expect(of(walked.events, "gate", "bell").length).toBe(2);
});

test("effects: a run, a step of tiles, a dash", () => {
  const distance = (effect: unknown) => {
    const moves = [{ id: "m", name: "M", pattern: "press", effect }];
    const { at } = play(
      kitWith(
        {
          ...RUNNER,
          level: ["  @                                     ", "########################################"],
        },
        moves,
      ),
      {
        leap: [
          [10, 1],
          [12, 0],
        ],
      },
      120,
    );
    return at(119)[0] - at(9)[0];
  };
  expect(distance({ step: 3 })).toBeCloseTo(3, 0);
  expect(distance({ dash: 12, for: "10f" })).toBeGreaterThan(2);
  expect(distance({ leap: 5 })).toBe(0);
});

test("the same take on the same stage is the same run, and a scripted player leaps at every edge", () => {
  const kit = kitWith(RUNNER);
  const rules = mustCompile(kit);
  const takeOf = (late: number) => playRoutine(rules, leapAtEdges("right", "leap", late, 12), 180, "r", "R");
  expect(takeOf(0)).toEqual(takeOf(0));
  const hops = (late: number) => of(play(kit, takeOf(late).lanes, 180).events, "performed", "hop");
  expect(hops(0).length).toBeGreaterThan(0);
  expect(hops(4)[0]! - hops(0)[0]!).toBe(4);
  const isGroundAt = (late: number) => {
    const run = play(kit, takeOf(late).lanes, 180);
    const [lost] = of(run.events, "fired", "press");
    const turns = run.events.filter(
      event => event.kind === "gate" && event.id === "footing" && event.f <= lost!,
    );
    return turns.length % 2 === 1;
  };
  // Lateness 0 is the last frame with ground, 1 the first without: a coyote of 5f saves five and not six.
  expect([0, 1, 2].map(isGroundAt)).toEqual([true, false, false]);
  const by = (late: number) =>
    play(kit, takeOf(late).lanes, 180).events.flatMap(event =>
      event.kind === "performed" || event.kind === "lost" ? [event.kind === "lost" ? "lost" : event.by] : [],
    )[0];
  expect([0, 1, 5, 6].map(by)).toEqual(["direct", "coyote", "coyote", "lost"]);
});

const DUEL: DuelProgram = {
  kind: "duel",
  script: [{ at: 10, does: "strike", frames: 0 }],
  every: 400,
  startup: 6,
  active: 3,
  recovery: 8,
  stun: 12,
  guardStun: 0,
  outcome: 12,
  apart: 1,
  reach: 50,
  theirReach: 50,
  push: 0,
  guardPush: 0,
  back: 0,
  ownGates: { hit: -1, blocked: -1, missed: -1 },
  hitStop: 4,
  hitGate: -1,
  blockedGate: -1,
  blows: [],
};

test("the opponent strikes on its script: it hits, or is parried; the game stops for the hit stop", () => {
  const hit = createDuel(DUEL);
  for (let f = 0; f < 30; f++) stepDuel(DUEL, hit, FULL_SPEED);
  expect([hit.taken, hit.parries]).toEqual([1, 0]);
  const parried = createDuel(DUEL);
  parried.parryLeft = 40;
  let stood = 0;
  for (let f = 0; f < 30; f++) {
    const before = parried.clock;
    stepDuel(DUEL, parried, FULL_SPEED);
    if (parried.clock === before) stood++;
  }
  expect([parried.taken, parried.parries, stood]).toEqual([0, 1, 4]);
});

test("a blow lands after its startup, or is a whiff if the opponent is away", () => {
  const program = { ...DUEL, script: [{ at: 20, does: "away" as const, frames: 60 }] };
  const duel = createDuel(DUEL);
  Object.assign(duel, { blow: 0, blowIn: 5, blowFor: 3 });
  for (let f = 0; f < 12; f++) stepDuel(program, duel, FULL_SPEED);
  expect([duel.hits, duel.whiffs]).toEqual([1, 0]);
  for (let f = 0; f < 20; f++) stepDuel(program, duel, FULL_SPEED);
  expect(duel.jack).toBe("away");
  Object.assign(duel, { blow: 0, blowIn: 5, blowFor: 3 });
  for (let f = 0; f < 12; f++) stepDuel(program, duel, FULL_SPEED);
  expect([duel.hits, duel.whiffs]).toEqual([1, 1]);
});

test("ropes draw answers by their seed, and the ease makes windows and grades longer", () => {
  const prompts = ["a", "b", "c", "d"].map(id => ({
    id,
    name: id,
    ask: ["press"],
    starts: { at: "10f" },
    window: "20f",
    grades: [{ name: "clean", within: "4f" }],
  }));
  const ropes = { kind: "ropes" as const, draws: ["a", "b", "c", "d"], pool: ["press", "coil"], ease: 1.5 };
  const drawn = (seed: number) =>
    prepareRopes({ ...kitWith(undefined), prompts }, { ...ropes, seed }).prompts!;
  expect(drawn(3)).toEqual(drawn(3));
  expect(drawn(3)[0]).toMatchObject({ window: "30f", grades: [{ name: "clean", within: "6f" }] });
  const eased = prepareRopes(
    { ...kitWith(undefined), prompts },
    { ...ropes, seed: 3, eases: [{ prompt: "b", times: 0.5 }] },
  ).prompts!;
  expect(eased.map(prompt => prompt.window)).toEqual(["30f", "15f", "30f", "30f"]);
  const orders = new Set(
    [1, 2, 3, 4, 5, 6].map(seed =>
      drawn(seed)
        .map(prompt => prompt.ask[0])
        .join(),
    ),
  );
  expect(orders.size).toBeGreaterThan(2);
});

test("an invalid stage or effect is reported with its path", () => {
  const kit = kitWith({ ...RUNNER, tilePx: 1, speed: 3 }, [hop({ effect: { leap: "high" } })]);
  const paths = checkStage(kit).map(issue => issue.path.join("."));
  expect(paths).toContain("stage.tilePx");
  expect(paths).toContain("stage.speed");
  expect(paths).toContain("moves.0.effect");
  expect(checkStage(kitWith(undefined))).toEqual([]);
  const strange = kitWith({
    ...RUNNER,
    run: { ...RUNNER.run, right: "rigth" },
    gates: { footing: "ground" },
  });
  const gone = { kind: "ropes", seed: 1, eases: [{ prompt: "gone", times: 11 }] };
  expect(checkStage(kitWith(gone)).map(found => found.path.join("."))).toEqual(["stage.eases.0.times"]);
  gone.eases[0]!.times = 2;
  expect(checkStage(kitWith({ ...gone })).map(found => found.path.join("."))).toEqual([
    "stage.eases.0.prompt",
  ]);
  expect(checkStage(strange).map(found => [found.path.join("."), found.facts.id])).toEqual([
    ["stage.run.right", "rigth"],
    ["stage.gates.footing", "ground"],
  ]);
});

test("a hit stop holds the game clock and not the hands': a buffer by the real clock runs out in it, one by the game clock waits", () => {
  const patterns = [{ id: "press", name: "Press", kind: "press" as const, control: "leap" }];
  const parts = { startup: "2f", active: "2f", recovery: "2f" };
  const blow = (id: string, clock: "game" | "real"): Move => ({
    id,
    name: id,
    pattern: "late",
    needs: [{ gate: "bell" }],
    buffer: "5f",
    slot: id,
    clock,
    shares: true,
  });
  const kit = {
    ...kitWith(
      {
        kind: "duel",
        script: [],
        every: "600f",
        strike: parts,
        stun: "4f",
        hitStop: "20f",
        gates: {},
      },
      [
        { id: "hit", name: "Hit", pattern: "press", frames: parts, effect: { strike: 1 } },
        blow("game", "game"),
        blow("real", "real"),
      ],
    ),
    patterns: [...patterns, { id: "late", name: "Late", kind: "press" as const, control: "right" }],
  } satisfies Kit;
  const { events } = play(
    kit,
    {
      leap: [
        [10, 1],
        [12, 0],
      ],
      right: [
        [16, 1],
        [18, 0],
      ],
    },
    80,
  );
  const lost = (id: string) => events.find(event => event.kind === "lost" && event.id === id)!.f;
  expect(lost("real")).toBe(21);
  expect(lost("game")).toBeGreaterThan(35);
});

test("ghosts: a track has the body's position for every frame, and a duel's counts", () => {
  const { track } = play(kitWith(RUNNER), { right: [[5, 1]] }, 60);
  expect(track.length).toBe(120);
  expect(track[118]!).toBeGreaterThan(track[20]!);
});

/** Rules that time alone fires or ends, on both clocks. */
const TIMED: Kit["patterns"] = [
  {
    id: "hold",
    name: "Hold",
    kind: "hold",
    control: "leap",
    for: "12f",
    fire: "reach",
    repeat: { every: "7f" },
  },
  { id: "tap", name: "Tap", kind: "tap", control: "left", max: "9f" },
  { id: "twice", name: "Twice", kind: "taps", control: "right", count: 2, gap: "15f", answer: "final" },
  { id: "wound", name: "Wound", kind: "charge", control: "leap", full: "20f", fire: "full", clock: "real" },
  { id: "again", name: "Again", kind: "press", control: "right", repeat: { after: "8f", every: "5f" } },
];

test("frames skipped while bodies are still, or only move, equal stepping each one", () => {
  const lane = fc
    .uniqueArray(fc.nat(220), { maxLength: 8 })
    .map(xs => xs.sort((a, b) => a - b).map((x, k): [number, number] => [x, (k + 1) % 2]));
  const speed = fc.constantFrom(
    undefined,
    [
      [40, 0],
      [60, 100],
    ] as [number, number][],
    [[80, 30]] as [number, number][],
  );
  const height = fc.constantFrom(
    { by: "fixed" },
    { by: "cut", control: "leap", to: 0.4 },
    { by: "lift", control: "leap", for: "9f" },
  );
  fc.assert(
    fc.property(lane, lane, lane, speed, height, (left, right, leap, speed, height) => {
      const kit = kitWith({ ...RUNNER, height });
      const rules = mustCompile({ ...kit, patterns: [...kit.patterns, ...TIMED] });
      const take: Take = {
        ...{ format: "moss-tap/take", version: 1, id: "t", name: "T", rate: 60, frames: 240 },
        lanes: { left, right, leap },
        ...(speed ? { speed } : {}),
      };
      const columns = readTake(rules.program, take);
      const whole = runRules(rules, columns);
      const staging = createStaging(rules);
      const cursor = createInputCursor(rules.program, columns);
      const trace = createTrace(60);
      const track = new Float32Array(whole.track.length);
      for (let f = 0; f < 240; f++) {
        stepStaging(rules, staging, loadInput(cursor, f), trace);
        writeTrack(staging.bodies!, track, f * trackStride(rules));
      }
      expect(whole.track).toEqual(track);
      expect(formatTrace(rules.program, whole.trace)).toEqual(formatTrace(rules.program, trace));
    }),
  );
});

test("a leap of any worth costs what a small one does, and a beam above stops it", () => {
  const level = [RUNNER.level[0]!, "####################", ...RUNNER.level.slice(2)];
  const spring = { id: "spring", name: "Spring", pattern: "coil", effect: { leap: "output" } };
  const kit = kitWith({ ...RUNNER, level, height: { by: "charged" } }, [spring]);
  const coil = { ...kit.patterns[1], output: [1e300, 1e300] } as Kit["patterns"][number];
  const left: [number, number][] = [
    [10, 1],
    [20, 0],
  ];
  expectWithin(500, () => {
    const { at } = play({ ...kit, patterns: [kit.patterns[0]!, coil] }, { left });
    expect(at(20)[1]).toBeCloseTo(3 - BODY_HEIGHT, 3);
  });
});
