import { describe, expect, test } from "vitest";
import { formatTrace, readTake, type Kit, type Move, type Take } from "#core";
import { clockOf, compileRules, createSeeker, placeBeam, runRules, type RunnerDocument } from "../index";
import { findJumpFacts } from "../jumpFacts";

/** A shaft between two walls, 8 tiles wide and 30 high. */
const STAGE: RunnerDocument = {
  kind: "runner",
  tilePx: 32,
  level: [...Array.from({ length: 29 }, () => "#      #"), "#  @   #", "########"],
  run: { left: "left", right: "right", speed: 6, accel: 1000 },
  fall: { up: 50, down: 50, most: 20 },
  height: { by: "fixed" },
  gates: { footing: "footing", falling: "falling", wall: "wall" },
};

const hop: Move = {
  id: "hop",
  name: "Hop",
  pattern: "press",
  needs: [{ gate: "footing" }],
  effect: { leap: 25 },
};

function kitWith(stage: RunnerDocument, moves: readonly Move[]): Kit {
  return {
    format: "moss-tap/kit",
    version: 1,
    id: "walls",
    name: "Walls",
    rate: 60,
    controls: ["left", "right", "leap", "down"].map(id => ({ id, name: id, bindings: [] })),
    gates: ["footing", "falling", "wall"].map(id => ({ id, name: id })),
    patterns: ["leap", "down"].map((control, k) => ({
      id: k === 0 ? "press" : "down-press",
      name: control,
      kind: "press" as const,
      control,
    })),
    moves: [...moves],
    stage,
  };
}

function play(kit: Kit, lanes: Take["lanes"], frames: number) {
  const compiled = compileRules(kit);
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.issues));
  const rules = compiled.value;
  const take: Take = { format: "moss-tap/take", version: 1, id: "t", name: "T", rate: 60, frames, lanes };
  const { trace, track } = runRules(rules, readTake(rules.program, take));
  const place = (frame: number) => ({ x: track[frame * 2]!, y: track[frame * 2 + 1]! });
  return {
    place,
    /** Tiles per second by which it moved on a frame. */
    speed: (frame: number) => ({
      x: (place(frame).x - place(frame - 1).x) * 60,
      y: (place(frame).y - place(frame - 1).y) * 60,
    }),
    performed: formatTrace(rules.program, trace).events.flatMap(event =>
      event.kind === "performed" ? [[event.id, event.f, event.by]] : [],
    ),
  };
}

const LEAP_AT_10: Take["lanes"] = {
  leap: [
    [10, 1],
    [12, 0],
  ],
};

test("a plunge falls at its own speed from the frame it is performed, until it lands", () => {
  const plunge: Move = { id: "plunge", name: "Plunge", pattern: "down-press", effect: { plunge: 30 } };
  const { speed, place, performed } = play(
    kitWith(STAGE, [hop, plunge]),
    {
      ...LEAP_AT_10,
      down: [
        [25, 1],
        [26, 0],
      ],
    },
    120,
  );
  expect(performed).toContainEqual(["plunge", 25, "direct"]);
  // By frame 24 it has risen for 15 frames of v = 25 − n · 50/60.
  expect(speed(24).y).toBeCloseTo(25 - (15 * 50) / 60, 3);
  for (const frame of [25, 26, 27]) expect(speed(frame).y).toBeCloseTo(-30, 3);
  // It lands on the floor, at height 1, and a later fall has its usual limit again.
  expect(place(60).y).toBeCloseTo(1, 3);
});

test("only on the way down: a plunge that needs the falling gate waits for the top by its buffer", () => {
  const plunge: Move = {
    id: "plunge",
    name: "Plunge",
    pattern: "down-press",
    needs: [{ gate: "falling" }],
    buffer: "30f",
    effect: { plunge: 30 },
  };
  const { performed, speed } = play(
    kitWith(STAGE, [{ ...hop, effect: { leap: 24 } }, plunge]),
    {
      ...LEAP_AT_10,
      down: [
        [25, 1],
        [26, 0],
      ],
    },
    120,
  );
  // 24 / (50 / 60) = 28.8: it goes down after frame 10 + 28, its 29th in the air, and the gate is open on the next.
  expect(performed).toContainEqual(["plunge", 39, "buffer"]);
  expect(speed(39).y).toBeCloseTo(-30, 3);
});

