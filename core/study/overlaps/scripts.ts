import { readAt } from "../../kit/editAt";
import type { Kit, Pattern } from "../../kit/schema";
import { traitsOf } from "../../patterns/recordOf";
import type { LengthOf, Script } from "../../patterns/scripts";
import { parseFrames } from "../../time/duration";

export type { Script, ScriptPress } from "../../patterns/scripts";

const spanOf = (script: Script) => script.reduce((last, { to }) => Math.max(last, to), 0);

/**
 * Returns inputs intended to set off a pattern, made of its own boundaries: the shortest and the longest
 * press it answers, steps as close and as far apart as it allows. Only a run shows whether they do.
 */
export function listScripts(kit: Kit, pattern: Pattern): readonly Script[] {
  const lengthOf: LengthOf = (written, rounding) => parseFrames(written, kit.rate, rounding) ?? 0;
  return traitsOf(pattern.kind).scripts(pattern, kit, lengthOf);
}

/** The longest time that an input is given to settle: a longer gap or delay is not waited for. */
const MAX_SETTLE_SECONDS = 10;

/**
 * Returns how many frames after its last press an input of a kit can still have an effect: the longest gap after which taps are
 * counted, with the longest time by which a move is deferred; ten seconds at most.
 */
export function settleFrames({ rate, patterns, moves = [] }: Kit): number {
  const longest = (written: readonly unknown[]) =>
    written.reduce<number>(
      (most, length) =>
        typeof length === "string" ? Math.max(most, parseFrames(length, rate, "atLeast") ?? 0) : most,
      0,
    );
  const gaps = patterns.map(pattern => readAt(pattern, [traitsOf(pattern.kind).tapGapField ?? ""]));
  const settled = longest(gaps) + longest(moves.map(({ defer }) => defer));
  return Math.min(settled, Math.ceil(MAX_SETTLE_SECONDS * rate));
}

/** Returns a script shifted by a number of frames. */
export function shiftScript(script: Script, by: number): Script {
  return script.map(({ control, from, to }) => ({ control, from: from + by, to: to + by }));
}

/**
 * Merges presses of one control that touch or overlap; undefined if the merge loses a press edge of either.
 */
function unite(a: Script, b: Script): Script {
  const all = [...a, ...b].sort((x, y) =>
    x.control < y.control ? -1 : x.control > y.control ? 1 : x.from - y.from,
  );
  const united: { control: string; from: number; to: number }[] = [];
  for (const press of all) {
    const last = united.at(-1);
    if (last?.control === press.control && press.from <= last.to) last.to = Math.max(last.to, press.to);
    else united.push({ ...press });
  }
  return united;
}

/**
 * Returns every overlay of two scripts in which a press of each falls on one edge; each begins at frame 0.
 */
export function layOver(a: Script, b: Script): Script[] {
  const ways: Script[] = [];
  const seen = new Set<number>();
  for (const one of a)
    for (const two of b) {
      const by = one.from - two.from;
      if (one.control !== two.control || seen.has(by)) continue;
      seen.add(by);
      const united = unite(a, shiftScript(b, by));
      const first = united.reduce((least, { from }) => Math.min(least, from), Infinity);
      ways.push(shiftScript(united, -first));
    }
  return ways;
}

/** Returns a script's frames and edges; smaller scripts are tried first. */
export function sizeOf(script: Script): { readonly frames: number; readonly edges: number } {
  return { frames: spanOf(script), edges: script.length * 2 };
}
