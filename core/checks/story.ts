import type { Program } from "../program/program";
import { formatEvent } from "../trace/formatTrace";
import { notes } from "../trace/noteKinds";
import { promptOutcome } from "../trace/notes/prompt";
import type { Trace } from "../trace/trace";
import type { KeptEvent } from "./askedEvent";

const compare = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

/**
 * Returns the story of a take: performed moves and outcomes of prompts, ordered by frame, kind and id (by
 * code units). Frames are those of the trace. Source: check rules, "same".
 */
export function listStory(program: Program, trace: Trace): KeptEvent[] {
  const story: KeptEvent[] = [];
  for (let i = 0; i < trace.count; i++) {
    const kind = trace.kind[i];
    if (kind !== notes.performed.code && kind !== notes.prompt.code) continue;
    if (kind === notes.prompt.code) {
      const outcome = notes.prompt.outcome(trace, i);
      if (outcome === promptOutcome.shown || outcome === promptOutcome.open) continue;
    }
    const event = formatEvent(program, trace, i);
    if (event?.kind === "performed") story.push([event.f, "performed", event.id]);
    else if (event?.kind === "prompt") story.push([event.f, "prompt", event.id, event.outcome]);
  }
  return story.sort((a, b) => a[0] - b[0] || compare(a[1], b[1]) || compare(a[2], b[2]));
}
