import { expect, test } from "vitest";
import { compile } from "../kit/compile";
import type { Kit } from "../kit/schema";
import { evaluate } from "../run/run";
import type { Take } from "../input/takeSchema";
import { listMeanwhile } from "./meanwhile";
import { readOutcomes } from "./outcomes/readOutcomes";

const KIT: Kit = {
  format: "moss-tap/kit",
  version: 1,
  id: "k",
  name: "K",
  rate: 60,
  controls: [{ id: "a", name: "A", bindings: [] }],
  patterns: [{ id: "p", name: "P", kind: "press", control: "a" }],
  moves: [
    {
      id: "blow",
      name: "Blow",
      pattern: "p",
      bans: ["busy:main"],
      buffer: "5f",
      frames: { startup: "4f", active: "3f", recovery: "13f" },
    },
  ],
};

function meanwhileOf(kit: Kit, take: Take) {
  const compiled = compile(kit);
  if (!compiled.ok) throw new Error("the kit must compile");
  const trace = evaluate(compiled.value, take);
  return listMeanwhile(compiled.value, trace, readOutcomes(compiled.value, trace).requests, 0);
}

test("presses during a timeline are listed with their results; those before and after are not", () => {
  const presses = [10, 15, 27, 60, 70].flatMap((f): [number, number][] => [
    [f, 1],
    [f + 1, 0],
  ]);
  const take: Take = {
    format: "moss-tap/take",
    version: 1,
    id: "t",
    name: "T",
    rate: 60,
    frames: 75,
    lanes: { a: presses },
  };
  expect(meanwhileOf(KIT, take)).toEqual([
    { at: 5, frame: 15, became: "lost" },
    { at: 17, frame: 27, became: "buffer" },
    { at: 10, frame: 70, became: "waiting" },
  ]);
});

test("a press that one move used is not lost because another was replaced", () => {
  const rival = { id: "rival", name: "Rival", pattern: "p", bans: ["busy:main"], buffer: "20f" };
  const kit = { ...KIT, moves: [...KIT.moves!, { ...rival, priority: -1 }] };
  const lanes: Record<string, [number, number][]> = {
    a: [
      [10, 1],
      [11, 0],
      [15, 1],
      [16, 0],
    ],
  };
  const take = {
    format: "moss-tap/take",
    version: 1,
    id: "t",
    name: "T",
    rate: 60,
    frames: 60,
    lanes,
  } as const;
  expect(meanwhileOf(kit, take)).toEqual([{ at: 5, frame: 15, became: "buffer" }]);
});
