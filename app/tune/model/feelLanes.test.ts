import { expect, test } from "vitest";
import { nameOf, readOutcomes, readTake, reportMoves, studyRooms, type TakeFeel } from "#core";
import { compileRules, createBranching, runRules } from "#stage";
import { readKitAndTakes } from "../../tests/evaluated";
import { listFeelLanes } from "./feelLanes";

const { kit, takes } = readKitAndTakes("demo/belfry-runner");
const compiled = compileRules(kit);
if (!compiled.ok) throw new Error("the demo must compile");
const rules = compiled.value;
const { program } = rules;

const feels = takes.map((take): TakeFeel => {
  const columns = readTake(program, take);
  const { trace } = runRules(rules, columns);
  const outcomes = readOutcomes(program, trace);
  const study = studyRooms(program, columns, outcomes, createBranching(rules, columns));
  let step = study.next();
  while (!step.done) step = study.next();
  return { take: take.id, counts: outcomes.counts, delays: [], onsets: [], ...step.value };
});
const name = (move: number) => nameOf(kit, "moves", kit.moves![move]!.id);
const lanes = listFeelLanes(reportMoves(program, feels), name);

test("every press that a move used or lost has a stroke or is counted, and moves without any have no lane", () => {
  const uses = feels.flatMap(({ rooms }) => rooms);
  const losses = feels.flatMap(({ misses }) => misses);
  expect(lanes.reduce((sum, { used }) => sum + used, 0)).toBe(uses.length);
  expect(lanes.reduce((sum, { lost }) => sum + lost, 0)).toBe(losses.length);
  for (const { strokes, more, used, lost } of lanes) expect(strokes.length + more).toBe(used + lost);
  expect(lanes.map(lane => lane.name)).toEqual(["Hop", "Second hop", "Spring", "Ring"]);
});

test("a stroke is the room of its press in words and frames, and marks how it was used", () => {
  const [hop] = lanes;
  const [tightest] = hop!.strokes;
  const room = feels.flatMap(({ take, rooms }) => rooms.map(own => ({ ...own, take })));
  const own = room.find(({ take, frame }) => take === tightest!.take && frame === tightest!.frame)!;
  expect([tightest!.from, tightest!.to]).toEqual([-own.early, own.late]);
  expect(tightest).toMatchObject({ look: "saved", isTight: true, isOpenFrom: true, isOpenTo: false });
  expect(tightest!.words).toBe("saved by coyote; 30f or more earlier and 1f later would do");
  const lost = hop!.strokes.find(({ look }) => look === "lost")!;
  expect([lost.from, lost.to]).toEqual([0, 11]);
  expect(lost.words).toMatch(/^lost; 11f later would do/);
});