test("a kick leaves the wall last touched at its speeds; no direction reaches the body for exactly its time", () => {
  const kick: Move = {
    id: "kick",
    name: "Kick",
    pattern: "press",
    needs: [{ gate: "wall", coyote: "6f" }],
    priority: 2,
    effect: { kick: 3, up: 12, for: "9f" },
  };
  const lanes: Take["lanes"] = {
    right: [[0, 1]],
    leap: [
      [60, 1],
      [62, 0],
    ],
  };
  const { performed, speed, place } = play(kitWith(STAGE, [kick, hop]), lanes, 90);
  // It ran into the right wall by frame 60, where hop and kick both could be; the kick has priority.
  expect(performed[0]).toEqual(["kick", 60, "direct"]);
  expect(place(59).x).toBeCloseTo(7 - 0.34, 2);
  for (let frame = 60; frame < 69; frame++) {
    expect(speed(frame).x).toBeCloseTo(-3, 3);
    // Without its jump's control it rises by 12 − n · 50/60.
    expect(speed(frame).y).toBeCloseTo(12 - ((frame - 59) * 50) / 60, 3);
  }
  // Then the direction that is still held reaches it.
  expect(speed(69).x).toBeGreaterThan(5.9);
});

test("a slide limits the fall while its gate is open, and only then", () => {
  const stage = { ...STAGE, fall: { ...STAGE.fall, slide: { gate: "wall", most: 2 } } };
  const lanes: Take["lanes"] = {
    ...LEAP_AT_10,
    right: [
      [20, 1],
      [70, 0],
    ],
  };
  const { speed } = play(kitWith(stage, [hop]), lanes, 90);
  // The wall is touched after some frames; the frame after its gate opens the fall is at its limit.
  expect(speed(60).x).toBeCloseTo(0, 3);
  expect(speed(60).y).toBeCloseTo(-2, 3);
  expect(speed(69).y).toBeCloseTo(-2, 3);
  // The direction is let go on frame 70: the body leaves the wall, and its gate closes for frame 71.
  expect(speed(71).y).toBeCloseTo(-2 - 50 / 60, 3);
});

test("a hang leaves a share of its gravity around the top, by the facts of the jump too", () => {
  const stage = { ...STAGE, fall: { ...STAGE.fall, hang: { within: 5, share: 0.5 } } };
  const { speed, place } = play(kitWith(stage, [hop]), LEAP_AT_10, 100);
  const speeds: number[] = [];
  let v = 25;
  for (let n = 0; n < 50; n++) {
    v = Math.max(-20, v - (Math.abs(v) < 5 ? 25 : 50) / 60);
    speeds.push(v);
  }
  for (let n = 0; n < 50; n++) expect(speed(10 + n).y).toBeCloseTo(speeds[n]!, 3);
  const top = Math.max(...Array.from({ length: 60 }, (_, n) => place(10 + n).y)) - 1;
  expect(findJumpFacts(stage, 60, 25, 0).height).toBeCloseTo(top, 3);
  expect(top).toBeGreaterThan(findJumpFacts(STAGE, 60, 25, 0).height + 0.1);
});

test("a stop ends every motion on its frame; gravity goes on from there", () => {
  const stop: Move = { id: "stop", name: "Stop", pattern: "down-press", effect: { stop: true } };
  const { speed } = play(
    kitWith(STAGE, [hop, stop]),
    {
      ...LEAP_AT_10,
      down: [
        [20, 1],
        [21, 0],
      ],
    },
    60,
  );
  expect(speed(19).y).toBeGreaterThan(10);
  expect(speed(20).y).toBeCloseTo(-50 / 60, 3);
  expect(speed(21).y).toBeCloseTo(-100 / 60, 3);
});

