import { uniformFloat64 } from "pure-rand/distribution/uniformFloat64";
import { xoroshiro128plus } from "pure-rand/generator/xoroshiro128plus";
import { quantileSorted } from "simple-statistics";
import { shareOf, type Share } from "./wilson";

/** The counts of one take. */
export interface TakeSum {
  readonly hits: number;
  readonly n: number;
}

const DRAWS = 1000;

/**
 * Returns the share of hits over several takes with its 95 % interval. Over two or more takes the interval is the bootstrap's
 * over takes (1,000 draws with replacement, from `seed`), since takes are what was sampled; for one take it is Wilson's over
 * its `plays`. Takes without anything to count are left out.
 */
export function shareOverTakes(sums: readonly TakeSum[], plays: number, seed: number): Share {
  const counted = sums.filter(({ n }) => n > 0);
  const hits = counted.reduce((sum, take) => sum + take.hits, 0);
  const n = counted.reduce((sum, take) => sum + take.n, 0);
  if (counted.length < 2) {
    const { low, high } = shareOf(n === 0 ? 0 : (hits / n) * plays, n === 0 ? 0 : plays);
    return { hits, n, share: n === 0 ? 0 : hits / n, low, high };
  }
  const generator = xoroshiro128plus(seed);
  const drawn = Array.from({ length: DRAWS }, () => {
    let [ownHits, ownN] = [0, 0];
    for (let k = 0; k < counted.length; k++) {
      const take = counted[Math.floor(uniformFloat64(generator) * counted.length)]!;
      ownHits += take.hits;
      ownN += take.n;
    }
    return ownHits / ownN;
  }).sort((a, b) => a - b);
  return { hits, n, share: hits / n, low: quantileSorted(drawn, 0.025), high: quantileSorted(drawn, 0.975) };
}
