import * as v from "valibot";
import { id, rate } from "../kit/parts";
import { whole } from "../trace/notes/parts";
import type { Check } from "./checksSchema";
import type { Verdict } from "./compileCheck";
import { FAILURE_SENTENCES, type WhyNot } from "./expectations/kinds";

/** The verdict of one check on one take at one rate. */
export interface CheckResult extends Verdict {
  readonly check: string;
  readonly take: string;
  readonly rate: number;
  /** Whether it held in the results it is compared with; null if it is not among them. */
  readonly was?: boolean | null;
}

/** How results differ from earlier ones: the number of each kind of change. Source: check rules, "Command line". */
const changesSchema = v.strictObject({
  newlyBroken: whole,
  newlyHeld: whole,
  stillBroken: whole,
  gone: whole,
});
export type ResultChanges = v.InferOutput<typeof changesSchema>;

/** Returns the key of a result among those of other runs. */
const keyOf = ({ check, take, rate }: Pick<CheckResult, "check" | "take" | "rate">) =>
  JSON.stringify([check, take, rate]);

/** Returns results marked with how each was before, and the number of each kind of change. */
export function compareResults(
  results: readonly CheckResult[],
  before: readonly Pick<CheckResult, "check" | "take" | "rate" | "ok">[],
): { readonly results: readonly CheckResult[]; readonly changes: ResultChanges } {
  const known = new Map(before.map(result => [keyOf(result), result.ok]));
  const marked = results.map(result => ({ ...result, was: known.get(keyOf(result)) ?? null }));
  const now = new Set(results.map(keyOf));
  const countOf = (isIt: (result: CheckResult) => boolean) => marked.filter(isIt).length;
  return {
    results: marked,
    changes: {
      newlyBroken: countOf(({ ok, was }) => !ok && was !== false),
      newlyHeld: countOf(({ ok, was }) => ok && was === false),
      stillBroken: countOf(({ ok, was }) => !ok && was === false),
      gone: [...known.keys()].filter(key => !now.has(key)).length,
    },
  };
}

/** The results document. Source: check rules, "Results". */
export const resultsSchema = v.strictObject({
  format: v.literal("moss-tap/results"),
  version: v.literal(1),
  results: v.array(
    v.strictObject({
      check: id,
      take: id,
      rate,
      ok: v.boolean(),
      why: v.exactOptional(v.picklist([...FAILURE_SENTENCES.keys(), "no-take"] as WhyNot[])),
      f: v.exactOptional(whole),
      slip: v.exactOptional(v.pipe(v.number(), v.integer())),
      count: v.exactOptional(whole),
      reached: v.exactOptional(whole),
      vacuous: v.exactOptional(v.literal(true)),
      was: v.exactOptional(v.nullable(v.boolean())),
    }),
  ),
  against: v.exactOptional(changesSchema),
});

/** A list of results as the document a file holds. */
export interface ResultsDocument {
  readonly format: "moss-tap/results";
  readonly version: 1;
  readonly results: readonly CheckResult[];
  /** How they differ from earlier results that they were compared with. */
  readonly against?: ResultChanges;
}

/** Returns the rates a check is judged at, each once: its own or else the kit's, then `more`. */
export function ratesOf(check: Check, kitRateHz: number, more: readonly number[] = []): number[] {
  return [...new Set([...(check.rates ?? [kitRateHz]), ...more])];
}

/** Returns whether a check applies to a take. */
export function appliesTo(check: Check, takeId: string): boolean {
  return !check.off && (check.on === "*" || check.on.includes(takeId));
}

/**
 * Returns results in order: by check as listed, by take as given, by rate. Takes that a check names but that
 * were not given follow, in the order named. `verdictOf` receives the index of a take in `given`, which lists
 * all takes even if others are judged elsewhere.
 */
export function orderResults(
  checks: readonly Check[],
  takeIds: readonly string[],
  kitRateHz: number,
  more: readonly number[],
  verdictOf: (check: number, take: number, rateHz: number) => Verdict,
  given: readonly string[] = takeIds,
): CheckResult[] {
  const known = new Set(given);
  return checks.flatMap((check, c) => {
    if (check.off) return [];
    const rates = ratesOf(check, kitRateHz, more);
    const found = takeIds.flatMap((take, t) =>
      appliesTo(check, take)
        ? rates.map(rate => ({ check: check.id, take, rate, ...verdictOf(c, t, rate) }))
        : [],
    );
    const missing = check.on !== "*" ? check.on.filter(take => !known.has(take)) : [];
    return [
      ...found,
      ...missing.flatMap(take =>
        rates.map(rate => ({ check: check.id, take, rate, ok: false, why: "no-take" as const })),
      ),
    ];
  });
}
