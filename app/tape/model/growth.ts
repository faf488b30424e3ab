import { evaluateEasing, TICKS, type Easing, type PatternProgram } from "#core";

/** How an attempt grows with its age: what the wedge on the tape draws. Ages in ticks of the pattern's clock. */
export interface Growth {
  readonly isReal: boolean;
  /** The age before which nothing grows, and that at which it is whole. */
  readonly fromTicks: number;
  readonly fullTicks: number;
  readonly easing: Easing | undefined;
  readonly levels: readonly { readonly name: string; readonly atTicks: number }[];
  /** What a whole and an empty charge are worth, in the game's units; undefined for what has no value. */
  readonly output: { readonly low: number; readonly high: number } | undefined;
}

/** How a pattern's attempts grow; undefined for kinds that have no length to grow to. */
export function growthOf(pattern: PatternProgram): Growth | undefined {
  const plain = { isReal: pattern.isReal, fromTicks: 0, easing: undefined, levels: [], output: undefined };
  switch (pattern.kind) {
    case "hold":
      return { ...plain, fullTicks: pattern.forTicks };
    case "tap":
      return { ...plain, fullTicks: pattern.maxTicks };
    case "charge":
      return {
        isReal: pattern.isReal,
        fromTicks: pattern.fromTicks,
        fullTicks: pattern.fullTicks,
        easing: pattern.easing,
        levels: pattern.levels,
        output: { low: pattern.low, high: pattern.high },
      };
    default:
      return undefined;
  }
}

/** How much has grown at an age: 0 to 1 as a rule; a curve may lead beyond. */
export function grownAt(growth: Growth, ageTicks: number): number {
  const span = growth.fullTicks - growth.fromTicks;
  const ratio = span <= 0 ? 1 : Math.max(0, Math.min(1, (ageTicks - growth.fromTicks) / span));
  return growth.easing ? evaluateEasing(growth.easing, ratio) : ratio;
}

/** What an attempt is worth at an age, in words: "12f, second of 3, 7.4". */
export function formatGrown(growth: Growth, ageTicks: number): string {
  const parts = [`${Math.floor(ageTicks / TICKS)}f of ${growth.fullTicks / TICKS}f`];
  const level = growth.levels.filter(item => item.atTicks <= ageTicks).at(-1);
  if (level) parts.push(level.name);
  if (growth.output) parts.push(formatOutput(growth, ageTicks));
  return parts.join(", ");
}

/** The value a charge has at an age, in the game's units, at most two decimals. */
export function formatOutput(growth: Growth, ageTicks: number): string {
  if (!growth.output) return "";
  const { low, high } = growth.output;
  return String(Number((low + (high - low) * grownAt(growth, ageTicks)).toFixed(2)));
}
