import { fault, type Issue, type PathStep } from "../formats/issue";
import type { Program } from "../program/program";
import { askableNotes } from "../trace/noteKinds";
import { LOSS_REASONS, type Trace } from "../trace/trace";
import type { AskedEvent } from "./askedEvent";

/** Matches events among the notes of one kind and subject. */
export interface Matcher {
  readonly kind: number;
  readonly subject: number;
  /** Returns whether the further fields of a note match; its kind and subject must already match. */
  readonly isMatch: (trace: Trace, note: number) => boolean;
}

const PLAIN: ReadonlySet<string> = new Set(["kind", "id"]);

/** Returns an issue if the kit lacks the subject of an event. */
export function unknownId(
  program: Program,
  list: "moves" | "patterns" | "prompts" | "gates" | "modes" | "controls",
  id: string,
  path: readonly PathStep[],
): Issue {
  const all = program[list].map(item => item.id);
  const hint = all.length > 0 ? `write one of ${all.slice(0, 40).join(", ")}` : "add it first";
  return fault("unknown-id", path, { what: list.slice(0, -1), id, hint });
}

/** Returns a value of a field that such an event of this subject can never have, with the values it can have. */
function findImpossible(
  program: Program,
  event: AskedEvent,
  subject: number,
): { readonly field: string; readonly found: string; readonly hint: string } | undefined {
  const values = (wanted: unknown) => (Array.isArray(wanted) ? wanted : [wanted]) as readonly unknown[];
  const check = (field: string, wanted: unknown, can: readonly string[]) => {
    const found =
      wanted === undefined ? undefined : values(wanted).find(value => !can.includes(String(value)));
    if (found === undefined) return undefined;
    return { field, found: String(found), hint: `write one of ${can.slice(0, 40).join(", ")}` };
  };
  if (event.kind === "lost") {
    const plain = LOSS_REASONS.filter(reason => reason !== "gate" && reason !== "ban");
    const { needs, bans } = program.moves[subject]!;
    const gates = needs.map(({ gate }) => `gate:${program.gates[gate]!.id}`);
    const banned = bans.map(gate => `ban:${program.gates[gate]!.id}`);
    return check("why", event.why, [...plain, ...gates, ...banned]);
  }
  if (event.kind !== "prompt") return undefined;
  const { grades, ask } = program.prompts[subject]!;
  return (
    check("outcome", event.outcome, ["shown", "open", "ok", "failed", ...grades.map(({ name }) => name)]) ??
    check(
      "asks",
      event.asks,
      ask.map(pattern => program.patterns[pattern]!.id),
    )
  );
}

/**
 * Compiles the matcher of an event. Kind and id are compared with the note; every further field is compared
 * with the event as a trace file has it: equal, or one of a list. Returns one issue if the kit lacks the
 * subject.
 */
export function compileMatcher(
  program: Program,
  event: AskedEvent,
  path: readonly PathStep[],
): { readonly matcher: Matcher } | { readonly issue: Issue } {
  const { code, list, format } = askableNotes[event.kind];
  const subject = program[list].findIndex(item => item.id === event.id);
  if (subject < 0) return { issue: unknownId(program, list, event.id, [...path, "id"]) };
  const impossible = findImpossible(program, event, subject);
  if (impossible) return { issue: fault("check-value", [...path, impossible.field], impossible) };
  const asked = Object.entries(event).filter(([field]) => !PLAIN.has(field));
  const isMatch = (trace: Trace, note: number) => {
    if (asked.length === 0) return true;
    const found = format(program, trace, note) as unknown as Readonly<Record<string, unknown>>;
    return asked.every(([field, wanted]) =>
      Array.isArray(wanted) ? wanted.includes(found[field]) : found[field] === wanted,
    );
  };
  return { matcher: { kind: code, subject, isMatch } };
}
