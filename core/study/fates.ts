import type { Program } from "../run/program";
import { FORMING } from "../run/state";
import {
  EDGE,
  FAILED,
  FIRE,
  KEPT,
  LAPSE,
  LOSS_REASONS,
  LOST,
  OPENED,
  PERFORMED,
  PHASE,
  PROMPT,
  REQUEST,
  SHOWN,
  type Trace,
} from "../trace/trace";

/** A request or a prompt's answer that a press went into. Places are in the program's lists, frames in the take. */
export interface Use {
  readonly kind: "move" | "prompt";
  readonly index: number;
  /** The frame on which the request was made, and the one on which it was performed or answered. */
  readonly made: number;
  readonly frame: number;
  /** Place in PERFORMED_BY; 0 for a prompt. */
  readonly by: number;
}

export interface Loss {
  readonly move: number;
  readonly made: number;
  readonly frame: number;
  /** Place in LOSS_REASONS; with it the gate that was not open or was, or the move that came before it. */
  readonly reason: number;
  readonly because: number;
  /** The frame on which the gate, though open, had been spent; −1 where it was not. */
  readonly spentAt: number;
}

export interface Lapse {
  readonly pattern: number;
  readonly frame: number;
  /** Place in LAPSE_REASONS. */
  readonly reason: number;
}

/**
 * What became of one press edge. `used`: a move was performed or a prompt answered with it. `lost`: a request had
 * it and came to nothing. `fired`: patterns fired with it, but nothing waits for them. `lapsed`: patterns began with
 * it and lapsed. `unheard`: no pattern began anything with it, or none has ended yet.
 */
export interface Fate {
  readonly control: number;
  readonly frame: number;
  readonly outcome: "used" | "lost" | "fired" | "lapsed" | "unheard";
  readonly uses: readonly Use[];
  readonly losses: readonly Loss[];
  readonly fires: readonly { readonly pattern: number; readonly frame: number }[];
  readonly lapses: readonly Lapse[];
  /** What kept the press from other rules; undefined where nothing did. */
  readonly kept: { readonly kind: "pattern" | "prompt"; readonly index: number } | undefined;
}

/** Does a gate go with the loss? */
export function isOfGate({ reason }: Loss): boolean {
  return LOSS_REASONS[reason] === "gate" || LOSS_REASONS[reason] === "ban";
}

/** The loss that says most: the last that did not merely give way to another move that used the press. */
export function tellingLoss(fate: Fate): Loss | undefined {
  return fate.losses.findLast(loss => LOSS_REASONS[loss.reason] !== "beaten") ?? fate.losses.at(-1);
}

type Draft = { -readonly [K in keyof Fate]: Fate[K] };

/** What nothing has been added to yet: the same for all, since most presses go one way only. */
const NONE: readonly never[] = Object.freeze([]);

const RANKS = ["unheard", "lapsed", "fired", "lost", "used"] as const;

function draftOf(control: number, frame: number): Draft {
  return {
    control,
    frame,
    outcome: "unheard",
    uses: NONE,
    losses: NONE,
    fires: NONE,
    lapses: NONE,
    kept: undefined,
  };
}

/** Adds to one list of a draft; what became of its press is the best that came of it. */
function add<K extends "uses" | "losses" | "fires" | "lapses">(
  draft: Draft,
  key: K,
  item: Fate[K][number],
  outcome: Fate["outcome"],
): void {
  const list = draft[key] as unknown[];
  if (list.length === 0) draft[key] = [item] as unknown as Fate[K];
  else list.push(item);
  if (RANKS.indexOf(outcome) > RANKS.indexOf(draft.outcome)) draft.outcome = outcome;
}

/** Reads the fates off a trace note by note, so that a long one can be read a piece at a time. */
export interface FateReader {
  /** Reads on to a note, which is not read itself. */
  readonly readTo: (note: number) => void;
  /** The fates as far as they have been read; the list goes on growing. */
  readonly fates: readonly Fate[];
}

