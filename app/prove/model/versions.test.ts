import { expect, test } from "vitest";
import type { Check } from "#core";
import { compileTakeJudge } from "#stage";
import { sumUp, toVerdicts } from "../../document/proving";
import { readKitAndTakes } from "../../tests/evaluated";
import { readVersion, sumVersion, type VersionAsked } from "./versions";

const { kit, takes } = readKitAndTakes("demo/belfry-runner");
const CHECKS = [
  { id: "answers", name: "Leap is answered", on: "*", answers: "leap", within: "10f" },
  { id: "hops", name: "Hops", on: [takes[0]!.id], counts: { kind: "performed", id: "hop" }, min: 1 },
  { id: "gone", name: "Gone", on: [takes[0]!.id, "nowhere"], never: { kind: "performed", id: "scurry" } },
  { id: "off", name: "Off", on: "*", off: true, answers: "leap" },
] as Check[];
const VARIANT = { id: "v", name: "As it was", kit };

/** Judges a version take by take, as its job does. */
function judge(asked: VersionAsked | undefined) {
  const sound = asked!.checks.filter(check => compileTakeJudge(asked!.kit, [check]).ok);
  const judgeTake = compileTakeJudge(asked!.kit, sound);
  if (!judgeTake.ok) throw new Error("the rules of the version must be sound");
  const placeOf = (check: number) => asked!.checks.indexOf(sound[check]!);
  const proved = asked!.takes.map((take, k) => ({
    take: k,
    verdicts: judgeTake.value(take).map(verdict => ({ ...verdict, check: placeOf(verdict.check) })),
  }));
  return { proved, sum: sumVersion(asked!, proved) };
}

test("a variant with the present rules has the same result as the open kit, without checks that are off", () => {
  const { proved, sum } = judge(readVersion({ variant: "v" }, kit, CHECKS, takes, [VARIANT]));
  const found = new Map(
    proved.map(({ take, verdicts }) => [takes[take]!.id, toVerdicts(CHECKS.slice(0, 3), verdicts)]),
  );
  const { asked, holds, vacuous } = sumUp({ found, faults: new Map() }, kit, CHECKS, takes);
  expect(sum).toEqual({ asked, holds, vacuous, failing: ["Leap is answered", "Gone"], unjudged: 0 });
  expect([asked, holds]).toEqual([3, 1]);
});

test("a check that names something the version lacks is counted, and does not hold", () => {
  const bare = { ...VARIANT, kit: { ...kit, moves: kit.moves!.filter(({ id }) => id !== "hop") } };
  const { sum } = judge(readVersion({ variant: "v" }, kit, CHECKS, takes, [bare]));
  expect(sum).toMatchObject({ asked: 3, unjudged: 1 });
  expect(sum.failing).not.toContain("Hops");
});

test("a take that is too long at another rate leaves its checks unjudged", () => {
  const long = { ...takes[0]!, id: "long", rate: 30, frames: 3_000_000 };
  const asked = readVersion({ rate: 240 }, kit, CHECKS, [takes[0]!, long], []);
  expect(asked).toMatchObject({ words: `${kit.name} at 240`, tooLong: [{ id: "long" }] });
  expect(asked!.checks.map(({ rates }) => rates)).toEqual([[240], [240], [240]]);
  expect(judge(asked).sum).toMatchObject({ asked: 3, unjudged: 1 });
});

test("a version that is not there any more has nothing to judge", () => {
  expect(readVersion({ variant: "v" }, kit, CHECKS, takes, [])).toBeUndefined();
  expect(readVersion({ assist: "a" }, kit, CHECKS, takes, [])).toBeUndefined();
});
