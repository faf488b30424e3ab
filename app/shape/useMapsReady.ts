import { useTakes } from "../maps/useTakes";

/** Returns whether the maps of rules would show every take they can: none is still to be evaluated. */
export function useMapsReady(): boolean {
  return (useTakes()?.pending ?? 0) === 0;
}
