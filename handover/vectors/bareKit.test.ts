import { readdirSync, readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { evaluate, compile, formatTrace, parseTake, type Kit } from "#core";
import { parseRules } from "#stage";
import { createRuns } from "../runs";
import type { Handover } from "../kind";
import { withoutStage, withStageWritten } from "./bareKit";

const FOLDER = "demo/belfry-runner";
const read = (name: string): unknown => JSON.parse(readFileSync(`${FOLDER}/${name}`, "utf8"));

test("a take without its stage gives the same trace, also when gates of the stage linger", () => {
  const demo = read("kit.json") as Kit;
  const takes = readdirSync(FOLDER)
    .filter(name => /^\d/.test(name))
    .flatMap(name => {
      const take = parseTake(read(name));
      return take.ok
        ? [
            take.value,
            {
              ...take.value,
              speed: [
                [30, 50],
                [90, 0],
                [100, 100],
              ] as [number, number][],
            },
          ]
        : [];
    });
  for (const linger of ["0f", "4f", "130ms"]) {
    const rules = parseRules({ ...demo, gates: demo.gates!.map(gate => ({ ...gate, linger })) });
    if (!rules.ok) throw new Error("the kit must read");
    const { kit } = rules.value;
    const runs = createRuns({ kit, takes, layouts: [], checks: [], variants: [] } as unknown as Handover)!;
    const bare = compile(withoutStage(kit));
    if (!bare.ok) throw new Error("the bare kit must compile");
    for (const take of takes) {
      const written = evaluate(bare.value, withStageWritten(kit, take, runs));
      const staged = formatTrace(runs.rules.program, runs.traceOf(take)).events;
      expect(formatTrace(bare.value, written).events).toEqual(staged);
    }
  }
});
