import type { Kit } from "../kit/schema";
import { gateName, nameIn, nameOf } from "../kit/names";
import { formatSentence } from "../kit/sentence";
import type { PhasedTraceEvent } from "../trace/traceSchema";
import type { AskedEvent, KeptEvent } from "./askedEvent";
import type { Check } from "./checksSchema";
import { describeEvent } from "./describeCheck";

/** The start of a new check: a free id, and the take it applies to. */
export interface CheckBeginning {
  readonly id: string;
  readonly takeId: string;
}

/** Returns an event as a check asks for it, in words: "Hop is lost, Footing was not open". */
function eventWords(kit: Kit, event: AskedEvent): string {
  const names = { take: (id: string) => id, gate: (id: string) => gateName(kit, id) };
  return formatSentence(describeEvent(event, [], names), nameIn(kit));
}

/** Returns the event to ask for so that a check matches this one: its kind and fields without its frame. */
export function askAgain(event: PhasedTraceEvent): AskedEvent {
  switch (event.kind) {
    case "lost":
      return { kind: "lost", id: event.id, why: event.why };
    case "prompt":
      return { kind: "prompt", id: event.id, outcome: event.outcome };
    case "gate":
      return { kind: "gate", id: event.id, open: event.open };
    case "phase":
      return { kind: "phase", id: event.id, phase: event.phase };
    case "performed":
    case "fired":
    case "lapsed":
    case "mode":
      return { kind: event.kind, id: event.id };
  }
}

/** Creates the check "this must happen here", with a leeway of two frames. */
export function mustHappen(kit: Kit, event: PhasedTraceEvent, { id, takeId }: CheckBeginning): Check {
  const happens = askAgain(event);
  const name = `${eventWords(kit, happens)} at ${event.f}f`;
  return { id, name, on: [takeId], happens, at: `${event.f}f`, within: "2f" };
}

/** Creates the check "this must never happen" for one take. */
export function mustNever(kit: Kit, event: PhasedTraceEvent, { id, takeId }: CheckBeginning): Check {
  const never = askAgain(event);
  return { id, name: `Never: ${eventWords(kit, never)}`, on: [takeId], never };
}

/** Creates the check "every press of this control is answered within three frames" for one take. */
export function mustAnswer(kit: Kit, controlId: string, { id, takeId }: CheckBeginning): Check {
  const name = `Every press of ${nameOf(kit, "controls", controlId)} is answered`;
  return { id, name, on: [takeId], answers: controlId, within: "3f" };
}

/** Creates the check "this take stays as it is". */
export function mustStay(
  takeName: string,
  story: readonly KeptEvent[],
  { id, takeId }: CheckBeginning,
): Check {
  return { id, name: `${takeName} stays as it is`, on: [takeId], same: [...story] };
}
