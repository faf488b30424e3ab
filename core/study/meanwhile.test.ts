import { expect, test } from "vitest";
import { compile } from "../kit/compile";
import type { Kit } from "../kit/schema";
import { evaluate } from "../run/run";
import { listMeanwhile } from "./meanwhile";

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

test("presses during a timeline are told with what became of them; those before and after are not", () => {
  const compiled = compile(KIT);
  if (!compiled.ok) throw new Error("the kit must compile");
  const presses = [10, 15, 27, 60, 70].flatMap((f): [number, number][] => [
    [f, 1],
    [f + 1, 0],
  ]);
  const trace = evaluate(compiled.value, {
    format: "moss-tap/take",
    version: 1,
    id: "t",
    name: "T",
    rate: 60,
    frames: 75,
    lanes: { a: presses },
  });
  expect(listMeanwhile(compiled.value, trace, 0)).toEqual([
    { at: 5, frame: 15, became: "lost" },
    { at: 17, frame: 27, became: "buffer" },
    { at: 10, frame: 70, became: "waiting" },
  ]);
});

test("a press that one move took is not lost because another gave way", () => {
  const rival = { id: "rival", name: "Rival", pattern: "p", bans: ["busy:main"], buffer: "20f" };
  const compiled = compile({ ...KIT, moves: [...KIT.moves!, { ...rival, priority: -1 }] });
  if (!compiled.ok) throw new Error("the kit must compile");
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
  expect(listMeanwhile(compiled.value, evaluate(compiled.value, take), 0)).toEqual([
    { at: 5, frame: 15, became: "buffer" },
  ]);
});
