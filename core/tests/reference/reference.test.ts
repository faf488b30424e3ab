import fc from "fast-check";
import { expect, test } from "vitest";
import { compile } from "../../kit/compile";
import type { Kit } from "../../kit/schema";
import { PATTERN_KIND_NAMES } from "../../patterns/recordOf";
import { evaluate } from "../../run/run";
import type { Take } from "../../input/takeSchema";
import { formatTrace } from "../../trace/formatTrace";
import { FAILURES, LAPSE_REASONS, LOSS_REASONS, PERFORMED_BY } from "../../trace/trace";
import type { TraceEvent } from "../../trace/traceSchema";
import { anyKit, anySharingKit, anyTake } from "../arbitraries";
import { assertUntil } from "../assertUntil";
import { runReference } from "./reference";

const runs = Number(process.env.RUNS ?? 400);
const seed = process.env.SEED === undefined ? undefined : Number(process.env.SEED);

const TIMEOUT_MS = 300_000 + runs * 400;

/** The number of runs from which even the rarest cases must occur. */
const MANY_RUNS = 3000;
const RARE = new Set(["lapsed: broken", "lost: late", "lost: busy", "performed: coyote", "performed: both"]);
/** A press is complete at once. */
const IMPOSSIBLE = new Set(["lapsed: press"]);

/** The cases that random kits must meet: every kind that fires and lapses, every reason, every outcome. */
const CASES = [
  ...PATTERN_KIND_NAMES.flatMap(kind => [`fired: ${kind}`, `lapsed: ${kind}`]),
  ...LAPSE_REASONS.map(why => `lapsed: ${why}`),
  ...LOSS_REASONS.map(why => `lost: ${why}`),
  ...PERFORMED_BY.map(by => `performed: ${by}`),
  ...FAILURES.map(why => `failed: ${why}`),
  ...["shown", "open", "ok", "gold", "failed"].map(outcome => `prompt: ${outcome}`),
  "gate",
  "mode",
].filter(name => !IMPOSSIBLE.has(name) && (runs >= MANY_RUNS || !RARE.has(name)));

/** Yields the cases that a run met. */
function* listCases(kit: Kit, events: readonly TraceEvent[]): Generator<string> {
  const kindOf = new Map(kit.patterns.map(({ id, kind }) => [id, kind]));
  for (const event of events) {
    if (event.kind === "fired") yield `fired: ${kindOf.get(event.id)}`;
    else if (event.kind === "lapsed") yield* [`lapsed: ${kindOf.get(event.id)}`, `lapsed: ${event.why}`];
    else if (event.kind === "lost") yield `lost: ${event.why.replace(/:.*/s, "")}`;
    else if (event.kind === "performed") yield `performed: ${event.by}`;
    else if (event.kind === "prompt") yield* [`prompt: ${event.outcome}`, `failed: ${event.why}`];
    else yield event.kind;
  }
}

test(
  "the core gives the same events as the rules read word for word, on any kit, and every case occurs",
  () => {
    const met = new Set<string>();
    const missing = () => CASES.filter(name => !met.has(name));
    const agrees = (kit: Kit, take: Take) => {
      const compiled = compile(kit);
      if (!compiled.ok) return;
      const { events } = formatTrace(compiled.value, evaluate(compiled.value, take));
      for (const name of listCases(kit, events)) met.add(name);
      expect(events).toEqual(runReference(kit, take));
    };
    const parameters = { numRuns: runs, ...(seed === undefined ? {} : { seed }) };
    fc.assert(fc.property(anySharingKit, anyTake, agrees), parameters);
    assertUntil(fc.property(anyKit, anyTake, agrees), parameters, () => missing().length === 0);
    expect(missing()).toEqual([]);
  },
  TIMEOUT_MS,
);
