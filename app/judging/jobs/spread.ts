import { studyHands, type HandsQuestion, type Share } from "#core";
import { prepareStudied } from "#stage";
import type { Job } from "./job";
import { createTeller, workThrough } from "./slices";

/** One press of a take, by its control and its place among that control's presses, under hands wider and wider. */
export interface SpreadQuestion {
  readonly hands: HandsQuestion;
  readonly control: string;
  readonly press: number;
  readonly spreadsMs: readonly number[];
}

/** In what share of plays the press is used as it was, by the hands' spread. */
export interface SpreadPoint {
  readonly spreadMs: number;
  readonly share: Share;
}

/** Which players lose this press: the share in which it is used as it was, over the spread of the hands. One take. */
export const spreadJob: Job<SpreadQuestion, readonly SpreadPoint[]> = async (
  { hands, control, press, spreadsMs },
  takes,
  tools,
) => {
  const tell = createTeller(tools);
  const points: SpreadPoint[] = [];
  for (const spreadMs of spreadsMs) {
    const question = { ...hands, character: { ...hands.character, spreadMs } };
    const { presses } = await workThrough(
      studyHands(question, takes, prepareStudied()),
      tools,
      ({ done, of }) => tell(points.length + done / of, spreadsMs.length, () => points),
    );
    const found = presses.find(item => item.control === control && item.press === press);
    if (found) points.push({ spreadMs, share: found.share });
  }
  return { value: points };
};
