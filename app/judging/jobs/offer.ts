import {
  createTrier,
  searchSmallest,
  type Kit,
  type Lever,
  type SmallestChange,
  type WantedPress,
} from "#core";
import { prepareStudied } from "#stage";
import type { Job } from "./job";
import { workThrough } from "./slices";

interface OfferQuestion {
  readonly kit: Kit;
  readonly lever: Lever;
  readonly wanted: readonly WantedPress[];
  readonly mostFrames: number;
}

/**
 * Finds the smallest change of a number that saves at least one of some presses, with its other effects on
 * the takes.
 */
export const offerJob: Job<OfferQuestion, SmallestChange | undefined> = async (
  { kit, lever, wanted, mostFrames },
  takes,
  tools,
) => {
  const trier = createTrier(kit, takes, prepareStudied());
  if (!trier) return { value: undefined };
  const search = searchSmallest(trier, kit, lever, wanted, mostFrames);
  const value = await workThrough(search, tools, by => tools.reportProgress(by, mostFrames));
  return { value };
};
