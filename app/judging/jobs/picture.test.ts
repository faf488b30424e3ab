import { expect, test } from "vitest";
import type { Kit, Take } from "#core";
import { pictureJob } from "./picture";

const KIT: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "k",
  name: "K",
  rate: 60,
  controls: [
    { id: "a", name: "A", bindings: [] },
    { id: "b", name: "B", bindings: [] },
  ],
  patterns: [{ id: "p", name: "P", kind: "press", control: "a" }],
  gates: [{ id: "g", name: "G" }],
  moves: [{ id: "m", name: "M", pattern: "p", needs: [{ gate: "g" }], buffer: "5f" }],
};

const TAKE: Take = {
  format: "moss-tap/take",
  version: 1,
  id: "t",
  name: "T",
  kit: "k",
  rate: 60,
  frames: 100,
  lanes: {
    a: [
      [10, 1],
      [20, 0],
      [60, 1],
    ],
    b: [
      [30, 1],
      [40, 0],
    ],
  },
};

const TOOLS = { reportProgress: () => undefined, yieldNow: () => Promise.resolve() };

test("a picture has a bar for each press, also one held to the end, each fire, and each press lost when it was", async () => {
  const { value } = await pictureJob({ kit: KIT }, [TAKE], TOOLS as never);
  expect(value.bars).toEqual([
    { control: 0, from: 0.1, to: 0.2 },
    { control: 1, from: 0.3, to: 0.4 },
    { control: 0, from: 0.6, to: 1 },
  ]);
  expect(value.stones.map(({ at, isLost }) => `${at} ${isLost ? "lost" : "fired"}`)).toEqual([
    "0.1 fired",
    "0.6 fired",
    "0.15 lost",
    "0.65 lost",
  ]);
});
