import type { Check, KeptEvent } from "./checksSchema";
import type { Verdict } from "./compileCheck";

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
  const { ok, why, f, count } = verdict;
  if (ok) return undefined;
  if ("happens" in check && (why === "early" || why === "late") && f !== undefined)
    return { words: `${f}f instead of ${check.at}`, becomes: { ...check, at: `${f}f` } };
  if ("counts" in check && why === "too-few" && count !== undefined)
    return { words: `${count} times instead of ${check.min} at least`, becomes: { ...check, min: count } };
  if ("counts" in check && why === "too-many" && count !== undefined)
    return { words: `${count} times instead of ${check.max} at most`, becomes: { ...check, max: count } };
  if ("same" in check && why === "differs")
    return {
      words: `the present story of ${story.length} events instead of the kept one of ${check.same.length}`,
      becomes: { ...check, same: [...story] },
    };
  return undefined;
}
