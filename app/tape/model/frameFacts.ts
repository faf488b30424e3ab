import {
  firstAbove,
  stretchAt,
  formatEvent,
  formatEventWords,
  formatGrown,
  indexOfId,
  joinNames,
  eventNotes,
  notes,
  TICKS,
  type Program,
  type Trace,
} from "#core";
import type { Rules } from "#stage";
import { isBeaten } from "./mostInformativeNote";
import type { TapeModel, TapeRow } from "./tapeRows";

/** One fact about a frame: its row, and the words. */
export interface FrameFact {
  readonly name: string;
  readonly fact: string;
}

const SPAN_WORDS = {
  down: "down",
  open: "open",
  forgiven: "closed, within its coyote",
  forming: "forming",
  sustained: "sustained",
  startup: "startup",
  active: "active",
  recovery: "recovery",
  lead: "shown",
  window: "window open",
  facing: "facing",
  speed: "at",
  named: "",
} as const;

/** Returns the analog value of a control on a frame, if recorded. */
function valueFact(row: TapeRow, frame: number): string[] {
  const k = firstAbove(row.valueFrame, frame) - 1;
  return k < 0 ? [] : [`at ${Number(row.value[k]!.toFixed(2))} of 1`];
}

function spanFact(model: TapeModel, row: TapeRow, frame: number): string[] {
  const k = stretchAt(row.spanFrom, row.spanTo, frame);
  if (k < 0) return [];
  const from = row.spanFrom[k]!;
  const words = [SPAN_WORDS[row.spanLook[k]!], row.spanText[k]].filter(Boolean).join(" ");
  if (!row.growth || row.spanLook[k] !== "forming") return [`${words}, ${frame - from + 1} f`];
  const age = row.growth.isReal
    ? (frame - from) * TICKS
    : model.clock.ticksAt(frame) - model.clock.ticksAt(from);
  return [`${words}, ${formatGrown(row.growth, age)}`];
}

function waitFact({ moves }: Program, row: TapeRow, frame: number): string[] {
  const k = stretchAt(row.waitFrom, row.waitTo, frame);
  if (k < 0) return [];
  // A request of a move that waits to be sure is not in the buffer from the beginning.
  const waits = moves[indexOfId(moves, row.id)]!.deferTicks > 0 ? "waiting" : "in the buffer";
  return [`${waits}, ${frame - row.waitFrom[k]! + 1} f`];
}

/** Returns every fact about one frame, row by row: first its stretches, then its events. */
export function listFacts(
  model: TapeModel,
  { kit, program }: Rules,
  trace: Trace,
  frame: number,
): FrameFact[] {
  return model.rows.flatMap(row => {
    const facts = [
      ...spanFact(model, row, frame),
      ...waitFact(program, row, frame),
      ...valueFact(row, frame),
    ];
    for (let k = firstAbove(row.markFrame, frame - 1); row.markFrame[k] === frame; k++) {
      const event = formatEvent(program, trace, row.markNote[k]!);
      if (event) facts.push(formatEventWords(event, kit));
      else if (row.group === "game")
        facts.push(
          [row.markLook[k] === "absent" ? "not performed" : "performed", row.markText[k]]
            .filter(Boolean)
            .join(", "),
        );
    }
    return facts.map(fact => ({ name: row.name, fact }));
  });
}

/** A line of the tape as a table. */
export interface EventLine {
  readonly note: number;
  readonly frame: number;
  readonly name: string;
  readonly words: string;
}

/** Returns, by the note of a performed move, the names of the moves that lost the same press to it. */
function findBeaten(moves: readonly { readonly name: string }[], trace: Trace): Map<number, string[]> {
  const found = new Map<number, string[]>();
  /** The notes of performed moves, by move; a move beaten on the same frame refers to the last. */
  const performed = new Map<number, number>();
  for (let note = 0; note < trace.count; note++) {
    if (trace.kind[note] === notes.performed.code) performed.set(trace.subject[note]!, note);
    if (!isBeaten(trace, note)) continue;
    const winner = performed.get(notes.lost.because(trace, note));
    const name = moves[trace.subject[note]!]?.name ?? "";
    if (winner !== undefined) found.set(winner, [...(found.get(winner) ?? []), name]);
  }
  return found;
}

/**
 * Returns the events of a trace as lines of a table, in frame order, including edges of controls. A move that
 * lost its press to another is mentioned in that one's line and has no line of its own.
 */
export function listEvents({ kit, program }: Rules, trace: Trace): EventLine[] {
  const lines: EventLine[] = [];
  const beaten = findBeaten(kit.moves ?? [], trace);
  for (let note = 0; note < trace.count; note++) {
    const frame = trace.frame[note]!;
    if (isBeaten(trace, note)) continue;
    if (trace.kind[note] === notes.edge.code) {
      const name = kit.controls[trace.subject[note]!]!.name;
      lines.push({
        note,
        frame,
        name,
        words: notes.edge.isDown(trace, note) === 1 ? "goes down" : "comes up",
      });
      continue;
    }
    const event = formatEvent(program, trace, note);
    if (!event) continue;
    const name = kit[eventNotes[event.kind].list]?.[trace.subject[note]!]?.name ?? event.id;
    const others = beaten.get(note);
    const words = others ? `${formatEventWords(event, kit)}; ${joinNames(others)} lost the press to it` : "";
    lines.push({ note, frame, name, words: words || formatEventWords(event, kit) });
  }
  return lines;
}
