import { expect, test } from "vitest";
import type { Kit } from "../../kit/schema";
import { drawTake, sketchKit } from "../../tests/strips";
import { STILL } from "../hands/character";
import { studyHands } from "../hands/studyHands";
import { prepareBare } from "../prepareRun";
import { writeSwept } from "../sweep/swept";
import { chooseGoal, qualifies, studyGoal, type GoalCell, type GoalQuestion } from "./studyGoal";

const KIT: Kit = sketchKit("a", {
  gates: [{ id: "ground", name: "Ground" }],
  patterns: [{ id: "p", name: "P", kind: "press", control: "a" }],
  moves: [{ id: "hop", name: "Hop", pattern: "p", needs: [{ gate: "ground", coyote: "1f" }], buffer: "2f" }],
});
const BUFFER = { kind: "length", path: ["moves", 0, "buffer"], unit: "f" } as const;
const COYOTE = { kind: "length", path: ["moves", 0, "needs", 0, "coyote"], unit: "f" } as const;

/** Presses 3 and 5 frames before the ground comes; then 7 frames before, and one frame after it was last there. */
const TAKES = [
  drawTake({ a: "..##......##......" }, { ground: ".....##........###" }),
  { ...drawTake({ a: "..##......##......" }, { ground: ".........#......##" }), id: "second" },
];

function finish<T, R>(running: Generator<T, R>): R {
  let step = running.next();
  while (!step.done) step = running.next();
  return step.value;
}

const study = (change: Partial<GoalQuestion> = {}, takes = TAKES) =>
  finish(
    studyGoal(
      {
        kit: KIT,
        character: STILL,
        seed: 1,
        count: 2,
        pressShare: 1,
        swept: BUFFER,
        values: [0, 1, 2, 3, 4, 5, 6, 7, 8],
        ...change,
      },
      takes,
      prepareBare,
    ),
  );

test("a cell counts the plays that keep the share of meant presses, and names the press that is hardest", () => {
  const cells = study();
  // Plays of the first take keep both from 5f on, those of the second from 7f on.
  expect(cells.map(({ meeting }) => meeting)).toEqual([0, 0, 0, 0, 0, 2, 2, 4, 4]);
  expect(cells.map(({ plays, meant }) => [plays, meant])).toEqual(cells.map(() => [4, 8]));
  expect(cells[5]!.hardest).toEqual({ take: "second", control: "a", frame: 2, kept: 0, plays: 2 });
  expect(cells[8]!.hardest).toBeUndefined();
  // With half of the presses, a play needs one of two; the second take has one that coyote time keeps at any buffer.
  expect(study({ pressShare: 0.5 }).map(({ meeting }) => meeting)).toEqual([2, 2, 2, 4, 4, 4, 4, 4, 4]);
});

test("a press that no value saves and its take loses is counted as hopeless, and is not the hardest", () => {
  const lost = drawTake({ a: "..##......##......" }, { ground: ".....##..........." });
  const cells = study({}, [{ ...lost, id: "lost" }]);
  expect(cells.map(({ hopeless }) => hopeless)).toEqual(cells.map(() => 1));
  expect(cells[0]!.hardest).toMatchObject({ frame: 2, kept: 0 });
  expect(cells[8]!.hardest).toBeUndefined();
  // A press that the take uses with its own buffer is not hopeless, though no value tried keeps it.
  const kit: Kit = { ...KIT, moves: [{ ...KIT.moves![0]!, buffer: "3f" }] };
  const none = study({ kit, values: [0, 1] }, [{ ...lost, id: "lost" }]);
  expect(none.map(({ hopeless, hardest }) => [hopeless, hardest?.frame])).toEqual([
    [1, 2],
    [1, 2],
  ]);
});

test("cells equal plain studies of hands with the number written into the kit, also by a wide hand", () => {
  const character = { ...STILL, spreadMs: 60, lengthPercent: 30, doubledPercent: 30 };
  const besides = [{ swept: COYOTE, value: 4 }];
  for (const { value, kept, meant, unwanted } of study({ character, count: 20, besides })) {
    const kit = writeSwept(writeSwept(KIT, BUFFER, value)!, COYOTE, 4)!;
    const plain = finish(studyHands({ kit, character, seed: 1, count: 20 }, TAKES, prepareBare));
    expect([kept, meant, unwanted]).toEqual([plain.kept.hits, plain.kept.n, plain.unwanted]);
  }
});

test("the choice has the fewest unwanted, then the smallest numbers, then comes first", () => {
  const cell = (value: number, meeting: number, unwanted: number): GoalCell => ({
    value,
    plays: 100,
    meeting,
    meant: 0,
    kept: 0,
    unwanted,
    hardest: undefined,
    hopeless: 0,
  });
  const places = [
    { row: 4, cell: cell(6, 94, 0) },
    { row: 5, cell: cell(6, 95, 3) },
    { row: 7, cell: cell(4, 98, 2) },
    { row: 6, cell: cell(5, 99, 2) },
    { row: 9, cell: cell(9, 100, 2) },
  ];
  const sizeOf = ({ row, cell: { value } }: { row: number | undefined; cell: GoalCell }) =>
    value + (row ?? 0);
  expect(places.map(place => qualifies(place.cell, 0.95))).toEqual([false, true, true, true, true]);
  expect(chooseGoal(places, 0.95, sizeOf)).toBe(places[2]);
  expect(chooseGoal(places, 0.99, sizeOf)).toBe(places[3]);
  expect(chooseGoal(places.slice(0, 1), 0.95, sizeOf)).toBeUndefined();
});

test("a value that cannot be written has no plays", () => {
  expect(study({ values: [-1, 5] }).map(({ plays }) => plays)).toEqual([0, 4]);
});
