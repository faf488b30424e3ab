import { formatEvent, notes, type Kit, type Program, type Trace, type TraceEvent } from "#core";
import { formatGrown } from "./growth";
import type { TapeModel, TapeRow } from "./tapeRows";

/** One thing that holds on a frame: which row, and what, in words. */
export interface FrameFact {
  readonly name: string;
  readonly fact: string;
}

const SPAN_WORDS = {
  down: "down",
  open: "open",
  forgiven: "closed, still forgiven",
  forming: "forming",
  sustained: "sustained",
  waiting: "remembered",
  startup: "startup",
  active: "active",
  recovery: "recovery",
  lead: "shown",
  window: "window open",
  facing: "facing",
  speed: "at",
} as const;

/** The analog value a control has on a frame, where it was recorded as one. */
function valueFact(row: TapeRow, frame: number): string[] {
  const k = row.valueFrame.findLastIndex(at => at <= frame);
  return k < 0 ? [] : [`at ${Number(row.value[k]!.toFixed(2))} of 1`];
}

function spanFact(model: TapeModel, row: TapeRow, frame: number): string[] {
  return row.spanFrom.flatMap((from, k) => {
    if (from > frame || row.spanTo[k]! <= frame) return [];
    const words = [SPAN_WORDS[row.spanLook[k]!], row.spanText[k]].filter(Boolean).join(" ");
    if (row.growth && row.spanLook[k] === "forming") {
      const age = row.growth.isReal
        ? (frame - from) * 100
        : model.clock.ticksAt(frame) - model.clock.ticksAt(from);
      return [`${words}, ${formatGrown(row.growth, age)}`];
    }
    return [`${words}, ${frame - from + 1} f`];
  });
}

const LAPSE_WORDS: Readonly<Record<string, string>> = {
  "too-short": "lapsed: let go too soon",
  "too-long": "lapsed: held too long",
  "too-slow": "lapsed: too slow",
  broken: "lapsed: broken by another press",
  cancelled: "lapsed: cancelled",
  hidden: "lapsed: hidden",
  mode: "lapsed: mode over",
};

function carriedWords(event: Extract<TraceEvent, { kind: "fired" }>): string {
  if (event.count !== undefined) return `, ${event.count} taps`;
  if (event.age !== undefined) return `, charged ${event.age} f, level ${event.level}, value ${event.value}`;
  if (event.held !== undefined) return `, held ${event.held} f`;
  return event.repeat ? `, repeat ${event.repeat}` : "";
}

const LOSS_WORDS: Readonly<Record<string, string>> = {
  replaced: "a newer press took its place",
  beaten: "another move used the press",
  prompt: "a prompt took the press",
  mode: "the mode was over",
  cooldown: "still cooling down",
  uses: "no use left",
  busy: "another move came first",
  late: "too late",
};

function lossWords(why: string, gateName: (id: string) => string): string {
  if (why.startsWith("gate:")) return `${gateName(why.slice(5))} was closed`;
  if (why.startsWith("ban:")) return `${gateName(why.slice(4))} was open`;
  return LOSS_WORDS[why] ?? why;
}

/** An event of the trace in a few words. `kit` gives gates the names people know them by. */
export function formatEventWords(event: TraceEvent, kit: Kit): string {
  switch (event.kind) {
    case "fired":
      return `fired${carriedWords(event)}`;
    case "lapsed":
      return (
        (LAPSE_WORDS[event.why] ?? event.why) +
        (event.reached === undefined ? "" : `, ${event.reached} steps made`)
      );
    case "performed": {
      const kept = event.waited > 0 ? `, remembered ${event.waited} f` : "";
      return `performed${kept}${event.by === "coyote" || event.by === "both" ? ", forgiven" : ""}`;
    }
    case "lost":
      return `lost: ${lossWords(event.why, id => kit.gates?.find(gate => gate.id === id)?.name ?? id)} (asked for at ${event.made})`;
    case "gate":
      return event.open ? "opens" : "closes";
    case "mode":
      return "mode begins";
    case "prompt":
      return event.outcome + (event.why ? `: ${event.why}` : "");
  }
}

/** Everything that holds on one frame, row by row: stretches first, then what happened on it. */
export function listFacts(
  kit: Kit,
  model: TapeModel,
  program: Program,
  trace: Trace,
  frame: number,
): FrameFact[] {
  return model.rows.flatMap(row => {
    const facts = [...spanFact(model, row, frame), ...valueFact(row, frame)];
    row.markFrame.forEach((at, k) => {
      const event = at === frame ? formatEvent(program, trace, row.markNote[k]!) : undefined;
      if (event) facts.push(formatEventWords(event, kit));
    });
    return facts.map(fact => ({ name: row.name, fact }));
  });
}

/** A row of the tape read as a table. */
export interface EventLine {
  readonly note: number;
  readonly frame: number;
  readonly name: string;
  readonly words: string;
}

/** The events of a trace as lines of a table, in frame order; edges of controls are among them. */
export function listEvents(kit: Kit, program: Program, trace: Trace): EventLine[] {
  const lines: EventLine[] = [];
  const lists = {
    mode: kit.modes,
    gate: kit.gates,
    fired: kit.patterns,
    lapsed: kit.patterns,
    performed: kit.moves,
    lost: kit.moves,
    prompt: kit.prompts,
  };
  for (let note = 0; note < trace.count; note++) {
    const frame = trace.frame[note]!;
    if (trace.kind[note] === notes.EDGE) {
      const name = kit.controls[trace.subject[note]!]!.name;
      lines.push({
        note,
        frame,
        name,
        words: trace.payload[trace.at[note]!] === 1 ? "goes down" : "comes up",
      });
      continue;
    }
    const event = formatEvent(program, trace, note);
    if (!event) continue;
    const name = lists[event.kind]?.[trace.subject[note]!]?.name ?? event.id;
    lines.push({ note, frame, name, words: formatEventWords(event, kit) });
  }
  return lines;
}
