import type { Kit } from "../kit/schema";
import { gateName, nameOf } from "../kit/names";
import { askableNotes } from "../trace/noteKinds";
import type { TraceEvent } from "../trace/traceSchema";
import type { AskedEvent, KeptEvent } from "./askedEvent";
import type { Check } from "./checksSchema";

/** The start of a new check: a free id, and the take it applies to. */
export interface CheckBeginning {
  readonly id: string;
  readonly takeId: string;
}

/** Returns the display name of an event's subject. */
function subjectName(kit: Kit, { kind, id }: Pick<TraceEvent, "kind" | "id">): string {
  return kind === "gate" ? gateName(kit, id) : nameOf(kit, askableNotes[kind].list, id);
}

/** Returns the event to ask for so that a check matches this one: its kind and fields without its frame. */
export function askAgain(event: TraceEvent): AskedEvent {
  switch (event.kind) {
    case "lost":
      return { kind: "lost", id: event.id, why: event.why };
    case "prompt":
      return { kind: "prompt", id: event.id, outcome: event.outcome };
    case "gate":
      return { kind: "gate", id: event.id, open: event.open };
    case "performed":
    case "fired":
    case "lapsed":
    case "mode":
      return { kind: event.kind, id: event.id };
  }
}

/** Creates the check "this must happen here", with a leeway of two frames. */
export function mustHappen(kit: Kit, event: TraceEvent, { id, takeId }: CheckBeginning): Check {
  const name = `${subjectName(kit, event)} happens at ${event.f}f`;
  return { id, name, on: [takeId], happens: askAgain(event), at: `${event.f}f`, within: "2f" };
}

/** Creates the check "this must never happen" for one take. */
export function mustNever(kit: Kit, event: TraceEvent, { id, takeId }: CheckBeginning): Check {
  const word = event.kind === "lost" ? "lost" : "so";
  return { id, name: `${subjectName(kit, event)} never ${word}`, on: [takeId], never: askAgain(event) };
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
