import { expect, test } from "vitest";
import { listChanges, takeBackChange, type Check, type Kit, type Take } from "#core";
import { compileTakeJudge } from "#stage";
import { readKitAndTakes } from "../../tests/evaluated";
import { blameJob } from "./blame";

const { kit: GOOD, takes } = readKitAndTakes("demo/belfry-runner");
const TOOLS = { reportProgress: () => {}, yieldNow: () => Promise.resolve() };

const holdsIn = (take: Take, check: Check) => (kit: Kit) => {
  const judge = compileTakeJudge(kit, [check]);
  return judge.ok && judge.value(take).every(({ ok }) => ok);
};

/** A take in which the check holds by the good rules, and fails by each of these changes alone. */
function takeBrokenByEach(check: Check, changed: readonly Kit[]): Take {
  const found = takes.find(take => {
    const holds = holdsIn(take, check);
    return holds(GOOD) && changed.every(kit => !holds(kit));
  });
  if (!found) throw new Error("no take of the demo is broken by each");
  return found;
}

const editHop = (kit: Kit, change: object): Kit => ({
  ...kit,
  moves: kit.moves!.map(move => (move.id === "hop" ? { ...move, ...change } : move)),
});

const CHECK = {
  id: "hops",
  name: "Every press hops",
  on: "*",
  answers: "leap",
  move: "hop",
  within: "8f",
} as Check;

const blame = async (kit: Kit, past: readonly Kit[], check: Check, take: Take) =>
  (await blameJob({ kit, past, check }, [take], TOOLS)).value;

test("two changes that each break a check are one cause, without a third that does nothing", async () => {
  const strict = {
    ...GOOD,
    patterns: GOOD.patterns.map(p => (p.id === "leap-press" ? { ...p, off: true } : p)),
  };
  const counted = {
    id: "c",
    name: "Hops",
    on: "*",
    counts: { kind: "performed", id: "hop" },
    min: 1,
  } as Check;
  const take = takeBrokenByEach(counted, [strict, editHop(GOOD, { needs: [{ gate: "busy:main" }] })]);
  const first = { ...strict, name: "Renamed" };
  const both = editHop(first, { needs: [{ gate: "busy:main" }] });
  const found = (await blame(both, [first, GOOD], counted, take))!;
  expect(found).toMatchObject({ editsAgo: 2, heldBy: GOOD });
  expect(found.changes.length).toBeGreaterThan(2);
  const [cause, ...others] = found.causes;
  expect(others).toEqual([]);
  const holds = holdsIn(take, counted);
  expect(holds(cause!.reduce(takeBackChange, both))).toBe(true);
  for (const kept of cause!)
    expect(holds(cause!.filter(change => change !== kept).reduce(takeBackChange, both))).toBe(false);
  expect(cause!.map(({ path }) => path[0]).sort()).toEqual(["moves", "patterns"]);
});

test("changes that each mend it alone are causes of their own", async () => {
  // Either the buffer or the coyote of the good rules is enough for some press of the demo.
  for (const take of takes) {
    const bad = editHop(GOOD, { buffer: "0f", needs: [{ gate: "footing", coyote: "0f" }] });
    const holds = holdsIn(take, CHECK);
    const found = await blame(bad, [GOOD], CHECK, take);
    if (!holds(GOOD)) {
      expect(found).toBeUndefined();
      continue;
    }
    const alone = listChanges(GOOD, bad).filter(change => holds(takeBackChange(bad, change)));
    if (alone.length > 0) expect(found!.causes).toEqual(alone.map(change => [change]));
    for (const cause of found!.causes) expect(holds(cause.reduce(takeBackChange, bad))).toBe(true);
  }
});

test("a check that held under no version has no cause", async () => {
  const never = {
    id: "n",
    name: "Never",
    on: "*",
    counts: { kind: "performed", id: "hop" },
    min: 999,
  } as Check;
  expect(await blame(GOOD, [GOOD], never, takes[0]!)).toBeUndefined();
});
