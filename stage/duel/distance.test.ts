import { expect, test } from "vitest";
import { formatTrace, parseKit, readTake, type Kit, type Take } from "#core";
import { createDuel, stepDuel } from "./duel";
import { compileRules, listEffectFigures, runRules, stageKind, type DuelDocument } from "../index";

const STAGE: DuelDocument = {
  kind: "duel",
  script: [],
  every: "1000f",
  strike: { startup: "6f", active: "3f", recovery: "8f" },
  stun: "20f",
  hitStop: "4f",
  gates: { ownHit: "landed", ownBlocked: "guarded", ownMissed: "missed", hit: "struck" },
};
const FRAMES = 120;

/** A jab of 5, 3 and 10 frames at 60 frames per second. */
function kitWith(stage: Partial<DuelDocument>, jab: object = {}): Kit {
  return {
    format: "moss-tap/kit",
    version: 1,
    id: "duel",
    name: "Duel",
    rate: 60,
    controls: [{ id: "a", name: "a", bindings: [] }],
    gates: ["landed", "guarded", "missed", "struck"].map(id => ({ id, name: id })),
    patterns: [{ id: "press", name: "press", kind: "press", control: "a" }],
    moves: [
      {
        id: "jab",
        name: "Jab",
        pattern: "press",
        frames: { startup: "5f", active: "3f", recovery: "10f" },
        effect: { strike: 5, ...jab },
      },
    ],
    stage: { ...STAGE, ...stage },
  };
}

/** Presses the jab on frames, and another control on others; returns the distance on each frame, and the frames on which a gate opens. */
function play(
  kit: Kit,
  presses: readonly number[],
  speed?: readonly [number, number][],
  others: readonly number[] = [],
) {
  const compiled = compileRules(kit);
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.issues));
  const [a, b] = [presses, others].map(frames =>
    frames.flatMap((frame): [number, number][] => [
      [frame, 1],
      [frame + 1, 0],
    ]),
  );
  const lanes = others.length > 0 ? { a: a!, b: b! } : { a: a! };
  const take: Take = {
    ...{ format: "moss-tap/take", version: 1, id: "t", name: "T", rate: 60, frames: FRAMES, lanes },
    ...(speed ? { speed: speed.map(([frame, percent]): [number, number] => [frame, percent]) } : {}),
  };
  const { program } = compiled.value;
  const { trace, track } = runRules(compiled.value, readTake(program, take));
  const { events } = formatTrace(program, trace);
  return {
    apart: (frame: number) => track[frame * stageKind("duel").trackStride + 7]!,
    opened: (id: string) =>
      events.flatMap(event => (event.kind === "gate" && event.id === id && event.open ? [event.f] : [])),
  };
}

test("a hit pushes evenly over its stun, after the hit stop; then the opponent comes back and stays there", () => {
  const { apart } = play(kitWith({ push: 2, back: 4 }), [10]);
  // It lands on frame 14, and the game stops for 15 to 18. The stun of 20 frames moves 2 tiles, 0.1 on each.
  expect(apart(18)).toBe(1);
  expect(apart(19)).toBeCloseTo(1.1);
  expect(apart(28)).toBeCloseTo(2);
  expect(apart(38)).toBeCloseTo(3);
  // 2 tiles at 4 tiles a second are 30 frames.
  expect(apart(67)).toBeGreaterThan(1);
  expect(apart(68)).toBeCloseTo(1);
  expect(apart(FRAMES - 1)).toBe(1);
});

test("a blow lands at its reach exactly, and misses one frame of push later", () => {
  const kit = kitWith({ push: 2 }, { reach: 2.5 });
  // Pressed on 29 it lands on 33, at 1 + 15 × 0.1 tiles; on 34 they are 2.6 tiles apart, and it finds nobody.
  expect(play(kit, [10, 29]).opened("landed")).toEqual([15, 34]);
  expect(play(kit, [10, 30]).opened("landed")).toEqual([15]);
  // Active on 34, 35 and 36.
  expect(play(kit, [10, 30]).opened("missed")).toEqual([37]);
});

