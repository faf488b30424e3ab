import { gateName } from "../kit/names";
import type { Kit } from "../kit/schema";
import type { FAILURES, LapseReason, LossReason } from "../trace/trace";
import type { TraceEvent } from "../trace/traceSchema";
import { FAILURE_WORDS, LAPSE_WORDS, LOSS_WORDS } from "./reasonWords";

/** A count with its noun, singular for one: "1 step", "3 steps". */
export function countWords(count: number, noun: string, plural = `${noun}s`): string {
  return `${count} ${count === 1 ? noun : plural}`;
}

const LIST = new Intl.ListFormat("en-GB");

/** Names in a row: "Chime", "Chime and Toll", "Chime, Toll and Peal". */
export function joinNames(names: readonly string[]): string {
  return LIST.format(names);
}

/** A number with at most two decimals, and no more than it needs. */
function short(value: number): string {
  return String(Number(value.toFixed(2)));
}

function carriedWords(event: Extract<TraceEvent, { kind: "fired" }>): string {
  if (event.count !== undefined) return `, ${countWords(event.count, "tap")}`;
  if (event.age !== undefined)
    return `, charged ${short(event.age)}f, level ${event.level ?? 0}, worth ${short(event.value ?? 0)}`;
  if (event.held !== undefined) return `, held ${short(event.held)}f`;
  return event.repeat ? `, repeat ${event.repeat}` : "";
}

function lossOf(why: string, kit: Kit): string {
  const colon = why.indexOf(":");
  const reason = (colon < 0 ? why : why.slice(0, colon)) as LossReason;
  return LOSS_WORDS[reason](colon < 0 ? "" : gateName(kit, why.slice(colon + 1)));
}

/** An event of the trace in a few words, with the names people know things by: "lost: Footing was not open (asked for at 40)". */
export function formatEventWords(event: TraceEvent, kit: Kit): string {
  switch (event.kind) {
    case "fired":
      return `fired${carriedWords(event)}`;
    case "lapsed":
      return `lapsed: ${LAPSE_WORDS[event.why as LapseReason]}${event.reached === undefined ? "" : `, ${countWords(event.reached, "step")} made`}`;
    case "performed": {
      const kept = event.waited > 0 ? `, remembered ${event.waited}f` : "";
      return `performed${kept}${event.by === "coyote" || event.by === "both" ? ", forgiven" : ""}`;
    }
    case "lost":
      return `lost: ${lossOf(event.why, kit)} (asked for at ${event.made})`;
    case "gate":
      return event.open ? "opens" : "closes";
    case "mode":
      return "mode begins";
    case "prompt":
      if (event.outcome === "open") return "window opens";
      return event.why ? `failed: ${FAILURE_WORDS[event.why as (typeof FAILURES)[number]]}` : event.outcome;
  }
}
