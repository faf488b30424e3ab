import { nowTicks, pressTicks } from "../program/sight";
import { levelAt, ratioAt, valueAt } from "../patterns/growth";
import { traitsOf } from "../patterns/recordOf";
import { TICKS } from "../time/clock";
import type { PatternBase } from "../program/program";
import type { KitProgram } from "../patterns/kinds";
import { FIRED, FORMING, type State, SUSTAINED } from "../program/state";

/** The meter of one pattern on one frame; `ratio` is 0 to 1. */
export interface Meter {
  readonly phase: number;
  readonly ratio: number;
  /** Frames since the attempt began on the pattern's clock, 0 without an attempt. */
  readonly ageFrames: number;
  readonly level: number;
  readonly value: number;
  /**
   * Taps in the current chain, steps of a sequence, presses of a mash or controls of a chord made, and their
   * total. 0 of 0 for other kinds.
   */
  readonly made: number;
  readonly of: number;
}

/**
 * Returns the parts an attempt has made, and their total; a fire has made all. 0 of 0 for kinds without
 * parts.
 */
function countMade(pattern: PatternBase, state: State, phase: number): { made: number; of: number } {
  const { made, total } = traitsOf(pattern.kind);
  if (!made || !total) return { made: 0, of: 0 };
  const of = total(pattern);
  if (phase === FIRED || phase === SUSTAINED) return { made: of, of };
  return { made: phase === FORMING ? Math.max(0, made(pattern, state)) : 0, of };
}

/**
 * Reads a pattern's meter from the state, on any frame. A hold grows to its length, a tap to its longest, a
 * charge to full, a complete chord to the time it is to be held; other attempts show the share they have
 * made.
 */
export function readMeter(program: KitProgram, state: State, i: number): Meter {
  const pattern = program.patterns[i]!;
  const phase = state.phase[i]!;
  const isUnderWay = phase === FORMING || phase === SUSTAINED;
  const control = "control" in pattern ? pattern.control : -1;
  const ageTicks =
    isUnderWay && control >= 0 ? nowTicks(pattern, state) - pressTicks(pattern, state, control) : 0;
  const counted = countMade(pattern, state, phase);
  const idle = { phase, ratio: 0, ageFrames: ageTicks / TICKS, level: 0, value: 0, ...counted };
  if (!isUnderWay) return idle;
  const { growth: growthOf, heldRatio } = traitsOf(pattern.kind);
  const growth = growthOf?.(pattern);
  if (growth) {
    const ratio = ratioAt(growth, ageTicks);
    return { ...idle, ratio, level: levelAt(growth, ageTicks), value: valueAt(growth, ageTicks) };
  }
  if (phase === SUSTAINED) return { ...idle, ratio: 1 };
  const held = heldRatio?.(pattern, state);
  if (held !== undefined) return { ...idle, ratio: held };
  return counted.of > 0 ? { ...idle, ratio: counted.made / counted.of } : idle;
}
