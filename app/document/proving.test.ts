import { beforeEach, expect, test } from "vitest";
import { appliesTo, type Check } from "#core";
import { compileTakeJudge } from "#stage";
import { readKitAndTakes } from "../tests/evaluated";
import { openKit, openTab, until, type TestTab } from "../tests/testWorld";
import { createGridReader, missingTakes } from "../prove/model/cells";
import { holdColour, vacuousWords } from "../ui/checkSum";
import { heldAtPoint, heldIn, pointOf, type HeldAt } from "./proofPoint";

const { kit: KIT, takes: DEMO } = readKitAndTakes("demo/belfry-runner");
/** Enough takes for two workers. */
const TAKES = Array.from({ length: 20 }, (_, k) => {
  const take = DEMO[k % DEMO.length]!;
  return { ...take, id: `take-${k}`, name: `${take.name} ${k}` };
});

const CHECKS = [
  { id: "answers", name: "Leap is answered", on: "*", answers: "leap", within: "10f" },
  {
    id: "hops",
    name: "Hops at two rates",
    on: ["take-0", "take-4"],
    rates: [60, 120],
    counts: { kind: "performed", id: "hop" },
    min: 5,
  },
  {
    id: "gone",
    name: "A take that is not here",
    on: ["take-1", "nowhere"],
    never: { kind: "performed", id: "scurry" },
  },
  { id: "off", name: "Off", on: "*", off: true, answers: "leap" },
] as Check[];

let tab: TestTab;
beforeEach(async () => {
  tab = openTab();
  await openKit(tab, KIT, TAKES);
});

const proof = () => tab.proving.getState();
const settled = () => until(() => !proof().isWorking && proof().isCurrent.size > 0);
const sums = () => `${proof().holds} of ${proof().asked}`;

/** Counts the checks that hold on all of their takes synchronously. */
function countSlowly(): string {
  const { kit, checks, takes } = tab.workbench.getState();
  const sound = checks.filter(check => compileTakeJudge(kit!, [check]).ok);
  const judge = compileTakeJudge(kit!, sound);
  const found = judge.ok ? takes.flatMap(take => judge.value(take)) : [];
  const asked = checks.filter(
    check =>
      !check.off && (missingTakes(check, takes).length > 0 || takes.some(take => appliesTo(check, take.id))),
  );
  const holds = asked.filter(check => {
    const own = found.filter(verdict => sound[verdict.check] === check);
    return (
      own.length > 0 &&
      missingTakes(check, takes).length === 0 &&
      own.every(({ ok }) => ok) &&
      own.some(({ vacuous }) => !vacuous)
    );
  });
  return `${holds.length} of ${asked.length}`;
}

test("every edit is judged on every take: counts equal those computed one by one, including missing takes", async () => {
  tab.workbench.editChecks("checks", () => CHECKS);
  await settled();
  expect(sums()).toBe(countSlowly());
  expect(proof().asked).toBe(3);
  const held = () =>
    TAKES.flatMap(take => [...proof().found.get(take.id)!.values()].flat()).map(({ ok }) => ok);
  const before = held();
  tab.workbench.editKit("a buffer", kit => ({
    ...kit,
    moves: kit.moves!.map(move =>
      move.id === "hop" ? { ...move, buffer: "0f", needs: [{ gate: "footing" }] } : move,
    ),
  }));
  await until(() => proof().isWorking);
  expect(proof().found.size).toBe(20);
  await settled();
  expect(sums()).toBe(countSlowly());
  expect(held()).not.toEqual(before);
  await until(() => tab.workbench.getState().checkTally?.holds === proof().holds);
  tab.workbench.undo();
  await settled();
  await until(() => !proof().isWorking && held().join() === before.join());
});

test("without a worker no result is known, none is counted as failed, and the shelf gets no summary", async () => {
  const bare = openTab(undefined, {
    startWorker() {
      throw new Error("workers are forbidden here");
    },
  });
  await openKit(bare, KIT, TAKES);
  bare.workbench.keepCheckTally({ asked: 8, holds: 8, vacuous: 0 });
  bare.workbench.editChecks("checks", () => CHECKS.slice(0, 1));
  await until(() => bare.proving.getState().trouble !== "");
  const { asked, holds, unknown, isWorking, trouble } = bare.proving.getState();
  expect({ asked, holds, unknown, isWorking, trouble }).toEqual({
    asked: 1,
    holds: 0,
    unknown: TAKES.length,
    isWorking: false,
    trouble: "workers are forbidden here",
  });
  expect(bare.workbench.getState().checkTally).toBeUndefined();
});

test("the summary for the shelf is removed with the last check", async () => {
  tab.workbench.editChecks("checks", () => CHECKS);
  await settled();
  await until(() => (tab.workbench.getState().checkTally?.asked ?? 0) > 0);
  tab.workbench.editChecks("none", () => []);
  expect(tab.workbench.getState().checkTally).toBeUndefined();
  await until(() => !proof().isWorking && proof().asked === 0);
  expect(proof()).toMatchObject({ asked: 0, holds: 0, isWorking: false });
});

test("a check that names a missing id is reported and does not hold; the others are judged", async () => {
  const strange = { ...CHECKS[0]!, id: "strange", answers: "leaps" } as Check;
  tab.workbench.editChecks("checks", () => [...CHECKS, strange]);
  await settled();
  expect([...proof().faults.keys()]).toEqual(["strange"]);
  expect(sums()).toBe(countSlowly());
  expect(proof().asked).toBe(4);
});

