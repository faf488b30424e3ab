import { expect, test } from "vitest";
import { readTake, type Kit, type Take } from "#core";
import kitFile from "../../../demo/belfry-runner/kit.json";
import takeFile from "../../../demo/belfry-runner/3-eaten.json";
import { compileStaged, runOnStage } from "../../judging/staged";
import { buildTape } from "./buildTape";
import { fateOfNote, fateOfPress, fatesOf, pathOfFate, placeOfWay, rowsOfFate } from "./pressOf";

const KIT = kitFile as unknown as Kit;
const TAKE = takeFile as unknown as Take;

function open() {
  const compiled = compileStaged(KIT);
  if (!compiled.ok) throw new Error("the demo has faults");
  const program = compiled.value;
  const { trace } = runOnStage(program, readTake(program, TAKE));
  const model = buildTape(KIT, program, trace, TAKE);
  const lost = fatesOf(program, trace).find(fate => fate.outcome === "lost");
  if (!lost) throw new Error("the demo's fault is gone");
  return { program, trace, model, lost };
}

test("the way of a lost press goes from its control over what fired to the move that forgot it", () => {
  const { program, model, lost } = open();
  const way = pathOfFate(program, model, lost).map(point => [model.rows[point.row]!.name, point.frame]);
  expect(way.map(([name]) => name)).toEqual(["Leap", "Leap press", "Hop", "Hop"]);
  expect(way.slice(0, 3).every(([, frame]) => frame === lost.frame)).toBe(true);
  expect(Number(way[3]![1])).toBeGreaterThan(lost.frame);
});

test("what is brought into sight for it: all its rows, some frames before and what came after", () => {
  const { program, model, lost } = open();
  const way = pathOfFate(program, model, lost);
  const place = placeOfWay(way);
  for (const point of way) {
    expect(point.row).toBeGreaterThanOrEqual(place.firstRow);
    expect(point.row).toBeLessThanOrEqual(place.lastRow);
  }
  expect(place.from).toBe(lost.frame - 8);
  expect(place.to).toBe(way.at(-1)!.frame + 24);
  expect(placeOfWay([{ row: 2, frame: 3 }])).toEqual({ from: 0, to: 27, firstRow: 2, lastRow: 2 });
});

test("the gate it was lost to has its row among them", () => {
  const { program, model, lost } = open();
  expect(rowsOfFate(program, model, lost)).toEqual(
    expect.arrayContaining(["controls:leap", "patterns:leap-press", "moves:hop", "gates:footing"]),
  );
});

test("a press is found by its mark, by where it is held, and not where nothing is", () => {
  const { program, trace, model, lost } = open();
  const hop = model.rows.find(row => row.id === "hop" && row.group === "moves")!;
  const mark = hop.markNote[hop.markLook.indexOf("lost")]!;
  expect(fateOfNote(program, trace, mark)?.frame).toBe(lost.frame);
  const leap = model.rows.find(row => row.id === "leap" && row.group === "controls")!;
  expect(fateOfPress(program, trace, leap, lost.frame)?.frame).toBe(lost.frame);
  expect(fateOfPress(program, trace, leap, 0)).toBeUndefined();
});
