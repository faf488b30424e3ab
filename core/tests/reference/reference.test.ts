import fc from "fast-check";
import { expect, test } from "vitest";
import { compile } from "../../kit/compile";
import { evaluate } from "../../run/run";
import { formatTrace } from "../../trace/formatTrace";
import { anyKit, anySharingKit, anyTake } from "../arbitraries";
import { runReference } from "./reference";

const runs = Number(process.env.RUNS ?? 400);
const seed = process.env.SEED === undefined ? undefined : Number(process.env.SEED);

test.each([
  ["any kit", anyKit],
  ["kits whose prompts share presses with taps, sequences and mashes", anySharingKit],
])(
  "the core gives the same events as the rules read word for word, on %s",
  (_name, kits) => {
    const lossesToPrompts: number[] = [];
    fc.assert(
      fc.property(kits, anyTake, (kit, take) => {
        const compiled = compile(kit);
        if (!compiled.ok) return;
        const { events } = formatTrace(compiled.value, evaluate(compiled.value, take));
        lossesToPrompts.push(...events.flatMap(e => (e.kind === "lost" && e.why === "prompt" ? [e.f] : [])));
        expect(events).toEqual(runReference(kit, take));
      }),
      { numRuns: runs, ...(seed === undefined ? {} : { seed }) },
    );
    expect(lossesToPrompts.length).toBeGreaterThan(0);
  },
  60_000 + runs * 100,
);
