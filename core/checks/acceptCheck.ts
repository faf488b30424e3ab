import type { Check, KeptEvent } from "./checksSchema";
import type { Verdict } from "./compileCheck";

/** A check as it would be if what was found were wanted, with words for what that changes. */
export interface Acceptance {
  readonly words: string;
  readonly becomes: Check;
}

/**
 * What it would take for a failing check to hold by what was found at the kit's own rate, where one number or the kept
 * story can say so; undefined where it cannot ("this must never happen" is not true because it did). `story`: the
 * present one of the take.
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
