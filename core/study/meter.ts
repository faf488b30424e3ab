import { nowTicks, pressTicks } from "../run/hands";
import { reachedOf } from "../patterns/reachedOf";
import type { PatternProgram, Program } from "../run/program";
import { FIRED, FORMING, type State, SUSTAINED } from "../run/state";
import { chargeLevel, chargeRatio, chargeValue } from "../patterns/charge/step";

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

/** How many taps or steps of an attempt have been made. A fire has made them all. */
function countMade(pattern: PatternProgram, state: State, phase: number): { made: number; of: number } {
  if (pattern.kind !== "taps" && pattern.kind !== "sequence") return { made: 0, of: 0 };
  const of = pattern.kind === "taps" ? pattern.count : pattern.steps.length;
  if (phase === FIRED || phase === SUSTAINED) return { made: of, of };
  if (phase !== FORMING) return { made: 0, of };
  const made = pattern.kind === "taps" ? state.cells[pattern.base]! : reachedOf(pattern, state);
  return { made: Math.max(0, made), of };
}

/**
 * Reads a pattern's meter from the state: alive on every forming frame, not only at the end.
 * A hold grows to its length, a tap to its longest, a charge to full; kinds without a length show 0 or 1.
 */
export function readMeter(program: Program, state: State, i: number): Meter {
  const pattern = program.patterns[i]!;
  const phase = state.phase[i]!;
  const isUnderWay = phase === FORMING || phase === SUSTAINED;
  const control = "control" in pattern ? pattern.control : -1;
  const ageTicks =
    isUnderWay && control >= 0 ? nowTicks(pattern, state) - pressTicks(pattern, state, control) : 0;
  const counted = countMade(pattern, state, phase);
  const meter = {
    phase,
    ratio: phase === SUSTAINED ? 1 : 0,
    ageFrames: ageTicks / 100,
    level: 0,
    value: 0,
    ...counted,
  };
  if (!isUnderWay) return meter;
  switch (pattern.kind) {
    case "hold":
      return { ...meter, ratio: pattern.forTicks === 0 ? 1 : Math.min(1, ageTicks / pattern.forTicks) };
    case "tap":
      return { ...meter, ratio: pattern.maxTicks === 0 ? 1 : Math.min(1, ageTicks / pattern.maxTicks) };
    case "charge": {
      const ratio = chargeRatio(pattern, ageTicks);
      return { ...meter, ratio, level: chargeLevel(pattern, ageTicks), value: chargeValue(pattern, ratio) };
    }
    case "taps":
    case "sequence":
      return phase === FORMING && meter.of > 0 ? { ...meter, ratio: meter.made / meter.of } : meter;
    default:
      return meter;
  }
}
