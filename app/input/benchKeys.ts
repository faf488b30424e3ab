/** The actions of the bench below the stage while the pad is awake. */
export type BenchAct = "freeze" | "step" | "mark" | "back" | "again" | "wide" | "slower" | "faster";

/**
 * Keys that control the bench while the pad is awake. They cannot be bound in a kit, so there is no conflict.
 */
export const BENCH_KEYS: Readonly<Record<string, BenchAct>> = {
  "key:F2": "freeze",
  "key:F3": "wide",
  "key:F4": "step",
  "key:F6": "mark",
  "key:F7": "back",
  "key:F10": "again",
  "key:F8": "slower",
  "key:F9": "faster",
};

/** Returns the name of the key for an action: "F2". */
export function benchKeyOf(act: BenchAct): string {
  const code = Object.keys(BENCH_KEYS).find(key => BENCH_KEYS[key] === act)!;
  return code.replace("key:", "");
}

/** The speeds of the game, in percent. */
export const SPEEDS: readonly number[] = [5, 10, 25, 50, 75, 100, 150, 200];

/** Returns the next lower or higher speed; the same one at either end. */
export function nextSpeed(percent: number, way: 1 | -1): number {
  const beyond = SPEEDS.filter(speed => (speed - percent) * way > 0);
  return (way > 0 ? beyond[0] : beyond.at(-1)) ?? percent;
}
