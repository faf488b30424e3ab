import { evaluateEasing, type Easing } from "../curve/easing";
import { TICKS } from "../time/clock";

/** How an attempt grows with its age: what meters and the wedge on the tape show. Ages in ticks of the pattern's clock. */
export interface Growth {
  readonly isReal: boolean;
  /** The age before which nothing grows, and that at which it is whole. */
  readonly fromTicks: number;
  readonly fullTicks: number;
  readonly easing: Easing | undefined;
  readonly levels: readonly { readonly name: string; readonly atTicks: number }[];
  /** What an empty and a whole charge are worth, in the game's units; undefined for what has no value. */
  readonly output: { readonly low: number; readonly high: number } | undefined;
}

/** How something grows that is whole at one age, in a straight line, without levels or worth. */
export function growthTo(fullTicks: number, isReal: boolean): Growth {
  return { isReal, fromTicks: 0, fullTicks, easing: undefined, levels: [], output: undefined };
}

/** The share of its length an attempt has come to at an age: 0 to 1, 1 where there is no length. */
export function ratioAt(growth: Growth, ageTicks: number): number {
  const span = growth.fullTicks - growth.fromTicks;
  return span <= 0 ? 1 : Math.max(0, Math.min(1, (ageTicks - growth.fromTicks) / span));
}

/** How much has grown at an age, through the curve: 0 to 1 as a rule; a curve may lead beyond. */
export function grownAt(growth: Growth, ageTicks: number): number {
  const ratio = ratioAt(growth, ageTicks);
  return growth.easing ? evaluateEasing(growth.easing, ratio) : ratio;
}

/** How many levels an age has reached. A level exactly at the age counts. */
export function levelAt(growth: Growth, ageTicks: number): number {
  let level = 0;
  for (let k = 0; k < growth.levels.length; k++) if (growth.levels[k]!.atTicks <= ageTicks) level++;
  return level;
}

/** What an attempt is worth at an age, in the game's units; 0 for what has no value. Source: frame rules, section 4, charge. */
export function valueAt(growth: Growth, ageTicks: number): number {
  if (!growth.output) return 0;
  const { low, high } = growth.output;
  return low + (high - low) * grownAt(growth, ageTicks);
}

/** What an attempt is worth at an age, in words: "12f of 60f, second, 7.4". */
export function formatGrown(growth: Growth, ageTicks: number): string {
  const parts = [`${Math.floor(ageTicks / TICKS)}f of ${growth.fullTicks / TICKS}f`];
  const level = growth.levels[levelAt(growth, ageTicks) - 1];
  if (level) parts.push(level.name);
  if (growth.output) parts.push(formatOutput(growth, ageTicks));
  return parts.join(", ");
}

/** The value a charge has at an age, in the game's units, at most two decimals; empty for what has none. */
export function formatOutput(growth: Growth, ageTicks: number): string {
  return growth.output ? String(Number(valueAt(growth, ageTicks).toFixed(2))) : "";
}
