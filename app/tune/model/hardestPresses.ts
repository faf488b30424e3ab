import type { PressShare } from "#core";
import type { PlayedHands } from "../../judging/jobs/hands";

const MAX_USED = 10;
const MAX_LOST = 5;

/** A press with the hands that played it. */
export interface PlayedPress {
  readonly press: PressShare;
  readonly by: PlayedHands;
}

/** The presses of a study of hands that are listed, and how many are not. */
export interface HardestPresses {
  /** Presses that the take used: those used in the fewest plays first. */
  readonly used: readonly PlayedPress[];
  /** Presses that the take lost and some plays use: those used in the most plays first, since little would save them. */
  readonly lost: readonly PlayedPress[];
  /** The number of presses that are used neither in the take nor in any play: no spread of hands explains that. */
  readonly hopeless: number;
  /** The number of presses of which the take made no request, and which some plays use by chance. */
  readonly chance: number;
}

/** Returns the hardest presses of the results of one hand, for each group of takes. */
export function listHardest(results: readonly PlayedHands[]): HardestPresses {
  const all = results.flatMap((by): PlayedPress[] => by.presses.map(press => ({ press, by })));
  const shareOf = ({ press }: PlayedPress) => press.kept.share;
  const used = all.filter(({ press }) => press.same !== undefined);
  const unused = all.filter(({ press }) => press.same === undefined);
  const saved = unused.filter(({ press }) => press.kept.hits > 0);
  const lost = saved.filter(({ press }) => press.lostBy.length > 0);
  return {
    used: used.sort((a, b) => shareOf(a) - shareOf(b)).slice(0, MAX_USED),
    lost: lost.sort((a, b) => shareOf(b) - shareOf(a)).slice(0, MAX_LOST),
    hopeless: unused.length - saved.length,
    chance: saved.length - lost.length,
  };
}
