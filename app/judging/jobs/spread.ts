import { studyHands, type HandsQuestion, type Share } from "#core";
import { prepareStudied } from "#stage";
import type { Job } from "./job";
import { createProgressReporter, workThrough } from "./slices";

/** One press of a take, by its control and its index among that control's presses, and increasing spreads. */
export interface SpreadQuestion {
  readonly hands: HandsQuestion;
  readonly control: string;
  readonly press: number;
  readonly spreadsMs: readonly number[];
}

/** The share of repetitions in which the press is used, for one spread. */
export interface SpreadPoint {
  readonly spreadMs: number;
  readonly share: Share;
}

/** Computes the share in which a press is used, over the spread of the character. One take. */
export const spreadJob: Job<SpreadQuestion, readonly SpreadPoint[]> = async (
  { hands, control, press, spreadsMs },
  takes,
  tools,
) => {
  const reportProgress = createProgressReporter(tools);
  const points: SpreadPoint[] = [];
  for (const spreadMs of spreadsMs) {
    const question = { ...hands, character: { ...hands.character, spreadMs } };
    const { presses } = await workThrough(
      studyHands(question, takes, prepareStudied()),
      tools,
      ({ done, of }) => reportProgress(points.length + done / of, spreadsMs.length, () => points),
    );
    const found = presses.find(item => item.control === control && item.press === press);
    if (found) points.push({ spreadMs, share: found.kept });
  }
  return { value: points };
};
