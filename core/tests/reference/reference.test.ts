import fc from "fast-check";
import { expect, test } from "vitest";
import { compile } from "../../kit/compile";
import type { Kit } from "../../kit/schema";
import { PATTERN_KIND_NAMES } from "../../patterns/recordOf";
import { evaluate } from "../../run/run";
import type { Take } from "../../input/takeSchema";
import { formatPhasedTrace, formatTrace } from "../../trace/formatTrace";
import { FAILURES, LAPSE_REASONS, LOSS_REASONS, PERFORMED_BY, PHASES } from "../../trace/trace";
import type { PhasedTraceDocument } from "../../trace/traceSchema";
import { anyKit, anySharingKit, anyTake } from "../arbitraries";
import { assertUntil } from "../assertUntil";
import { runReference } from "./reference";

const runs = Number(process.env.RUNS ?? 250);
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
  ...PHASES.map(phase => `phase: ${phase}`),
  ...FAILURES.map(why => `failed: ${why}`),
  ...["shown", "open", "ok", "gold", "silver", "failed"].map(outcome => `prompt: ${outcome}`),
  "gate",
  "gate that lingers",
  "output that is named",
  "drawn",
  "mode",
].filter(name => !IMPOSSIBLE.has(name) && (runs >= MANY_RUNS || !RARE.has(name)));

/** Yields the cases that a run met. */
function* listCases(kit: Kit, events: PhasedTraceDocument["events"]): Generator<string> {
  const kindOf = new Map(kit.patterns.map(({ id, kind }) => [id, kind]));
  for (const event of events) {
    if (event.kind === "fired") yield `fired: ${kindOf.get(event.id)}`;
    else if (event.kind === "lapsed") yield* [`lapsed: ${kindOf.get(event.id)}`, `lapsed: ${event.why}`];
    else if (event.kind === "lost") yield `lost: ${event.why.replace(/:.*/s, "")}`;
    else if (event.kind === "phase") yield `phase: ${event.phase}`;
    else if (event.kind === "performed") yield `performed: ${event.by}`;
    else if (event.kind === "prompt") yield* [`prompt: ${event.outcome}`, `failed: ${event.why}`];
    else yield event.kind;
    if (event.kind === "prompt" && event.asks !== undefined) yield "drawn";
    if (event.kind === "gate" && kit.gates?.find(({ id }) => id === event.id)?.linger)
      yield "gate that lingers";
  }
  if (JSON.stringify(kit).includes('"out:m0"') && kit.moves?.[0]?.linger) yield "output that is named";
}

test(
  "the core gives the same events as the rules read word for word, on any kit, and every case occurs",
  () => {
    const met = new Set<string>();
    const missing = () => CASES.filter(name => !met.has(name));
    const agrees = (kit: Kit, take: Take) => {
      const compiled = compile(kit);
      if (!compiled.ok) return;
      const trace = evaluate(compiled.value, take);
      const { events } = formatPhasedTrace(compiled.value, trace);
      for (const name of listCases(kit, events)) met.add(name);
      expect(events).toEqual(runReference(kit, take));
      const plain = events.filter(({ kind }) => kind !== "phase");
      expect(formatTrace(compiled.value, trace).events).toEqual(plain);
    };
    const parameters = { numRuns: runs, ...(seed === undefined ? {} : { seed }) };
    fc.assert(fc.property(anySharingKit, anyTake, agrees), parameters);
    assertUntil(fc.property(anyKit, anyTake, agrees), parameters, () => missing().length === 0);
    expect(missing()).toEqual([]);
  },
  TIMEOUT_MS,
);