test("a slide names a gate of the kit; an unknown one is a fault with its place", () => {
  const stage = { ...STAGE, fall: { ...STAGE.fall, slide: { gate: "wal", most: 2 } } };
  const compiled = compileRules(kitWith(stage, [hop]));
  expect(compiled.ok ? [] : compiled.issues.map(({ path }) => path.join("."))).toContain(
    "stage.fall.slide.gate",
  );
});

test("a thin beam lets the body rise through it, holds it from above, and a drop goes through it", () => {
  // A thin beam five tiles above the floor, across the shaft.
  const level = [...STAGE.level];
  level[level.length - 6] = "#------#";
  const drop: Move = { id: "drop", name: "Drop", pattern: "down-press", effect: { drop: true } };
  const lanes: Take["lanes"] = {
    ...LEAP_AT_10,
    down: [
      [100, 1],
      [101, 0],
      [160, 1],
      [161, 0],
    ],
  };
  const { place, speed, performed } = play(kitWith({ ...STAGE, level }, [hop, drop]), lanes, 200);
  // It rises by 25 − n · 50/60 a second through the beam, whose top is at height 6, as if it were not there.
  for (let n = 0; n < 29; n++) expect(speed(10 + n).y).toBeCloseTo(25 - ((n + 1) * 50) / 60, 3);
  // It comes down on it, and stays.
  expect(place(90).y).toBeCloseTo(6, 3);
  expect(place(99).y).toBeCloseTo(6, 3);
  // The drop begins to fall at once, and ends on the floor, through which nothing drops.
  expect(performed.slice(1)).toEqual([
    ["drop", 100, "direct"],
    ["drop", 160, "direct"],
  ]);
  expect(speed(101).y).toBeCloseTo(-(2 * 50) / 60, 1);
  expect(place(150).y).toBeCloseTo(1, 3);
  expect(place(199).y).toBeCloseTo(1, 3);
});

test("a thin beam is no wall, and its end is an edge", () => {
  const level = ["#      #", "#  @   #", "#---   #", "#      #", "########"];
  const { place } = play(
    kitWith({ ...STAGE, level }, [hop]),
    {
      right: [
        [10, 1],
        [40, 0],
      ],
      left: [
        [60, 1],
        [120, 0],
      ],
    },
    140,
  );
  expect(place(9).y).toBeCloseTo(3, 3);
  // Off the edge at 4 tiles, down to the floor; back at the left wall below the beam.
  expect(place(59).y).toBeCloseTo(1, 3);
  expect(place(139)).toMatchObject({
    x: expect.closeTo(1.34, 2) as number,
    y: expect.closeTo(1, 3) as number,
  });
});

/** A press held from one frame until another. */
const held = (from: number, to: number): [number, number][] => [
  [from, 1],
  [to, 0],
];

describe("an aimed dash", () => {
  const aim: Move = { id: "aim", name: "Aim", pattern: "press", effect: { aim: 12, for: "10f" } };
  const stage = {
    ...STAGE,
    level: [...Array.from({ length: 28 }, () => "#      #"), "#  @   #", "#      #", "########"],
    run: { ...STAGE.run, up: "up", down: "down" },
  };
  const kit = kitWith(stage, [aim]);
  const aimed = { ...kit, controls: [...kit.controls, { id: "up", name: "up", bindings: [] }] };

  test.each<[string, Take["lanes"], number, number]>([
    ["without a direction, the way it faces", {}, 1, 0],
    ["left, pressed on the frame of the dash", { left: held(5, 7) }, -1, 0],
    ["up", { up: held(3, 30) }, 0, 1],
    ["up and right", { up: held(3, 7), right: held(5, 7) }, Math.SQRT1_2, Math.SQRT1_2],
    ["left and right at once, which is no direction", { left: held(4, 7), right: held(4, 7) }, 1, 0],
  ])("%s", (_, lanes, x, y) => {
    const { speed } = play(aimed, { ...lanes, leap: held(5, 8) }, 40);
    for (let frame = 5; frame < 15; frame++) {
      expect(speed(frame).x, String(frame)).toBeCloseTo(12 * x, 2);
      expect(speed(frame).y, String(frame)).toBeCloseTo(12 * y, 2);
    }
    // At its end it falls from rest.
    expect(speed(15).y).toBeCloseTo(-50 / 60, 2);
  });
});

