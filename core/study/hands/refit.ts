import { uniformFloat64 } from "pure-rand/distribution/uniformFloat64";
import { xoroshiro128plus } from "pure-rand/generator/xoroshiro128plus";
import { errorFunction, quantileSorted } from "simple-statistics";
import type { Take } from "../../input/takeSchema";
import type { Aims, TakeAims } from "./aims";
import { joinMoments, momentsOf, pooledSpread, type ByGroup } from "./spread";
import type { Share } from "./wilson";

/** Draws of an onset are counted in bins of a quarter of the spread, up to four spreads either way. */
const BINS = 32;
const BINS_PER_SPREAD = 4;
const DRAWS = 1000;

/** The presses of one take and one like by the bin of their draw. */
interface Bins {
  readonly hits: Float64Array;
  readonly n: Float64Array;
}

/** The counts of presses whose aims are known, by like and then by the index of the take. */
export type AimedCounts = Map<string, (Bins | undefined)[]>;

/** Counts one press of a repetition. `onsetMs` is its draw, of a character with this spread. */
export function addAimed(
  counts: AimedCounts,
  like: string,
  take: number,
  onsetMs: number,
  spreadMs: number,
  isHit: boolean,
): void {
  const ofLike = counts.get(like) ?? [];
  counts.set(like, ofLike);
  const bins = (ofLike[take] ??= { hits: new Float64Array(BINS), n: new Float64Array(BINS) });
  const bin = Math.floor(BINS / 2 + (spreadMs > 0 ? (onsetMs / spreadMs) * BINS_PER_SPREAD : 0));
  const within = Math.max(0, Math.min(BINS - 1, bin));
  bins.n[within]!++;
  if (isHit) bins.hits[within]!++;
}

/** Returns the probability that a draw around `meanSpreads`, `spreads` wide, is in each bin; the outer ones are open. */
function binShares(meanSpreads: number, spreads: number): Float64Array {
  const below = (edge: number) =>
    edge <= 0
      ? 0
      : edge >= BINS
        ? 1
        : (1 +
            errorFunction(
              ((edge - BINS / 2) / BINS_PER_SPREAD - meanSpreads) / (Math.SQRT2 * Math.max(spreads, 1e-9)),
            )) /
          2;
  return Float64Array.from({ length: BINS }, (_, bin) => below(bin + 1) - below(bin));
}

/** Returns the share of hits of presses of one like, if their draws fell into the bins with other probabilities. */
function reweighted(bins: readonly Bins[], probabilities: Float64Array): number {
  let [weight, sum] = [0, 0];
  for (let bin = 0; bin < BINS; bin++) {
    let [hits, n] = [0, 0];
    for (const one of bins) {
      hits += one.hits[bin]!;
      n += one.n[bin]!;
    }
    if (n === 0) continue;
    weight += probabilities[bin]!;
    sum += (probabilities[bin]! * hits) / n;
  }
  return weight === 0 ? 0 : sum / weight;
}

const countOf = ({ n }: Bins) => n.reduce((sum, value) => sum + value, 0);

/** Returns the moments of the offsets of a take's like presses. */
const offsetsOf = (aims: TakeAims | undefined): ByGroup =>
  momentsOf(
    [...(aims?.values() ?? [])].flat().flatMap(aim => (aim ? [[aim.like, aim.offsetMs] as const] : [])),
  );

/** A draw of takes with replacement, with the character fitted to them. */
export interface Refit {
  /** The indices of the takes. */
  readonly drawn: readonly number[];
  /** Its spread, and the distance of its mean by like, in spreads of the character that played. */
  readonly spreads: number;
  readonly means: ReadonlyMap<string, number>;
}

/**
 * Draws takes with replacement, 1,000 times from a seed, and fits the character anew to each draw. `spreadMs` is the spread
 * with which the repetitions were played. Undefined below two takes, without spread, or if like presses have none.
 */
export function drawRefits(
  aims: Aims,
  takes: readonly Take[],
  spreadMs: number,
  seed: number,
): readonly Refit[] | undefined {
  const own = takes.map(({ id }) => offsetsOf(aims.get(id)));
  const all = joinMoments(own);
  const spread = pooledSpread(all).deviation;
  if (takes.length < 2 || spreadMs === 0 || spread === 0) return undefined;
  const generator = xoroshiro128plus(seed);
  return Array.from({ length: DRAWS }, (): Refit => {
    const drawn = takes.map(() => Math.floor(uniformFloat64(generator) * takes.length));
    const fitted = joinMoments(drawn.map(t => own[t]!));
    const means = [...fitted].map(([like, { n, sum }]) => {
      const whole = all.get(like)!;
      return [like, (sum / n - whole.sum / whole.n) / spreadMs] as const;
    });
    return { drawn, spreads: pooledSpread(fitted).deviation / spread, means: new Map(means) };
  });
}

/**
 * Returns a share with its 95 % interval over draws of takes, with the character fitted anew to each draw: a few takes leave
 * the figures of their player uncertain, and so the share. Repetitions are not played again: the share of hits at each
 * deviation is weighed by how often the character of the draw deviates so far. `others` are the presses whose aims
 * are not known, by take.
 */
export function shareOverRefits(
  refits: readonly Refit[],
  aimed: AimedCounts,
  others: readonly { readonly hits: number; readonly n: number }[],
): Pick<Share, "low" | "high"> {
  const shares = refits.flatMap(({ drawn, spreads, means }) => {
    let [hits, n] = [0, 0];
    for (const t of drawn) {
      hits += others[t]?.hits ?? 0;
      n += others[t]?.n ?? 0;
    }
    for (const [like, ofLike] of aimed) {
      const bins = drawn.flatMap(t => ofLike[t] ?? []);
      const count = bins.reduce((sum, one) => sum + countOf(one), 0);
      if (count === 0) continue;
      hits += count * reweighted(bins, binShares(means.get(like) ?? 0, spreads));
      n += count;
    }
    return n === 0 ? [] : [hits / n];
  });
  if (shares.length === 0) return { low: 0, high: 1 };
  shares.sort((a, b) => a - b);
  return { low: quantileSorted(shares, 0.025), high: quantileSorted(shares, 0.975) };
}
