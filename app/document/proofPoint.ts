import type { ProofPoint } from "../storage/records";
import type { Verdicts } from "./proving";

/** Returns whether a check held in a take, at all its rates; undefined if that is not known. */
export type HeldAt = (takeId: string, checkId: string) => boolean | undefined;

/** Reads results as they were judged. */
export function heldIn(found: ReadonlyMap<string, Verdicts>): HeldAt {
  return (takeId, checkId) =>
    found
      .get(takeId)
      ?.get(checkId)
      ?.every(({ ok }) => ok);
}

/** Returns results as they are stored, to be compared with later ones. `at`: ms since 1970. */
export function pointOf(found: ReadonlyMap<string, Verdicts>, at: number): ProofPoint {
  const takes = [...found.keys()];
  const heldAt = heldIn(found);
  const checks = new Set([...found.values()].flatMap(verdicts => [...verdicts.keys()]));
  const placesWhere = (check: string, held: boolean) =>
    takes.flatMap((take, t) => (heldAt(take, check) === held ? [t] : []));
  return {
    at,
    takes,
    checks: [...checks].map(id => ({ id, held: placesWhere(id, true), failed: placesWhere(id, false) })),
  };
}

/** Reads stored results. */
export function heldAtPoint({ takes, checks }: ProofPoint): HeldAt {
  const places = new Map(takes.map((take, t) => [take, t]));
  const known = new Map(
    checks.map(({ id, held, failed }) => [id, { held: new Set(held), failed: new Set(failed) }]),
  );
  return (takeId, checkId) => {
    const place = places.get(takeId) ?? -1;
    const check = known.get(checkId);
    if (check?.held.has(place)) return true;
    return check?.failed.has(place) ? false : undefined;
  };
}