test("a check that nothing could have made fail is counted apart, in every sum", async () => {
  const idle: Check = {
    id: "idle",
    name: "No scurry on the first frame",
    on: ["take-0", "take-4"],
    to: "0f",
    never: { kind: "performed", id: "scurry" },
  };
  const hops: Check = {
    id: "hops",
    name: "Hops",
    on: ["take-0"],
    counts: { kind: "performed", id: "hop" },
    min: 1,
  };
  tab.workbench.editChecks("checks", () => [idle, hops]);
  await settled();
  expect(proof()).toMatchObject({ asked: 2, holds: 1, vacuous: 1 });
  expect(sums()).toBe(countSlowly());
  await until(() => tab.workbench.getState().checkTally?.vacuous === 1);
  const grid = createGridReader()(proof(), [idle, hops], TAKES);
  expect(grid.sums).toEqual([
    { asked: 2, holds: 0, vacuous: 2, unknown: 0 },
    { asked: 1, holds: 1, vacuous: 0, unknown: 0 },
  ]);
  expect(grid.rows[0]!.sum).toEqual({ asked: 2, holds: 1, vacuous: 1, unknown: 0 });
  expect(holdColour(proof())).toBe("text-soft");
  expect(vacuousWords(proof())).toBe("1 check could not have failed");
});

test("the grid has a row a take and a sum on both edges that agree", async () => {
  tab.workbench.editChecks("checks", () => CHECKS);
  await settled();
  const read = createGridReader();
  const { rows, sums: down } = read(proof(), CHECKS, TAKES);
  expect(rows.map(row => row.take.id)).toEqual(TAKES.map(take => take.id));
  const add = (list: readonly { holds: number; asked: number }[]) =>
    list.reduce((sum, item) => [sum[0]! + item.holds, sum[1]! + item.asked], [0, 0]);
  const across = add(rows.map(row => row.sum));
  expect(add(down)).toEqual([across[0], across[1]! + 1]);
  expect(rows[3]!.cells.map(cell => cell.look)).toEqual([
    rows[3]!.cells[0]!.look,
    "unasked",
    "unasked",
    "unasked",
  ]);
  tab.workbench.editKit("a name", kit => ({ ...kit, name: "Another name" }));
  await until(() => proof().isWorking);
  await settled();
  expect(read(proof(), CHECKS, TAKES).rows.every((row, k) => row === rows[k])).toBe(true);
});

test("results are compared with those before the last edit, an undo included, and with a stored point", async () => {
  tab.workbench.editChecks("checks", () => CHECKS.slice(0, 3));
  await settled();
  const atFirst = proof().found;
  const stored = JSON.parse(JSON.stringify(pointOf(atFirst, 5))) as ReturnType<typeof pointOf>;
  const readGrid = createGridReader();
  const turnsSince = (heldAt: HeldAt | undefined) => {
    const { checks, takes } = tab.workbench.getState();
    return readGrid(proof(), checks, takes, heldAt).turns;
  };
  const setBuffer = (buffer: string) => () =>
    tab.workbench.editKit("a buffer", kit => ({
      ...kit,
      moves: kit.moves!.map(move =>
        move.id === "hop" ? { ...move, buffer, needs: [{ gate: "footing" }] } : move,
      ),
    }));
  const rounds = [setBuffer("0f"), setBuffer("20f"), () => tab.workbench.undo(), () => tab.workbench.undo()];
  rounds.push(setBuffer("0f"));
  let previous = atFirst;
  for (const edit of rounds) {
    edit();
    await until(() => proof().isWorking);
    await settled();
    const slow = { held: 0, broke: 0 };
    for (const [take, verdicts] of proof().found)
      for (const [check, now] of verdicts) {
        const isOk = now.every(({ ok }) => ok);
        const wasOk = previous
          .get(take)!
          .get(check)!
          .every(({ ok }) => ok);
        if (isOk !== wasOk) slow[isOk ? "held" : "broke"]++;
      }
    expect(turnsSince(heldIn(proof().beforeStep!))).toEqual(slow);
    expect(turnsSince(heldAtPoint(stored))).toEqual(turnsSince(heldIn(atFirst)));
    previous = proof().found;
  }
  expect(turnsSince(heldIn(atFirst)).broke).toBeGreaterThan(0);
});

test("the results of a drag are compared with those before it began, and a new check with nothing", async () => {
  tab.workbench.editChecks("checks", () => CHECKS.slice(0, 2));
  await settled();
  const atFirst = proof().found;
  const step = tab.workbench.beginStep();
  for (const buffer of ["4f", "2f", "0f"]) {
    step.run(
      () =>
        void tab.workbench.editKit("a buffer", kit => ({
          ...kit,
          moves: kit.moves!.map(move => (move.id === "hop" ? { ...move, buffer } : move)),
        })),
    );
    await until(() => proof().isWorking);
    await settled();
    expect(proof().beforeStep).toBe(atFirst);
  }
  step.end();
  tab.workbench.editChecks("another", checks => [...checks, { ...CHECKS[2]!, on: "*" }]);
  await settled();
  const { checks, takes } = tab.workbench.getState();
  await until(() => proof().found.get("take-0")!.size === 3);
  expect(createGridReader()(proof(), checks, takes, heldIn(proof().beforeStep!)).turns).toEqual({
    held: 0,
    broke: 0,
  });
});
