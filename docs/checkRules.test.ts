import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { compileCheck, indexTrace, parseCheck, type Check, type Kit } from "#core";
import { drawTake, play, sketchKit } from "../core/tests/strips";

const page = readFileSync("docs/check-rules.md", "utf8");
const examples = [...page.matchAll(/```checks\n([\s\S]*?)```/g)].map(found => found[1]!);

/** Parses one drawn example: a part of a kit as JSON, input lines, then checks with their findings. */
function readExample(source: string) {
  const lines = source.trimEnd().split("\n");
  const from = lines.findIndex(line => line.startsWith("in "));
  const kit = JSON.parse(lines.slice(0, from).join("\n")) as Partial<Kit>;
  const strips = lines.flatMap(line => {
    const found = /^in +(\S+) +(\S+)$/.exec(line);
    return found ? [[found[1]!, found[2]!] as const] : [];
  });
  const checks = lines.flatMap(line => {
    const [check, result] = line.split(" → ");
    return result === undefined
      ? []
      : [{ check: JSON.parse(check!) as object, result: JSON.parse(result) as object }];
  });
  return { kit, strips, checks };
}

test("the page has an example of every expectation", () => {
  const names = examples.flatMap(source =>
    readExample(source).checks.map(({ check }) => Object.keys(check)[0]),
  );
  expect([...new Set(names)].sort()).toEqual(["answers", "counts", "happens", "never", "order", "same"]);
});

test.each(examples.map((source, i) => [i + 1, source] as const))(
  "example %i of docs/check-rules.md holds",
  (_i, source) => {
    const { kit, strips, checks } = readExample(source);
    const isGate = (id: string) => kit.gates?.some(gate => gate.id === id) ?? false;
    const pick = (wanted: boolean) => Object.fromEntries(strips.filter(([id]) => isGate(id) === wanted));
    const { program, trace } = play(sketchKit("ab", kit), drawTake(pick(false), pick(true)));
    expect(checks.length).toBeGreaterThan(2);
    for (const { check, result } of checks) {
      const read = parseCheck({ id: "c", name: "C", on: "*", ...check });
      const ready = read.ok ? compileCheck(program, 60, read.value as Check) : read;
      expect(
        ready.ok ? ready.value(indexTrace(program, trace)) : ready.issues,
        JSON.stringify(check),
      ).toEqual(result);
    }
  },
);
