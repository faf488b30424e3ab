import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import type { Kit } from "../core/kit/schema";
import { drawTake, play, sketchKit } from "../core/tests/strips";

const page = readFileSync("docs/frame-rules.md", "utf8");
const examples = [...page.matchAll(/```frames\n([\s\S]*?)```/g)].map(found => found[1]!);

/** Parses one drawn example: a part of a kit as JSON, then input lines and expected lines. */
function readExample(source: string) {
  const lines = source.trimEnd().split("\n");
  const from = lines.findIndex(line => /^(in|out|speed) /.test(line));
  const kit = JSON.parse(lines.slice(0, from).join("\n")) as Partial<Kit>;
  const strips = lines.slice(from).flatMap(line => {
    const found = /^(in|out) +(\S+) +(\S+)$/.exec(line);
    return found ? [{ way: found[1]!, id: found[2]!, strip: found[3]! }] : [];
  });
  const speed = lines.find(line => line.startsWith("speed "))?.slice(6);
  return { kit, strips, speed: speed ? (JSON.parse(speed) as [number, number][]) : undefined };
}

test("the page has drawn examples", () => {
  expect(examples.length).toBeGreaterThanOrEqual(13);
});

test.each(examples.map((source, i) => [i + 1, source] as const))(
  "example %i of docs/frame-rules.md holds",
  (_i, source) => {
    const { kit, strips, speed } = readExample(source);
    const isGate = (id: string) => kit.gates?.some(gate => gate.id === id) ?? false;
    const inputs = strips.filter(line => line.way === "in");
    const pick = (wanted: boolean) =>
      Object.fromEntries(
        inputs.filter(line => isGate(line.id) === wanted).map(line => [line.id, line.strip]),
      );
    const run = play(sketchKit("abc", kit), drawTake(pick(false), pick(true), speed));
    const outputs = strips.filter(line => line.way === "out");
    expect(outputs.length).toBeGreaterThan(0);
    for (const { id, strip } of outputs) {
      const isMove = kit.moves?.some(move => move.id === id) ?? false;
      expect(`${id} ${isMove ? run.move(id) : run.phases(id)}`).toBe(`${id} ${strip}`);
    }
  },
);
