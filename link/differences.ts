import { landingFrame } from "#core";
import type { Act } from "./linkedTake";
import type { LinkEvent } from "./messages";

/** A move that the game and the rules performed, or one of them. Frames are of the kit's rate. */
export interface PairedAct {
  readonly id: string;
  /** The frame on which the game performed it; undefined if only the rules did. */
  readonly game: number | undefined;
  /** The frame on which the rules performed it; undefined if only the game did. */
  readonly rules: number | undefined;
}

/** The sum of a comparison: pairs on one frame, pairs apart, and acts of one side alone. */
export interface DifferenceCounts {
  readonly agreed: number;
  readonly apart: number;
  readonly onlyGame: number;
  readonly onlyRules: number;
}

/** Returns how many frames later the game acted; 0 if on the same frame, undefined if only one of them acted. */
export function framesLater({ game, rules }: PairedAct): number | undefined {
  return game === undefined || rules === undefined ? undefined : game - rules;
}

/** Returns the first index of a rising list whose value is at least `value`. */
function firstAtLeast(list: readonly number[], value: number, from: number): number {
  let at = from;
  while (at < list.length && list[at]! < value) at++;
  return at;
}

/**
 * Pairs two rising lists of frames in order: as many pairs as possible, then as near as possible, none more than
 * `limit` apart. Returns for each entry of `game` the index of its partner in `rules`, or −1. Of equal pairings the one
 * with the earliest partners is taken.
 *
 * Only entries of `rules` within the limit of an entry are tried, so that the work grows with the length of the lists.
 */
export function pairFrames(game: readonly number[], rules: readonly number[], limit: number): number[] {
  // A pair is worth more than all distances together.
  const worth = limit * Math.min(game.length, rules.length) + 1;
  const firsts: number[] = [];
  /** For each entry of `game`: the best value that uses so many of `rules`, from its first in reach on. */
  const rows: Float64Array[] = [];
  let [low, high] = [0, 0];
  const bestOf = (i: number, used: number) => {
    if (i < 0) return 0;
    const row = rows[i]!;
    return row[Math.min(used - firsts[i]!, row.length - 1)]!;
  };
  const valueOf = (i: number, j: number) => bestOf(i - 1, j) + worth - Math.abs(game[i]! - rules[j]!);
  for (let i = 0; i < game.length; i++) {
    low = firstAtLeast(rules, game[i]! - limit, low);
    high = firstAtLeast(rules, game[i]! + limit + 1, Math.max(low, high));
    const row = new Float64Array(high - low + 1);
    firsts.push(low);
    rows.push(row);
    row[0] = bestOf(i - 1, low);
    for (let j = low; j < high; j++)
      row[j - low + 1] = Math.max(row[j - low]!, bestOf(i - 1, j + 1), valueOf(i, j));
  }
  const partners = game.map(() => -1);
  let used = rules.length;
  for (let i = game.length - 1; i >= 0; i--) {
    const best = bestOf(i, used);
    used = Math.max(firsts[i]!, Math.min(used, firsts[i]! + rows[i]!.length - 1));
    while (used > firsts[i]! && bestOf(i, used - 1) === best) used--;
    if (bestOf(i - 1, used) === best) continue;
    used--;
    partners[i] = used;
  }
  return partners;
}

/** Compares what a game performs with the rules while it plays. All frames are of the kit's rate. */
export interface Comparison {
  readonly addAct: (id: string, frame: number) => void;
  readonly addRules: (id: string, frame: number) => void;
  /** Returns the pairs that nothing after `frame` can change, in the order of their frames, each once. */
  readonly settle: (frame: number) => PairedAct[];
}

interface Unsettled {
  readonly id: string;
  game: number[];
  rules: number[];
}

const frameOf = ({ game, rules }: PairedAct) => Math.min(game ?? Infinity, rules ?? Infinity);

