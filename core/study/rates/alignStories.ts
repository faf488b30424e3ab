import type { KeptEvent } from "../../checks/askedEvent";

/** One event of a take's stories at two rates. Times in seconds; NaN where it is absent. */
export interface AlignedEvent {
  readonly kind: "performed" | "prompt";
  readonly id: string;
  readonly what: "same" | "slipped" | "new" | "gone" | "changed";
  readonly was: number;
  readonly is: number;
  /** For a prompt: its outcome before and after. */
  readonly outcomeWas?: string | undefined;
  readonly outcomeIs?: string | undefined;
}

/** Events further apart than this are unrelated, in seconds. */
const APART = 0.5;

interface Timed {
  readonly at: number;
  readonly outcome: string | undefined;
}

/** Pairs two ascending lists in order, maximising the number of pairs and then their closeness. */
function pair(a: readonly Timed[], b: readonly Timed[]): [Timed | undefined, Timed | undefined][] {
  const width = b.length + 1;
  const cost = new Float64Array((a.length + 1) * width);
  for (let i = a.length; i >= 0; i--)
    for (let j = b.length; j >= 0; j--) {
      if (i === a.length && j === b.length) continue;
      const gone = i < a.length ? APART + cost[(i + 1) * width + j]! : Infinity;
      const came = j < b.length ? APART + cost[i * width + j + 1]! : Infinity;
      const apart = i < a.length && j < b.length ? Math.abs(a[i]!.at - b[j]!.at) : Infinity;
      const both = apart <= APART ? apart + cost[(i + 1) * width + j + 1]! : Infinity;
      cost[i * width + j] = Math.min(gone, came, both);
    }
  const pairs: [Timed | undefined, Timed | undefined][] = [];
  for (let i = 0, j = 0; i < a.length || j < b.length;) {
    const here = cost[i * width + j]!;
    const apart = i < a.length && j < b.length ? Math.abs(a[i]!.at - b[j]!.at) : Infinity;
    if (apart <= APART && here === apart + cost[(i + 1) * width + j + 1]!) pairs.push([a[i++], b[j++]]);
    else if (i < a.length && here === APART + cost[(i + 1) * width + j]!) pairs.push([a[i++], undefined]);
    else pairs.push([undefined, b[j++]]);
  }
  return pairs;
}

/**
 * Aligns one take's stories at two rates: events of one rule are paired in order, nearest with nearest, at
 * most half a second apart. An event slipped if its times differ by more than `slipSeconds`, one frame of the
 * slower rate. Ordered by time.
 */
export function alignStories(
  was: readonly KeptEvent[],
  wasRateHz: number,
  is: readonly KeptEvent[],
  isRateHz: number,
  slipSeconds = 1 / Math.min(wasRateHz, isRateHz),
): AlignedEvent[] {
  const lists = new Map<string, { kind: AlignedEvent["kind"]; id: string; a: Timed[]; b: Timed[] }>();
  const gather = (story: readonly KeptEvent[], rateHz: number, side: "a" | "b") => {
    for (const [f, kind, id, outcome] of story) {
      const key = `${kind} ${id}`;
      const own = lists.get(key) ?? { kind, id, a: [], b: [] };
      lists.set(key, own);
      own[side].push({ at: f / rateHz, outcome });
    }
  };
  gather(was, wasRateHz, "a");
  gather(is, isRateHz, "b");
  const aligned = [...lists.values()].flatMap(({ kind, id, a, b }) =>
    pair(a, b).map(([before, after]): AlignedEvent => {
      const times = { kind, id, was: before?.at ?? NaN, is: after?.at ?? NaN };
      const outcomes = { outcomeWas: before?.outcome, outcomeIs: after?.outcome };
      if (!before || !after) return { ...times, ...outcomes, what: before ? "gone" : "new" };
      if (before.outcome !== after.outcome) return { ...times, ...outcomes, what: "changed" };
      // Times are sums of fractions of frames, so smaller differences are rounding errors.
      const isSlipped = Math.abs(after.at - before.at) > slipSeconds + 1e-9;
      return { ...times, ...outcomes, what: isSlipped ? "slipped" : "same" };
    }),
  );
  const at = ({ was, is }: AlignedEvent) => (Number.isNaN(was) ? is : was);
  return aligned.sort((a, b) => at(a) - at(b));
}
