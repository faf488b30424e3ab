import fc from "fast-check";
import { expect, test } from "vitest";
import { compile } from "../../kit/compile";
import { evaluate } from "../../run/run";
import { formatTrace } from "../../trace/formatTrace";
import { anyKit, anyTake } from "../arbitraries";
import { runReference } from "./reference";

const runs = Number(process.env.RUNS ?? 400);

test(
  "the core gives what the rules read word for word give, event for event, on any kit and take",
  () => {
    const seed = process.env.SEED === undefined ? undefined : Number(process.env.SEED);
    fc.assert(
      fc.property(anyKit, anyTake, (kit, take) => {
        const compiled = compile(kit);
        if (!compiled.ok) return;
        const { events } = formatTrace(compiled.value, evaluate(compiled.value, take));
        expect(events).toEqual(runReference(kit, take));
      }),
      { numRuns: runs, ...(seed === undefined ? {} : { seed }) },
    );
  },
  60_000 + runs * 100,
);