function pairUp({ id, game, rules }: Unsettled, limit: number): PairedAct[] {
  const partners = pairFrames(game, rules, limit);
  const paired = new Set(partners);
  return [
    ...game.map((frame, i) => ({ id, game: frame, rules: rules[partners[i]!] })),
    ...rules.flatMap((frame, j) => (paired.has(j) ? [] : [{ id, game: undefined, rules: frame }])),
  ];
}

/** Creates an empty comparison. Acts are paired at most half a second apart; each move is settled when it rests so long. */
export function createComparison(kitRateHz: number): Comparison {
  const limit = Math.floor(kitRateHz / 2);
  const unsettled = new Map<string, Unsettled>();
  const of = (id: string) => {
    const known = unsettled.get(id) ?? { id, game: [], rules: [] };
    unsettled.set(id, known);
    return known;
  };
  return {
    addAct: (id, frame) => of(id).game.push(frame),
    addRules: (id, frame) => of(id).rules.push(frame),
    settle(frame) {
      const pairs: PairedAct[] = [];
      for (const [id, move] of unsettled) {
        if (frame - Math.max(move.game.at(-1) ?? 0, move.rules.at(-1) ?? 0) <= limit) continue;
        pairs.push(...pairUp(move, limit));
        unsettled.delete(id);
      }
      return pairs.sort((a, b) => frameOf(a) - frameOf(b));
    },
  };
}

/**
 * Compares the moves that a game performed with those of the rules, move by move. `acts` are in frames of the game, at
 * `rateHz`; pairs are at most half a second apart. Returns pairs and single acts in the order of their frames.
 */
export function compareActs(
  acts: readonly Act[],
  events: readonly LinkEvent[],
  kitRateHz: number,
  rateHz: number,
): PairedAct[] {
  const comparison = createComparison(kitRateHz);
  for (const { f, id } of acts) comparison.addAct(id, landingFrame(f, kitRateHz, rateHz));
  for (const event of events) if (event.kind === "performed") comparison.addRules(event.id, event.f);
  return comparison.settle(Infinity);
}

/** Counts pairs. */
export function countDifferences(pairs: readonly PairedAct[]): DifferenceCounts {
  const later = pairs.map(framesLater);
  return {
    agreed: later.filter(frames => frames === 0).length,
    apart: later.filter(frames => frames !== undefined && frames !== 0).length,
    onlyGame: pairs.filter(({ rules }) => rules === undefined).length,
    onlyRules: pairs.filter(({ game }) => game === undefined).length,
  };
}

/** Returns the differences, the largest first: acts of one side alone, then pairs by their distance. */
export function listDifferences(pairs: readonly PairedAct[]): PairedAct[] {
  const size = (pair: PairedAct) => Math.abs(framesLater(pair) ?? Infinity);
  return pairs.filter(pair => framesLater(pair) !== 0).sort((a, b) => size(b) - size(a) || 0);
}

/** Adds counts to others. */
export function addCounts(a: DifferenceCounts, b: DifferenceCounts): DifferenceCounts {
  return {
    agreed: a.agreed + b.agreed,
    apart: a.apart + b.apart,
    onlyGame: a.onlyGame + b.onlyGame,
    onlyRules: a.onlyRules + b.onlyRules,
  };
}

/** Formats a sum: "12 agreed, 1 apart, 2 only the game, 0 only the rules". */
export function formatCounts({ agreed, apart, onlyGame, onlyRules }: DifferenceCounts): string {
  return `${agreed} agreed, ${apart} apart, ${onlyGame} only the game, ${onlyRules} only the rules`;
}

/** Formats a pair: "the game 2f later than the rules", "only the game". */
export function formatDifference(pair: PairedAct): string {
  const later = framesLater(pair);
  if (later === 0) return "agreed";
  if (later === undefined) return pair.game === undefined ? "only the rules" : "only the game";
  return `the game ${Math.abs(later)}f ${later > 0 ? "later" : "earlier"} than the rules`;
}
