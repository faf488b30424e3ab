import { useEffect, useState } from "react";
import { isFetchedAhead } from "./offline";

/** The time after which more is fetched: the first view has everything it needs by then. */
const AFTER_MS = 2500;

/** Parts of the application, each loaded by a function; the same list in every render. */
export type FetchedAhead = readonly (() => Promise<unknown>)[];

/**
 * Loads parts of the application soon after the first view, so that they are there without the server; a part that cannot
 * be fetched is reported when it is needed (see fetchPart). Returns whether it is time to fetch more; never, if that is
 * turned off in the address.
 */
export function useFetchAhead(parts: FetchedAhead): boolean {
  const [isTime, setTime] = useState(false);
  useEffect(() => {
    if (!isFetchedAhead()) return;
    const timer = setTimeout(() => setTime(true), AFTER_MS);
    return () => clearTimeout(timer);
  }, []);
  useEffect(() => {
    if (isTime) for (const load of parts) load().catch(() => undefined);
  }, [isTime, parts]);
  return isTime;
}
