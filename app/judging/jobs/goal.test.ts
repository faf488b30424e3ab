import { expect, test } from "vitest";
import { CHARACTERS, type Check, type GoalCell } from "#core";
import { readKitAndTakes } from "../../tests/evaluated";
import { goalJob } from "./goal";
import type { JobTools } from "./job";

const TOOLS: JobTools = { reportProgress: () => undefined, yieldNow: () => Promise.resolve() };
const NEVER: Record<string, Check> = {
  "a performed move": { id: "c", name: "C", on: "*", never: { kind: "performed", id: "second-hop" } },
  "a lost one": { id: "c", name: "C", on: "*", never: { kind: "lost", id: "hop", why: "gate:footing" } },
};

/** The figures of a cell that depend on its own value alone; which presses are hopeless depends on all values asked. */
const figuresOf = ({ hardest: _hardest, hopeless: _hopeless, ...figures }: GoalCell) => figures;

test.each(Object.entries(NEVER))(
  "on a stage and with a check of %s, cells of shared runs are those of values asked one by one",
  async (_, check) => {
    const { kit, takes } = readKitAndTakes("demo/belfry-runner");
    const hop = kit.moves!.findIndex(({ id }) => id === "hop");
    const goal = {
      kit,
      character: CHARACTERS[1]!,
      seed: 3,
      count: 4,
      never: [0],
      pressShare: 0.9,
      swept: { kind: "length", path: ["moves", hop, "buffer"], unit: "f" } as const,
    };
    const values = [0, 3, 6, 9, 12, 15, 18];
    const { value: cells } = await goalJob({ goal: { ...goal, values }, checks: [check] }, takes, TOOLS);
    const alone = await Promise.all(
      values.map(value => goalJob({ goal: { ...goal, values: [value] }, checks: [check] }, takes, TOOLS)),
    );
    expect(cells.map(figuresOf)).toEqual(alone.flatMap(({ value }) => value.map(figuresOf)));
    expect(new Set(cells.map(({ kept }) => kept)).size).toBeGreaterThan(1);
  },
);
