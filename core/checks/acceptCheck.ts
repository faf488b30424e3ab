import type { KeptEvent } from "./askedEvent";
import type { Check } from "./checksSchema";
import type { Verdict } from "./compileCheck";
import { expectationOf, expectationRecord } from "./expectations/kinds";

/** A check changed so that what was found in a take passes, with words for the change. */
export interface Acceptance {
  readonly words: string;
  readonly becomes: Check;
}

/**
 * Returns the change that makes a failing check pass on what was found at the kit's own rate; undefined if no
 * number or kept story can express it (a "must never happen" check cannot be relaxed). `story` is the current
 * story of the take.
 */
export function acceptFound(
  check: Check,
  verdict: Verdict,
  story: readonly KeptEvent[],
): Acceptance | undefined {
  if (verdict.ok || verdict.why === "no-take") return undefined;
  const accepted = expectationRecord(expectationOf(check)).accept(check, verdict, story);
  return accepted as Acceptance | undefined;
}
