import { expect, test } from "vitest";
import { readOutcomes } from "#core";
import { evaluateWith, readKitAndTake } from "../../tests/evaluated";
import { buildTape } from "./buildTape";
import { fateOfNote, fateOfPress, pathOfFate, placeOfWay, rowsOfFate } from "./pressOf";

function open() {
  const { kit, take } = readKitAndTake("demo/belfry-runner", "3-eaten");
  const { rules, program, trace } = evaluateWith(kit, take);
  const model = buildTape(rules, trace, take);
  const fates = readOutcomes(program, trace).presses;
  const lost = fates.find(fate => fate.outcome === "lost");
  if (!lost) throw new Error("the demo's fault is gone");
  return { program, trace, model, fates, lost };
}

test("the path of a lost press leads from its control through the fire to the move that lost it", () => {
  const { program, model, lost } = open();
  const way = pathOfFate(program, model, lost).map(point => [model.rows[point.row]!.name, point.frame]);
  expect(way.map(([name]) => name)).toEqual(["Leap", "Leap press", "Hop", "Hop"]);
  expect(way.slice(0, 3).every(([, frame]) => frame === lost.frame)).toBe(true);
  expect(Number(way[3]![1])).toBeGreaterThan(lost.frame);
});

test("the visible range of a path: all its rows, some frames before and after it", () => {
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

test("the gate it was lost to is among its rows", () => {
  const { program, model, lost } = open();
  expect(rowsOfFate(program, model, lost)).toEqual(
    expect.arrayContaining(["controls:leap", "patterns:leap-press", "moves:hop", "gates:footing"]),
  );
});

test("a press is found by its mark and its held frames, and not elsewhere", () => {
  const { program, trace, model, fates, lost } = open();
  const hop = model.rows.find(row => row.id === "hop" && row.group === "moves")!;
  const mark = hop.markNote[hop.markLook.indexOf("lost")]!;
  expect(fateOfNote(fates, program, trace, mark)?.frame).toBe(lost.frame);
  const leap = model.rows.find(row => row.id === "leap" && row.group === "controls")!;
  expect(fateOfPress(fates, program, leap, lost.frame)?.frame).toBe(lost.frame);
  expect(fateOfPress(fates, program, leap, 0)).toBeUndefined();
});
