import { expect, test } from "vitest";
import { readTake, type Kit, type Take } from "#core";
import { compileRules, findJumpFacts, findLeaps, measureArc, runRules, type RunnerDocument } from "../index";

const FLAT: RunnerDocument = {
  kind: "runner",
  tilePx: 32,
  level: [...Array.from({ length: 5 }, () => " ".repeat(60)), ` @${" ".repeat(58)}`, "#".repeat(40)],
  run: { left: "left", right: "right", speed: 6, accel: 30 },
  fall: { up: 50, down: 70, most: 20 },
  height: { by: "lift", control: "leap", for: "12f" },
  gates: { footing: "footing" },
};

const KIT: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "k",
  name: "K",
  rate: 60,
  controls: ["left", "right", "leap"].map(id => ({ id, name: id, bindings: [] })),
  gates: [{ id: "footing", name: "Footing" }],
  patterns: [
    { id: "step", name: "Step", kind: "press", control: "right" },
    { id: "p", name: "P", kind: "press", control: "leap" },
  ],
  moves: [
    { id: "step", name: "Step", pattern: "step" },
    { id: "hop", name: "Hop", pattern: "p", effect: { leap: 16 } },
  ],
  stage: FLAT,
};

function play(lanes: Take["lanes"], frames: number) {
  const rules = compileRules(KIT);
  if (!rules.ok) throw new Error(JSON.stringify(rules.issues));
  const take: Take = { format: "moss-tap/take", version: 1, id: "t", name: "T", rate: 60, frames, lanes };
  const { trace, track } = runRules(rules.value, readTake(rules.value.program, take));
  const stage = rules.value.stage;
  if (stage?.kind !== "runner") throw new Error("no runner");
  return { trace, track, stage };
}

test("a measured arc has the height, length and distance of the jump facts", () => {
  const right: Take["lanes"] = { right: [[0, 1]] };
  for (const held of [3, 9, 40]) {
    const { trace, track, stage } = play(
      {
        ...right,
        leap: [
          [40, 1],
          [40 + held, 0],
        ],
      },
      160,
    );
    const [leap, ...others] = findLeaps(trace, stage, 159, 5);
    expect([leap?.frame, leap?.move, others]).toEqual([40, 1, []]);
    const arc = measureArc(track, leap!, 159);
    const facts = findJumpFacts(FLAT, 60, 16, held);
    expect(arc.hasLanded).toBe(true);
    expect(arc.heightTiles).toBeCloseTo(facts.height, 4);
    expect(arc.airFrames).toBe(facts.airFrames);
    expect(arc.farTiles).toBeCloseTo(facts.distance, 1);
    const flying = measureArc(track, leap!, arc.topFrame);
    expect([flying.hasLanded, flying.to]).toEqual([false, arc.topFrame]);
  }
});

test("a fall out of the level ends an arc without a landing; leaps are found youngest first, and only those asked for", () => {
  const taps: Take["lanes"] = {
    right: [[0, 1]],
    leap: [20, 80, 140, 200, 260].flatMap(at => [
      [at, 1] as [number, number],
      [at + 4, 0] as [number, number],
    ]),
  };
  const { trace, stage } = play(taps, 600);
  const all = findLeaps(trace, stage, 599, 9);
  expect(all.map(leap => leap.frame)).toEqual([260, 200, 140, 80, 20]);
  expect(findLeaps(trace, stage, 139, 1).map(leap => leap.frame)).toEqual([80]);
  expect(findLeaps(trace, stage, 599, 9, 140).map(leap => leap.frame)).toEqual([260, 200, 140]);
  const edge = play({ right: [[0, 1]], leap: [[370, 1]] }, 700);
  const last = findLeaps(edge.trace, edge.stage, 699, 1)[0];
  expect(last).toBeDefined();
  expect(measureArc(edge.track, last!, 699).hasLanded).toBe(false);
});
