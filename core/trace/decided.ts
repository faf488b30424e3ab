import { LOST, TRAIL, type Trace } from "./trace";

/** The notes that follow a time allowed even where it decides nothing: when a request expires, and how long a gate counts on. */
const FOLLOWING: ReadonlySet<number> = new Set([LOST, TRAIL]);

/**
 * Returns the notes of a trace as numbers, without the expiry of requests and the trails of gates: two runs with the same
 * numbers fire, perform and answer the same, on the same frames.
 */
export function listDecided(trace: Trace): readonly number[] {
  const found: number[] = [];
  for (let i = 0; i < trace.count; i++) {
    const kind = trace.kind[i]!;
    if (FOLLOWING.has(kind)) continue;
    found.push(trace.frame[i]!, kind, trace.subject[i]!);
    const end = i + 1 < trace.count ? trace.at[i + 1]! : trace.used;
    for (let k = trace.at[i]!; k < end; k++) found.push(trace.payload[k]!);
  }
  return found;
}

/** Returns whether two runs decided the same; see listDecided. */
export function isSameDecided(a: readonly number[], b: readonly number[]): boolean {
  return a.length === b.length && a.every((value, k) => value === b[k]);
}
