import { fault, type Issue, type PathStep } from "../formats/issue";
import type { Program } from "../run/program";
import { formatEvent } from "../trace/formatTrace";
import { eventNotes } from "../trace/noteKinds";
import type { Trace } from "../trace/trace";
import type { AskedEvent } from "./checksSchema";

/** The word for one thing of a list, in sentences. */
const WHAT = { moves: "move", patterns: "pattern", prompts: "prompt", gates: "gate", modes: "mode" } as const;

/** An event as it is looked for: among the notes of a kind on a subject, those that match. */
export interface Matcher {
  readonly kind: number;
  readonly subject: number;
  /** Does a note of that kind and subject match in its further fields too? */
  readonly isMatch: (trace: Trace, note: number) => boolean;
}

const PLAIN: ReadonlySet<string> = new Set(["kind", "id"]);

/** What a kit has of the things an event can be about, for who asks for one that is not there. */
export function unknownId(
  program: Program,
  list: "moves" | "patterns" | "prompts" | "gates" | "modes" | "controls",
  what: string,
  id: string,
  path: readonly PathStep[],
): Issue {
  const all = program[list].map(item => item.id);
  const hint = all.length > 0 ? `write one of ${all.slice(0, 40).join(", ")}` : "add it first";
  return fault("unknown-id", path, { what, id, hint });
}

/**
 * Makes the matcher of an event: kind and id by the note; further fields by the event as a trace file has it, each equal to what is asked for or one of the list. One issue where the kit has no such thing.
 */
export function compileMatcher(
  program: Program,
  event: AskedEvent,
  path: readonly PathStep[],
): { readonly matcher: Matcher } | { readonly issue: Issue } {
  const { code, list } = eventNotes[event.kind];
  const subject = program[list].findIndex(item => item.id === event.id);
  if (subject < 0) return { issue: unknownId(program, list, WHAT[list], event.id, [...path, "id"]) };
  const asked = Object.entries(event).filter(([field]) => !PLAIN.has(field));
  const isMatch = (trace: Trace, note: number) => {
    if (asked.length === 0) return true;
    const found = formatEvent(program, trace, note) as unknown as Readonly<Record<string, unknown>>;
    return asked.every(([field, wanted]) =>
      Array.isArray(wanted) ? wanted.includes(found[field]) : found[field] === wanted,
    );
  };
  return { matcher: { kind: code, subject, isMatch } };
}
