import type { Kit } from "../kit/schema";
import { eventNotes } from "./noteKinds";
import type { TraceEvent } from "./traceSchema";

/**
 * Formats an event of a trace with the names of the kit: "lost: Footing was not open (asked for at 40)".
 * `kit` must be the kit whose program made the trace.
 */
export function formatEventWords(event: TraceEvent, kit: Kit): string {
  const words = eventNotes[event.kind].words as (event: TraceEvent, kit: Kit) => string;
  return words(event, kit);
}
