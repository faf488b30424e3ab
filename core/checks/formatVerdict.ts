import { countWords } from "../formats/words";
import type { Verdict } from "./compileCheck";
import { FAILURE_SENTENCES } from "./expectations/kinds";

/** Formats a verdict as words: "it happened 3 frames too late, on frame 87". */
export function formatVerdict(verdict: Verdict): string {
  const { ok, why, slip = 0 } = verdict;
  if (ok && slip !== 0)
    return `it holds, ${countWords(Math.abs(slip), "frame")} ${slip < 0 ? "early" : "late"}`;
  if (ok) return verdict.vacuous ? "it holds, but nothing there could have made it fail" : "it holds";
  if (why === "no-take") return "there is no such take";
  return FAILURE_SENTENCES.get(why ?? "")?.(verdict) ?? "it does not hold";
}
