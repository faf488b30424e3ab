import { evaluateEasing, type Easing } from "../curve/easing";
import { TICKS } from "../time/clock";

/**
 * The growth of an attempt with its age, shown by meters and by the wedge on the tape. Ages are in ticks of
 * the pattern's clock.
 */
export interface Growth {
  readonly isReal: boolean;
  /** The age at which growth starts, and the age at which it is complete. */
  readonly fromTicks: number;
  readonly fullTicks: number;
  readonly easing: Easing | undefined;
  readonly levels: readonly { readonly name: string; readonly atTicks: number }[];
  /**
   * The output of an empty and of a full charge, in the game's units; undefined for an attempt without a
   * value.
   */
  readonly output: { readonly low: number; readonly high: number } | undefined;
}

/** Returns linear growth that completes at one age, without levels or output. */
export function growthTo(fullTicks: number, isReal: boolean): Growth {
  return { isReal, fromTicks: 0, fullTicks, easing: undefined, levels: [], output: undefined };
}

/** Returns the share of its length an attempt has reached at an age: 0 to 1; 1 if it has no length. */
export function ratioAt(growth: Growth, ageTicks: number): number {
  const span = growth.fullTicks - growth.fromTicks;
  return span <= 0 ? 1 : Math.max(0, Math.min(1, (ageTicks - growth.fromTicks) / span));
}

/** Returns the growth at an age through the curve: usually 0 to 1; a curve may exceed that. */
export function grownAt(growth: Growth, ageTicks: number): number {
  const ratio = ratioAt(growth, ageTicks);
  return growth.easing ? evaluateEasing(growth.easing, ratio) : ratio;
}

/** Returns the number of levels reached at an age. A level exactly at the age counts. */
export function levelAt(growth: Growth, ageTicks: number): number {
  let level = 0;
  for (let k = 0; k < growth.levels.length; k++) if (growth.levels[k]!.atTicks <= ageTicks) level++;
  return level;
}

/**
 * Returns the output at an age, in the game's units; 0 for an attempt without a value. Source: frame rules,
 * section 4, charge.
 */
export function valueAt(growth: Growth, ageTicks: number): number {
  if (!growth.output) return 0;
  const { low, high } = growth.output;
  return low + (high - low) * grownAt(growth, ageTicks);
}

/** Formats the growth at an age: "12f of 60f, second, 7.4". */
export function formatGrown(growth: Growth, ageTicks: number): string {
  const parts = [`${Math.floor(ageTicks / TICKS)}f of ${growth.fullTicks / TICKS}f`];
  const level = growth.levels[levelAt(growth, ageTicks) - 1];
  if (level) parts.push(level.name);
  if (growth.output) parts.push(formatOutput(growth, ageTicks));
  return parts.join(", ");
}

/**
 * Formats the output at an age, in the game's units with at most two decimals; empty for an attempt without a
 * value.
 */
export function formatOutput(growth: Growth, ageTicks: number): string {
  return growth.output ? String(Number(valueAt(growth, ageTicks).toFixed(2))) : "";
}