test("a dash that is aimed at no speed hovers for its frames, then falls", () => {
  const hover: Move = { id: "hover", name: "Hover", pattern: "down-press", effect: { aim: 0, for: "6f" } };
  const { speed } = play(kitWith(STAGE, [hop, hover]), { ...LEAP_AT_10, down: held(20, 21) }, 60);
  for (let frame = 20; frame < 26; frame++) expect(speed(frame).y).toBeCloseTo(0, 4);
  expect(speed(26).y).toBeCloseTo(-50 / 60, 3);
});

test("a body that bonks against the edge of a beam is moved aside by the corner's pixels, and no further", () => {
  // The beam over columns 4 to 6 begins at x = 4; the body's right side is at 3.5 + 0.34 + what it walked.
  const level = ["#       #", "#       #", "#   ### #", "#       #", "#       #", "#  @    #", "#########"];
  const top = (corner: number, walk: number) => {
    const stage: RunnerDocument = { ...STAGE, level, fall: { ...STAGE.fall, corner } };
    const step: Move = { id: "step", name: "Step", pattern: "down-press", effect: { step: walk } };
    const kit = kitWith(stage, [hop, step]);
    const { place } = play(kit, { down: held(2, 4), leap: held(30, 40) }, 80);
    const ys = Array.from({ length: 40 }, (_, n) => place(30 + n).y);
    return { high: Math.max(...ys), x: place(79).x };
  };
  // 0.3 tiles further its right side is 0.14 tiles under the beam, which is 4.5 of 32 pixels.
  expect(top(5, 0.3).x).toBeCloseTo(4 - 0.34, 2);
  expect(top(5, 0.3).high).toBeGreaterThan(5);
  expect(top(4, 0.3).high).toBeCloseTo(4 - 0.9, 2);
  expect(top(4, 0.3).x).toBeCloseTo(3.8, 2);
  expect(top(0, 0.3).high).toBeCloseTo(4 - 0.9, 2);
});

test("several effects of one move begin on the same frame, in their order", () => {
  const dive: Move = {
    id: "dive",
    name: "Dive",
    pattern: "down-press",
    effect: [{ stop: true }, { dash: 4, for: "6f" }, { plunge: 10 }],
  };
  const { speed } = play(kitWith(STAGE, [hop, dive]), { ...LEAP_AT_10, down: held(20, 21) }, 60);
  for (let frame = 20; frame < 26; frame++)
    expect([speed(frame).x, speed(frame).y]).toEqual([expect.closeTo(4, 3), expect.closeTo(-10, 3)]);
  const many = { ...dive, effect: Array.from({ length: 5 }, () => ({ stop: true })) };
  const compiled = compileRules(kitWith(STAGE, [hop, many]));
  expect(compiled.ok ? [] : compiled.issues.map(({ path }) => path)).toEqual([["moves", 1, "effect"]]);
});

