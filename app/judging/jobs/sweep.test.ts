import { expect, test } from "vitest";
import { CHARACTERS, type Check, type Swept } from "#core";
import { readKitAndTakes } from "../../tests/evaluated";
import type { JobTools } from "./job";
import { sweepJob } from "./sweep";

const TOOLS: JobTools = { reportProgress: () => undefined, yieldNow: () => Promise.resolve() };
const CHECKS: readonly Check[] = [
  { id: "c", name: "C", on: "*", never: { kind: "performed", id: "second-hop" } },
  { id: "d", name: "D", on: "*", never: { kind: "lost", id: "hop", why: "gate:footing" }, off: true },
];

test.each<[string, Swept, readonly number[]]>([
  ["a buffer", { kind: "length", path: ["moves", 0, "buffer"], unit: "f" }, [0, 3, 4, 5, 6, 9, 12, 15, 18]],
  ["all coyotes", { kind: "group", group: "coyotes" }, [0, 50, 75, 100, 125, 150, 200, 300]],
])(
  "on a stage, points of shared runs of %s are those of values asked one by one",
  async (_, swept, values) => {
    const { kit, takes } = readKitAndTakes("demo/belfry-runner");
    const sweep = { kit, swept, hands: { character: CHARACTERS[2]!, seed: 3, count: 3 } };
    const ask = async (own: readonly number[], checks = CHECKS) =>
      (await sweepJob({ sweep: { ...sweep, values: own }, checks }, takes, TOOLS)).value;
    const points = await ask(values);
    const alone = await Promise.all(values.map(value => ask([value])));
    expect(points).toEqual(alone.flat());
    expect(new Set(points.map(({ lostPresses }) => lostPresses)).size).toBeGreaterThan(1);
    // A check of losses, once it is on, is judged by runs of its own.
    const all = CHECKS.map(({ off: _off, ...check }): Check => check);
    const judged = await ask(values, all);
    expect(judged).toEqual((await Promise.all(values.map(value => ask([value], all)))).flat());
  },
);
