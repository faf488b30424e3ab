import { nowTicks, pressTicks } from "../run/hands";
import type { Program } from "../run/program";
import { FORMING, type State, SUSTAINED } from "../run/state";
import { chargeLevel, chargeRatio, chargeValue } from "../patterns/charge/step";

/** What a meter shows of one pattern on one frame; `ratio` is 0 to 1. */
export interface Meter {
  readonly phase: number;
  readonly ratio: number;
  /** Frames since the attempt began on the pattern's clock, 0 when none is under way. */
  readonly ageFrames: number;
  readonly level: number;
  readonly value: number;
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
  const meter = { phase, ratio: phase === SUSTAINED ? 1 : 0, ageFrames: ageTicks / 100, level: 0, value: 0 };
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
    default:
      return meter;
  }
}