/** Begins to read the fates of a trace. */
export function createFateReader(program: Program, trace: Trace): FateReader {
  const all: Draft[] = [];
  /** The presses of each control, in their order. */
  const ofControl = program.controls.map((): Draft[] => []);
  /** The notes of requests that are not over, by move and frame. */
  const requests = new Map<number, number>();
  /** The notes of this frame's fires, by pattern. */
  const firesNow = new Map<number, number>();
  const formingSince = new Float64Array(program.patterns.length).fill(-1);
  let firesFrame = -1;
  /** A control's press of a frame: among its last ones, as edges are. */
  const pressOf = (control: number, frame: number): Draft | undefined => {
    const presses = ofControl[control] ?? [];
    for (let k = presses.length - 1; k >= 0 && presses[k]!.frame >= frame; k--)
      if (presses[k]!.frame === frame) return presses[k];
    return undefined;
  };
  /** Tells every press among the edges of a fire or request. */
  const each = (note: number | undefined, tell: (draft: Draft) => void) => {
    if (note === undefined) return;
    const at = trace.at[note]!;
    for (let k = 1; k <= trace.payload[at]!; k++) {
      const key = trace.payload[at + k]!;
      const draft = pressOf(key % program.sourceCount, Math.floor(key / program.sourceCount));
      if (draft) tell(draft);
    }
  };
  /** The note of a request that is over now. */
  const endOf = (move: number, made: number): number | undefined => {
    const key = made * program.moves.length + move;
    const note = requests.get(key);
    requests.delete(key);
    return note;
  };
  let next = 0;
  function readNote(i: number): void {
    const frame = trace.frame[i]!;
    const subject = trace.subject[i]!;
    const at = trace.at[i]!;
    const first = trace.payload[at]!;
    if (frame !== firesFrame && firesNow.size > 0) firesNow.clear();
    firesFrame = frame;
    switch (trace.kind[i]) {
      case EDGE:
        if (first === 1) {
          const draft = draftOf(subject, frame);
          all.push(draft);
          ofControl[subject]!.push(draft);
        }
        break;
      case KEPT: {
        const draft = pressOf(subject, frame);
        const kind = trace.payload[at + 1] === 1 ? "prompt" : "pattern";
        if (draft) draft.kept = { kind, index: first };
        break;
      }
      case PHASE:
        if (first === FORMING) formingSince[subject] = frame;
        break;
      case FIRE:
        firesNow.set(subject, i);
        each(i, draft => add(draft, "fires", { pattern: subject, frame }, "fired"));
        break;
      case LAPSE: {
        const pattern = program.patterns[subject]!;
        const since = formingSince[subject]! < 0 ? frame : formingSince[subject]!;
        for (const control of pattern.controls) {
          const presses = ofControl[control]!;
          for (let k = presses.length - 1; k >= 0 && presses[k]!.frame >= since; k--)
            add(presses[k]!, "lapses", { pattern: subject, frame, reason: first }, "lapsed");
        }
        break;
      }
      case REQUEST:
        requests.set(frame * program.moves.length + subject, i);
        break;
      case PERFORMED:
        each(endOf(subject, first), draft =>
          add(
            draft,
            "uses",
            { kind: "move", index: subject, made: first, frame, by: trace.payload[at + 1]! },
            "used",
          ),
        );
        break;
      case LOST:
        each(endOf(subject, first), draft =>
          add(
            draft,
            "losses",
            {
              move: subject,
              made: first,
              frame,
              reason: trace.payload[at + 1]!,
              because: trace.payload[at + 2]!,
              spentAt: trace.payload[at + 3]!,
            },
            "lost",
          ),
        );
        break;
      case PROMPT: {
        if (first === SHOWN || first === OPENED || first === FAILED) break;
        const answer = program.prompts[subject]!.ask.find(pattern => firesNow.has(pattern));
        each(answer === undefined ? undefined : firesNow.get(answer), draft =>
          add(draft, "uses", { kind: "prompt", index: subject, made: frame, frame, by: 0 }, "used"),
        );
        break;
      }
    }
  }
  return {
    fates: all,
    readTo(note) {
      for (; next < note; next++) readNote(next);
    },
  };
}

/**
 * The fate of every press edge of a trace, in order of frame and then of control. Reads notes only: the trace and its
 * program are all that is needed. A press that went into several requests has all of them; one use makes it used.
 */
export function listFates(program: Program, trace: Trace): readonly Fate[] {
  const reader = createFateReader(program, trace);
  reader.readTo(trace.count);
  return reader.fates;
}
