import { nowTicks, pressTicks } from "../run/sight";
import { levelAt, ratioAt, valueAt } from "../patterns/growth";
import { traitsOf } from "../patterns/recordOf";
import { TICKS } from "../time/clock";
import type { PatternProgram, Program } from "../run/program";
import { FIRED, FORMING, type State, SUSTAINED } from "../run/state";

/** What a meter shows of one pattern on one frame; `ratio` is 0 to 1. */
export interface Meter {
  readonly phase: number;
  readonly ratio: number;
  /** Frames since the attempt began on the pattern's clock, 0 when none is under way. */
  readonly ageFrames: number;
  readonly level: number;
  readonly value: number;
  /** Taps in the chain so far, or steps of a sequence made so far; of how many. 0 of 0 for other kinds. */
  readonly made: number;
  readonly of: number;
}

/** How many taps or steps of how many an attempt has made; a fire has made them all. 0 of 0 for kinds without. */
function countMade(pattern: PatternProgram, state: State, phase: number): { made: number; of: number } {
  const { made } = traitsOf(pattern.kind);
  if (!made) return { made: 0, of: 0 };
  const of = "steps" in pattern ? pattern.steps.length : "count" in pattern ? pattern.count : 0;
  if (phase === FIRED || phase === SUSTAINED) return { made: of, of };
  return { made: phase === FORMING ? Math.max(0, made(pattern, state)) : 0, of };
}

/**
 * Reads a pattern's meter from the state: alive on every forming frame, not only at the end.
 * A hold grows to its length, a tap to its longest, a charge to full; kinds without a length show what they have made.
 */
export function readMeter(program: Program, state: State, i: number): Meter {
  const pattern = program.patterns[i]!;
  const phase = state.phase[i]!;
  const isUnderWay = phase === FORMING || phase === SUSTAINED;
  const control = "control" in pattern ? pattern.control : -1;
  const ageTicks =
    isUnderWay && control >= 0 ? nowTicks(pattern, state) - pressTicks(pattern, state, control) : 0;
  const counted = countMade(pattern, state, phase);
  const idle = { phase, ratio: 0, ageFrames: ageTicks / TICKS, level: 0, value: 0, ...counted };
  if (!isUnderWay) return idle;
  const growth = traitsOf(pattern.kind).growth?.(pattern);
  if (growth) {
    const ratio = ratioAt(growth, ageTicks);
    return { ...idle, ratio, level: levelAt(growth, ageTicks), value: valueAt(growth, ageTicks) };
  }
  if (phase === SUSTAINED) return { ...idle, ratio: 1 };
  return counted.of > 0 ? { ...idle, ratio: counted.made / counted.of } : idle;
}
