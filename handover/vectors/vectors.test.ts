import { readFileSync } from "node:fs";
import { strFromU8 } from "fflate";
import { expect, test } from "vitest";
import {
  compile,
  evaluate,
  formatPhasedTrace,
  listNumbers,
  parseFrames,
  writeAt,
  type Kit,
  type Take,
} from "#core";
import { createRuns } from "../runs";
import { runtimeFile } from "../runtime/runtimeFiles";
import { makeVectors } from "./vectors";

test.each([
  ["belfry-runner", ["level low at", "priority"]],
  ["clapper-duel", ["priority", "level one at"]],
  ["rope-catch", ["time for all presses"]],
])(
  "the vectors of %s fail for every number changed by one, but for those that the page lists",
  (demo, without) => {
    const kit = JSON.parse(readFileSync(`demo/${demo}/kit.json`, "utf8")) as Kit;
    const handover = { kit, takes: [], checks: [], layouts: [] };
    const rules = runtimeFile("frame-rules.md", readFileSync("docs/frame-rules.md", "utf8"));
    const steps: string[] = [];
    const files = makeVectors(handover, { runtime: [rules] }, createRuns(handover), (done, of, step) =>
      steps.push(`${done} of ${of} ${step}`),
    )!;
    expect(steps[0]).toMatch(/^0 of \d\d numbers$/);
    const text = (name: string) => strFromU8(files[name] as Uint8Array);
    const bare = JSON.parse(text("bare-kit.json")) as Kit;
    const { vectors } = JSON.parse(text("index.json")) as { vectors: { take: string; trace: string }[] };
    const takes = vectors.map(({ take, trace }) => ({
      take: JSON.parse(text(take)) as Take,
      trace: text(trace).trim(),
    }));
    const eventsOf = (of: Kit, take: Take) => {
      const compiled = compile(of);
      return compiled.ok
        ? JSON.stringify(formatPhasedTrace(compiled.value, evaluate(compiled.value, take)))
        : undefined;
    };
    expect(text("frame-rules.md")).toBe(readFileSync("docs/frame-rules.md", "utf8"));
    for (const { take, trace } of takes) expect(eventsOf(bare, take)).toBe(trace);
    const unnoticed = listNumbers(bare).filter(({ path, kind, value, rounding }) =>
      [1, -1].some(by => {
        const frames =
          Number(kind === "length" ? parseFrames(String(value), bare.rate, rounding ?? "atLeast") : value) +
          by;
        const changed = writeAt(bare, path, kind === "length" ? `${frames}f` : frames);
        if (frames < 0 || !compile(changed).ok) return false;
        return takes.every(({ take, trace }) => eventsOf(changed, take) === trace);
      }),
    );
    expect([...new Set(unnoticed.map(({ label }) => label))].sort()).toEqual([...without].sort());
    const page = text("README.md");
    for (const { rule, label } of unnoticed) expect(page).toContain(`${rule}, ${label}`);
  },
);
