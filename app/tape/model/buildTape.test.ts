import { expect, test } from "vitest";
import { evaluateWith, readKitAndTake } from "../../tests/evaluated";
import { listEvents, listFacts } from "./frameFacts";
import { buildTape } from "./buildTape";

function openDemo(takeName: string) {
  const { kit, take } = readKitAndTake("e2e/belfry", takeName);
  const { rules, trace } = evaluateWith(kit, take);
  return { kit, take, rules, trace, model: buildTape(rules, trace) };
}

test("rows are grouped, and every stretch is within the take", () => {
  const { model } = openDemo("sloppy-climb");
  expect(model.rows.map(row => row.group)).toEqual([
    ...Array<string>(4).fill("controls"),
    "gates",
    ...Array<string>(4).fill("patterns"),
    "moves",
    "moves",
  ]);
  for (const row of model.rows) {
    row.spanFrom.forEach((from, k) => {
      expect(from).toBeLessThan(row.spanTo[k]!);
      expect(row.spanTo[k]!).toBeLessThanOrEqual(model.frames);
      if (k > 0) expect(from).toBeGreaterThanOrEqual(row.spanFrom[k - 1]!);
    });
  }
});

test("a buffered press has a trail to its performance, a lost one to its loss", () => {
  const { model } = openDemo("sloppy-climb");
  const hop = model.rows.find(row => row.id === "hop")!;
  expect(hop.waitTo).toHaveLength(2);
  expect(hop.markFrame).toContain(hop.waitTo[0]!);
  expect(hop.markLook[hop.markFrame.indexOf(hop.waitTo[0]!)]).toBe("lost");
  expect(hop.markLook[hop.markFrame.indexOf(hop.waitTo[1]!)]).toBe("performed");
});

test("a frame lists all of its facts, and the table lists the same events", () => {
  const { rules, trace, model } = openDemo("sloppy-climb");
  const lost = listEvents(rules, trace).find(line => line.words.startsWith("lost"))!;
  expect(lost).toMatchObject({
    name: "Hop",
    words: expect.stringContaining("Footing was not open") as string,
  });
  const facts = listFacts(model, rules, trace, lost.frame);
  expect(facts).toContainEqual({ name: "Hop", fact: lost.words });
});

test("a lane whose control is gone keeps its row, shown as unbound; modes are bands with names", () => {
  const { kit, take } = openDemo("clean-climb");
  const modal = {
    ...kit,
    controls: kit.controls.filter(control => control.id !== "brace"),
    patterns: kit.patterns.filter(pattern => !("control" in pattern) || pattern.control !== "brace"),
    modes: [
      { id: "up", name: "Up" },
      { id: "down", name: "Down" },
    ],
    switches: [{ when: { gate: "footing", turns: "closed" as const }, to: "down" }],
  };
  const { rules, trace } = evaluateWith(modal, take);
  const model = buildTape(rules, trace, take);
  const row = model.rows.find(item => item.name === "brace (unbound)");
  expect(row?.group).toBe("controls");
  expect(row?.spanFrom.length).toBeGreaterThan(2);
  expect(model.modeName).toEqual(["Up", "Down"]);
  expect(model.modeFrame[0]).toBe(0);
});

test("a move that lost its press to another is listed with that one, and has no line of its own", () => {
  const { kit, take } = readKitAndTake("demo/clapper-duel", "1-clean-bout");
  const { rules, trace } = evaluateWith(kit, take);
  const lines = listEvents(rules, trace);
  const blow = lines.find(line => line.name === "Chime" && line.words.startsWith("performed"))!;
  expect(blow.words).toBe("performed; Toll and Peal lost the press to it");
  expect(lines.some(line => line.words.includes("used the press"))).toBe(false);
});

test("a press marked as not meant is named on its control's row", () => {
  const { rules, trace, take } = openDemo("sloppy-climb");
  const [id, lane] = Object.entries(take.lanes).find(([, pairs]) => pairs.length > 2)!;
  const [x] = lane.find(([, value]) => value > 0)!;
  const named = buildTape(rules, trace, { ...take, unmeant: { [id]: [x] } }).rows.find(row => row.id === id)!;
  expect(named.spanText.filter(text => text === "not meant").length).toBe(1);
  expect(named.spanText[0]).toBe("not meant");
});
