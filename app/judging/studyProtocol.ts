import type { Fate, Kit, NearestMiss, Take } from "#core";

/** What the study worker can be asked. Types only: both sides import this, neither the other. */
export interface StudyService {
  /** The nearest miss of each fate, in their order; `told` hears how many are done. */
  readonly findMisses: (
    kit: Kit,
    take: Take,
    fates: readonly Fate[],
    told: (done: number) => void,
  ) => Promise<(NearestMiss | undefined)[]>;
}
