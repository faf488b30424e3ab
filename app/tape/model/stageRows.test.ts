import { expect, test } from "vitest";
import type { Kit } from "#core";
import { evaluateWith, readKitAndTake } from "../../tests/evaluated";
import { buildTape, createTapeBuilder } from "./buildTape";

const { kit: DUEL, take } = readKitAndTake("demo/clapper-duel", "1-clean-bout");

/** The duel without presses, with a script of its own. */
const bout = (stage: object): Kit => ({ ...DUEL, stage: { ...(DUEL.stage as object), ...stage } });
const idle = { ...take, lanes: {}, frames: 200 };

function stageRows(kit: Kit, played = idle) {
  const { rules, trace, track } = evaluateWith(kit, played);
  const { rows } = buildTape(rules, trace, played, track);
  const spansOf = (id: string) => {
    const row = rows.find(({ group, id: own }) => group === "stage" && own === id)!;
    return row.spanFrom.map((from, k) => [row.spanLook[k], row.spanText[k], from, row.spanTo[k]]);
  };
  return { rows, spansOf };
}

test("the opponent's strike has a row with its parts: it lands on its first active frame", () => {
  const script = {
    script: [
      { at: "20f", does: "strike" },
      { at: "120f", does: "guard", for: "30f" },
    ],
    every: "600f",
    strike: { startup: "24f", active: "4f", recovery: "30f" },
    hitStop: "0f",
  };
  const { spansOf } = stageRows(bout(script));
  expect(spansOf("opponent")).toEqual([
    ["startup", "", 20, 44],
    ["active", "", 44, 45],
    ["recovery", "", 45, 74],
    ["named", "guards", 120, 150],
  ]);
  expect(spansOf("parry")).toEqual([]);
});

test("a parry is open for its frames, and a strike that meets it leaves the opponent stunned", () => {
  const script = {
    script: [{ at: "20f", does: "strike" }],
    every: "600f",
    strike: { startup: "24f", active: "4f", recovery: "30f" },
    stun: "20f",
    hitStop: "0f",
  };
  const kit: Kit = {
    ...bout(script),
    patterns: [{ id: "p", name: "P", kind: "press", control: DUEL.controls[0]!.id }],
    moves: [{ id: "turn", name: "Turn", pattern: "p", effect: { parry: "9f" } }],
    prompts: [],
  };
  const lanes = {
    [DUEL.controls[0]!.id]: [
      [40, 1],
      [42, 0],
    ] as [number, number][],
  };
  const { spansOf } = stageRows(kit, { ...idle, lanes });
  // From the frame on which it is performed.
  expect(spansOf("parry")).toEqual([["open", "", 40, 49]]);
  expect(spansOf("opponent")).toEqual([
    ["startup", "", 20, 44],
    ["active", "", 44, 45],
    ["named", "stunned", 45, 84],
  ]);
});

test("a growing tape gives the same rows, and a stage without such bodies none", () => {
  const { rules, trace, track } = evaluateWith(DUEL, take);
  const builder = createTapeBuilder(rules);
  let live = builder.extend(trace, [], track);
  while (live.frames < trace.frames) live = builder.extend(trace, [], track);
  const whole = buildTape(rules, trace, take, track);
  for (const id of ["opponent", "parry"]) {
    const of = (rows: typeof live.rows) => rows.find(row => row.group === "stage" && row.id === id)!;
    expect(of(live.rows).spanFrom).toEqual(of(whole.rows).spanFrom);
    expect(of(live.rows).spanLook).toEqual(of(whole.rows).spanLook);
  }
  const runner = readKitAndTake("demo/belfry-runner", "1-clean-climb");
  const own = evaluateWith(runner.kit, runner.take);
  const { rows } = buildTape(own.rules, own.trace, runner.take, own.track);
  expect(rows.filter(({ group }) => group === "stage")).toEqual([]);
});
