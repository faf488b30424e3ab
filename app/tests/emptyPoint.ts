import type { SweepPoint } from "#core";

/** A point of a sweep with one run in which nothing happened. */
export const EMPTY_POINT: SweepPoint = {
  ...{ value: 0, runs: 1, repetitions: 1, performed: { direct: 0, buffer: 0, coyote: 0, both: 0 }, lost: {} },
  ...{ lostPresses: 0, answered: 0, unanswered: 0, saved: 0, unwanted: 0, gone: 0, holds: 0, asked: 0 },
  ...{ judged: [], failed: [], delays: new Map() },
};