test("a second hit during a push adds what is left of it; a blow that pushes nobody leaves it as it is", () => {
  // Landed on 14 and, 1.5 tiles further, on 33: half a tile is left of the first push, to which 2 are added.
  const { apart } = play(kitWith({ push: 2, back: 0 }), [10, 29]);
  expect(apart(33)).toBeCloseTo(2.5);
  expect(apart(38)).toBeCloseTo(2.5 + 2.5 / 20);
  expect(apart(57)).toBeCloseTo(5);
  expect(apart(FRAMES - 1)).toBeCloseTo(5);
  const kit = kitWith({ push: 2, back: 0 });
  const [jab] = kit.moves!;
  const tap = { ...jab!, id: "tap", pattern: "tap", effect: { strike: 1, push: 0 } };
  const both: Kit = {
    ...kit,
    controls: [...kit.controls, { id: "b", name: "b", bindings: [] }],
    patterns: [...kit.patterns, { id: "tap", name: "tap", kind: "press", control: "b" }],
    moves: [jab!, tap],
  };
  expect(play(both, [10], undefined, [25]).apart(FRAMES - 1)).toBeCloseTo(3);
});

test("a move's own push is in force in place of the stage's; a guarded blow pushes over the guard's stun, or at once", () => {
  expect(play(kitWith({ push: 2 }, { push: 5 }), [10]).apart(38)).toBeCloseTo(6);
  const script = [{ at: "1f", does: "guard" as const, for: "100f" }];
  const slow = play(kitWith({ script, guardPush: 0.5, guardStun: "10f" }), [10]);
  // The game does not stop for a guarded blow.
  expect(slow.apart(15)).toBeCloseTo(1.05);
  expect(slow.apart(24)).toBeCloseTo(1.5);
  // It stays there while the opponent guards.
  expect(slow.apart(60)).toBeCloseTo(1.5);
  expect(play(kitWith({ script, guardPush: 0.5 }), [10]).apart(15)).toBeCloseTo(1.5);
});

test("the opponent's strike reaches as far as written, and pushes too; at half speed everything takes twice as long", () => {
  const script = [{ at: "10f", does: "strike" as const }];
  const within = kitWith({ script, push: 1, apart: 2, strike: { ...STAGE.strike, reach: 2 } });
  // Its startup of 6 frames begins on 10, so it strikes on 16; 20 frames of stun follow 4 of hit stop.
  expect(play(within, []).opened("struck")).toEqual([17]);
  expect(play(within, []).apart(40)).toBeCloseTo(3);
  const outside = kitWith({ script, apart: 2, strike: { ...STAGE.strike, reach: 1.9 } });
  expect(play(outside, []).opened("struck")).toEqual([]);
  const slow = play(kitWith({ push: 2, hitStop: "0f" }), [10], [[0, 50]]);
  const from = slow.opened("landed")[0]!;
  expect(slow.apart(from - 1)).toBe(1);
  expect(slow.apart(from)).toBeCloseTo(1.05);
  expect(slow.apart(from + 39)).toBeCloseTo(3);
});

test("a distance that was changed while it is played is reached at the opponent's speed, further apart or nearer", () => {
  const programOf = (apart: number) => {
    const compiled = compileRules(kitWith({ apart, back: 6 }));
    if (!compiled.ok || compiled.value.stage?.kind !== "duel") throw new Error("the kit must compile");
    return compiled.value.stage;
  };
  const duel = createDuel(programOf(2));
  const after = (apart: number, frames: number) => {
    for (let f = 0; f < frames; f++) stepDuel(programOf(apart), duel, { speedPercent: 100 });
    return duel.apart;
  };
  // 6 tiles a second are 0.1 on a frame.
  expect(after(3, 5)).toBeCloseTo(2.5);
  expect(after(3, 30)).toBe(3);
  expect(after(1, 5)).toBeCloseTo(2.5);
  expect(after(1, 30)).toBe(1);
});

test("a kit with distances reads, its numbers are figures, and one beyond the bounds is refused with its place", () => {
  const kit = kitWith({ apart: 2, back: 3 }, { push: 1.5, reach: 3 });
  expect(parseKit(kit).ok).toBe(true);
  expect(compileRules(kit).ok).toBe(true);
  expect(listEffectFigures(kit.moves![0]).map(({ field, value }) => [field, value])).toEqual([
    ["strike", 5],
    ["reach", 3],
    ["push", 1.5],
  ]);
  const refused = compileRules(kitWith({ apart: 51 }));
  expect(refused.ok).toBe(false);
  if (!refused.ok) expect(refused.issues[0]!.path).toEqual(["stage", "apart"]);
});
