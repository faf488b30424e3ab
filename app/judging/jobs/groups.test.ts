import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { CHARACTERS, STILL, type Kit, type Take } from "#core";
import { goalJob } from "./goal";
import { handsJob } from "./hands";
import type { JobTools } from "./job";
import { sweepJob } from "./sweep";

const read = (name: string) => JSON.parse(readFileSync(`demo/belfry-runner/${name}.json`, "utf8")) as unknown;
const KIT = read("kit") as Kit;
const TAKES = ["1-clean-climb", "2-late-at-every-edge", "3-eaten"].map(name => read(name) as Take);
const TOOLS: JobTools = { reportProgress: () => undefined, yieldNow: () => Promise.resolve() };
const base = { kit: KIT, character: CHARACTERS[2]!, seed: 1, count: 2 };
const sweep = { swept: { kind: "length", path: ["moves", 0, "buffer"], unit: "f" }, values: [2, 6] } as const;

test("a group is studied like its takes alone, and its own hand is fitted to them", async () => {
  const group = { ids: [TAKES[2]!.id, TAKES[0]!.id], isOwnHand: false };
  const own = [TAKES[0]!, TAKES[2]!];
  const hands = { hands: base, checks: [] };
  expect(await handsJob({ ...hands, group }, TAKES, TOOLS)).toEqual(await handsJob(hands, own, TOOLS));
  const { value } = await handsJob({ ...hands, group: { ...group, isOwnHand: true } }, TAKES, TOOLS);
  expect(value.character.name).toBe("Fitted");
  expect([...value.aims!.keys()]).toEqual(own.map(({ id }) => id));
  expect(value.aimed).toBeGreaterThan(5);
  expect(value.plays).toBe(4);
});

test("sweeps and goals of a group are those of its takes, too", async () => {
  const group = { ids: [TAKES[1]!.id], isOwnHand: false };
  const question = { sweep: { kit: KIT, ...sweep, hands: base }, checks: [] };
  const swept = await sweepJob({ ...question, group }, TAKES, TOOLS);
  expect(swept).toEqual(await sweepJob(question, [TAKES[1]!], TOOLS));
  expect(swept.value.map(({ runs }) => runs)).toEqual([2, 2]);
  const asked = { goal: { ...base, ...sweep, pressShare: 0.5 }, checks: [] };
  const goal = await goalJob({ ...asked, group }, TAKES, TOOLS);
  expect(goal).toEqual(await goalJob(asked, [TAKES[1]!], TOOLS));
  const fitted = { ...group, isOwnHand: true };
  const still = { ...asked, goal: { ...asked.goal, character: STILL } };
  // The character of the question gives way to the one fitted to the takes.
  expect(await goalJob({ ...asked, group: fitted }, TAKES, TOOLS)).toEqual(
    await goalJob({ ...still, group: fitted }, TAKES, TOOLS),
  );
});
