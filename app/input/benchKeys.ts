/** What the bench under the stage does while the pad is awake. */
export type BenchAct = "freeze" | "step" | "slower" | "faster";

/** Keys that work the bench while the pad is awake. They are never the kit's, so that no binding can collide with them. */
export const BENCH_KEYS: Readonly<Record<string, BenchAct>> = {
  "key:F2": "freeze",
  "key:F4": "step",
  "key:F8": "slower",
  "key:F9": "faster",
};

/** The name of the key for an act: "F2". */
export function benchKeyOf(act: BenchAct): string {
  const code = Object.keys(BENCH_KEYS).find(key => BENCH_KEYS[key] === act)!;
  return code.replace("key:", "");
}

/** Speeds of the game one can play at, percent. */
export const SPEEDS: readonly number[] = [5, 10, 25, 50, 75, 100, 150, 200];

/** The next speed below or above one; the same where there is none. */
export function nextSpeed(percent: number, way: 1 | -1): number {
  const beyond = SPEEDS.filter(speed => (speed - percent) * way > 0);
  return (way > 0 ? beyond[0] : beyond.at(-1)) ?? percent;
}
