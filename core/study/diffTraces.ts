import { notes } from "../trace/noteKinds";
import type { Trace } from "../trace/trace";

/** One effect of a change of the kit on a take. Frames are −1 on the side where it is absent. */
export interface Difference {
  readonly what: "new" | "gone" | "moved";
  readonly kind: "performed" | "lost" | "prompt";
  /** The index of the move or prompt. */
  readonly index: number;
  /** The frame of a move's request; −1 for a prompt. */
  readonly made: number;
  readonly wasFrame: number;
  readonly isFrame: number;
}

/** The compared kinds of notes, each with the number that identifies an item: the request, the outcome. */
const KINDS = new Map<
  number,
  { readonly kind: Difference["kind"]; readonly read: typeof notes.performed.made }
>([
  [notes.performed.code, { kind: "performed", read: notes.performed.made }],
  [notes.lost.code, { kind: "lost", read: notes.lost.made }],
  [notes.prompt.code, { kind: "prompt", read: notes.prompt.outcome }],
]);

interface Entry {
  readonly kind: Difference["kind"];
  readonly index: number;
  readonly made: number;
  readonly frame: number;
}

/**
 * Collects the results of a trace: moves performed and lost by the frame of their request, outcomes of
 * prompts in order.
 */
function gather(trace: Trace): Map<string, Entry> {
  const found = new Map<string, Entry>();
  const turns = new Map<number, number>();
  for (let i = 0; i < trace.count; i++) {
    const compared = KINDS.get(trace.kind[i]!);
    if (!compared) continue;
    const { kind } = compared;
    const index = trace.subject[i]!;
    const first = compared.read(trace, i);
    let key = `${kind} ${index} ${first}`;
    if (kind === "prompt") {
      const turn = (turns.get(index) ?? 0) + 1;
      turns.set(index, turn);
      key = `${key} ${turn}`;
    }
    found.set(key, { kind, index, made: kind === "prompt" ? -1 : first, frame: trace.frame[i]! });
  }
  return found;
}

/** Returns every difference between two traces: items only in one, or on another frame; in order of frame. */
export function diffTraces(before: Trace, after: Trace): Difference[] {
  const was = gather(before);
  const is = gather(after);
  const found: Difference[] = [];
  for (const [key, entry] of was) {
    const now = is.get(key);
    if (!now)
      found.push({
        what: "gone",
        kind: entry.kind,
        index: entry.index,
        made: entry.made,
        wasFrame: entry.frame,
        isFrame: -1,
      });
    else if (now.frame !== entry.frame)
      found.push({
        what: "moved",
        kind: entry.kind,
        index: entry.index,
        made: entry.made,
        wasFrame: entry.frame,
        isFrame: now.frame,
      });
  }
  for (const [key, entry] of is) {
    if (!was.has(key))
      found.push({
        what: "new",
        kind: entry.kind,
        index: entry.index,
        made: entry.made,
        wasFrame: -1,
        isFrame: entry.frame,
      });
  }
  const frameOf = (difference: Difference) =>
    difference.isFrame >= 0 ? difference.isFrame : difference.wasFrame;
  return found.sort((a, b) => frameOf(a) - frameOf(b));
}