describe("a moving beam", () => {
  /** It goes from 2 to 4 tiles across and back in 120 frames, one tile above the floor, and two tiles wide. */
  const beam = { x: 2, y: 2, width: 2, across: 2, up: 0, every: "120f" };
  const stage: RunnerDocument = {
    ...STAGE,
    level: [...Array.from({ length: 28 }, () => "#      #"), "#  @   #", "#      #", "########"],
    beams: [beam],
  };

  test("carries the body on it by exactly its own way, and back", () => {
    const { place } = play(kitWith(stage, [hop]), {}, 200);
    // The body begins at the height of the beam, at x = 3.5.
    const shareAt = (frame: number) => 1 - Math.abs((2 * (frame % 120)) / 120 - 1);
    for (let frame = 0; frame < 180; frame++) {
      expect(place(frame).y).toBeCloseTo(2, 4);
      expect(place(frame).x).toBeCloseTo(3.5 + 2 * shareAt(frame), 3);
    }
  });

  test("lets a jump pass from below and land on it; a walk off its end falls, the ground gate closes", () => {
    const still = { ...beam, across: 0, y: 3 };
    const low = { ...stage, level: STAGE.level, beams: [still] };
    const kit = kitWith(low, [
      hop,
      {
        id: "late",
        name: "Late",
        pattern: "down-press",
        needs: [{ gate: "footing", coyote: "6f" }],
        effect: { leap: 10 },
      },
    ]);
    const { place, performed } = play(
      kit,
      { leap: held(20, 30), right: held(100, 200), down: held(113, 115) },
      220,
    );
    expect(Math.max(...Array.from({ length: 60 }, (_, n) => place(20 + n).y))).toBeGreaterThan(4);
    expect(place(95).y).toBeCloseTo(3, 4);
    // It left the end of the beam, at x = 4, some frames before: still within the coyote.
    expect(performed).toContainEqual(["late", 113, "coyote"]);
    expect(place(219).y).toBeCloseTo(1, 3);
  });

  test("lets a jump take its speed along if it throws: across on either way, up only while it rises", () => {
    const run = { ...stage.run, air: { brake: 0 } };
    const playOn = (change: object, at: number) => {
      const beams = [{ ...beam, ...change }];
      const { place } = play(kitWith({ ...stage, run, beams }, [hop]), { leap: held(at, at + 2) }, at + 10);
      const from = place(at - 1);
      const to = place(at + 4);
      return { x: to.x - from.x, y: to.y - from.y };
    };
    // 2 tiles in 60 frames are 2 tiles a second; the frame of the jump and four more move it.
    const still = playOn({}, 20);
    expect(playOn({ throws: true }, 20).x - still.x).toBeCloseTo((2 * 5) / 60, 2);
    expect(playOn({ throws: true }, 80).x - playOn({}, 80).x).toBeCloseTo((-2 * 5) / 60, 2);
    const lift = { across: 0, up: 3 };
    // 3 tiles in 60 frames.
    expect(playOn({ ...lift, throws: true }, 20).y - playOn(lift, 20).y).toBeCloseTo((3 * 5) / 60, 2);
    expect(playOn({ ...lift, throws: true }, 80).y - playOn(lift, 80).y).toBeCloseTo(0, 6);
  });

  test("goes up with the body, stops with the game clock, and is at the place of the state of any frame", () => {
    const lift = { ...beam, across: 0, up: 3, every: "240f" };
    const kit = kitWith({ ...stage, beams: [lift] }, [hop]);
    const compiled = compileRules(kit);
    if (!compiled.ok) throw new Error("the kit must compile");
    const take: Take = {
      format: "moss-tap/take",
      version: 1,
      id: "t",
      name: "T",
      rate: 60,
      frames: 160,
      lanes: {},
      speed: [
        [60, 50],
        [100, 0],
        [120, 100],
      ],
    };
    const columns = readTake(compiled.value.program, take);
    const { track } = runRules(compiled.value, columns);
    const seeker = createSeeker(compiled.value, columns);
    for (const frame of [50, 90, 110, 119, 150]) {
      const state = seeker.stateAt(frame, 1000)!;
      const { y } = placeBeam({ ...lift, frames: 240, thrown: { x: 0, y: 0 } }, clockOf(state));
      expect(track[frame * 2 + 1], String(frame)).toBeCloseTo(y, 3);
    }
    expect(track[110 * 2 + 1]).toBe(track[119 * 2 + 1]);
  });
});
