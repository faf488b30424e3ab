import { expect, test } from "vitest";
import { compile, type Kit } from "#core";
import { meterOf } from "./paintMeters";

const charge = (full: string, levels: readonly string[]) => {
  const kit: Kit = {
    format: "moss-tap/kit",
    version: 1,
    id: "k",
    name: "K",
    rate: 60,
    controls: [{ id: "a", name: "A", bindings: [] }],
    patterns: [
      {
        id: "c",
        name: "C",
        kind: "charge",
        control: "a",
        from: "10f",
        full,
        fire: "release",
        levels: levels.map((at, k) => ({ name: `${k}`, at })),
      },
    ],
  };
  const compiled = compile(kit);
  if (!compiled.ok) throw new Error("the kit must compile");
  return compiled.value.patterns[0]!;
};

test("a level beyond full lies on the bar, which is that much longer; all fills and ticks are within it", () => {
  const long = charge("30f", ["20f", "50f"]);
  expect(meterOf(long, { ratio: 1, ageFrames: 30 })).toEqual({ filled: 0.5, ticks: [0.25, 1] });
  expect(meterOf(long, { ratio: 1, ageFrames: 90 }).filled).toBe(1);
  expect(meterOf(long, { ratio: 0, ageFrames: 4 }).filled).toBe(0);
  expect(meterOf(charge("30f", ["5f"]), { ratio: 0.5, ageFrames: 20 })).toEqual({ filled: 0.5, ticks: [0] });
});
