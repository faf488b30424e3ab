import type { Fate, Kit, Take } from "#core";
import { isLargeKit } from "../../judging/kitSize";
import type { Judge } from "../../judging/judge";

/** The frames of takes that are run in search of a press, a few milliseconds of work. */
const FRAMES_SEARCHED = 6000;

/** A press that a beginner should look at. */
export interface PressToSee {
  readonly take: Take;
  readonly frame: number;
  /** The name of its control, and what is worth a look: "which was lost". */
  readonly control: string;
  readonly what: string;
}

/** The outcomes of presses worth a look, the best first. */
const WORTH_A_LOOK: readonly { readonly outcome: Fate["outcome"]; readonly what: string }[] = [
  { outcome: "lost", what: "which was lost" },
  { outcome: "lapsed", what: "which completed nothing" },
  { outcome: "fired", what: "which no move or prompt used" },
];

/**
 * Returns the first press of the takes that was lost; without one, the first that had no result. Undefined if every press
 * was used, or if the kit or its takes are too large to be searched at once.
 */
export function findPressToSee(judge: Judge, kit: Kit, takes: readonly Take[]): PressToSee | undefined {
  const frames = takes.reduce((sum, take) => sum + take.frames, 0);
  if (isLargeKit(kit) || frames > FRAMES_SEARCHED) return undefined;
  const rules = judge.rulesOf(kit);
  if (!rules) return undefined;
  const results = takes.map(take => ({
    take,
    presses: judge.outcomesOf(judge.evaluate(rules, take)).presses,
  }));
  for (const { outcome, what } of WORTH_A_LOOK)
    for (const { take, presses } of results) {
      const found = presses.find(press => press.outcome === outcome);
      if (found) return { take, frame: found.frame, control: rules.kit.controls[found.control]!.name, what };
    }
  return undefined;
}
