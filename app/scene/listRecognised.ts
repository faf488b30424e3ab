import { formatEvent, formatEventWords, notes, type Trace } from "#core";
import type { Rules } from "#stage";

const SHOWN = 10;
/** The maximum number of notes searched: in a long session a quiet rule may have none for an hour. */
const MAX_NOTES_SEARCHED = 4000;
const LISTED_NOTES = new Set<number>([
  notes.fired.code,
  notes.lapsed.code,
  notes.performed.code,
  notes.lost.code,
  notes.prompt.code,
]);

/** Selects the rules to list. */
export type IsWanted = (kind: "pattern" | "move", id: string) => boolean;

/** One recognised event, as listed. */
export interface RecognisedLine {
  readonly note: number;
  readonly frame: number;
  readonly name: string;
  readonly words: string;
  readonly isLoss: boolean;
}

/** Returns the line of a note, or undefined for one that is not listed. */
function lineOf(
  { kit, program }: Rules,
  trace: Trace,
  note: number,
  isWanted: IsWanted,
): RecognisedLine | undefined {
  const event = LISTED_NOTES.has(trace.kind[note]!) ? formatEvent(program, trace, note) : undefined;
  if (!event || !("id" in event) || (event.kind === "lost" && event.why === "beaten")) return undefined;
  const isMove = event.kind === "performed" || event.kind === "lost";
  if (!isWanted(isMove ? "move" : "pattern", event.id)) return undefined;
  const list = event.kind === "prompt" ? kit.prompts : isMove ? kit.moves : kit.patterns;
  return {
    note,
    frame: event.f,
    name: list?.find(item => item.id === event.id)?.name ?? event.id,
    words: formatEventWords(event, kit),
    isLoss:
      event.kind === "lost" ||
      event.kind === "lapsed" ||
      (event.kind === "prompt" && event.outcome === "failed"),
  };
}

/** Returns the last listed notes before an index of the trace, newest first. */
export function listRecognised(
  rules: Rules,
  trace: Trace,
  end: number,
  isWanted: IsWanted,
): RecognisedLine[] {
  const lines: RecognisedLine[] = [];
  const last = Math.max(0, end - MAX_NOTES_SEARCHED);
  for (let note = end - 1; note >= last && lines.length < SHOWN; note--) {
    const line = lineOf(rules, trace, note, isWanted);
    if (line) lines.push(line);
  }
  return lines;
}
