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

interface Draft {
  control: number;
  frame: number;
  uses: Use[];
  losses: Loss[];
  fires: { pattern: number; frame: number }[];
  lapses: Lapse[];
  kept: Fate["kept"];
  outcome: Fate["outcome"];
}

function draftOf(control: number, frame: number): Draft {
  return { control, frame, uses: [], losses: [], fires: [], lapses: [], kept: undefined, outcome: "unheard" };
}

function outcomeOf(draft: Draft): Fate["outcome"] {
  if (draft.uses.length > 0) return "used";
  if (draft.losses.length > 0) return "lost";
  if (draft.fires.length > 0) return "fired";
  return draft.lapses.length > 0 ? "lapsed" : "unheard";
}

/**
 * The fate of every press edge of a trace, in order of frame and then of control. Reads notes only: the trace and its
 * program are all that is needed. A press that went into several requests has all of them; one use makes it used.
 */
export function listFates(program: Program, trace: Trace): Fate[] {
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
  for (let i = 0; i < trace.count; i++) {
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
        each(i, draft => draft.fires.push({ pattern: subject, frame }));
        break;
      case LAPSE: {
        const pattern = program.patterns[subject]!;
        const since = formingSince[subject]! < 0 ? frame : formingSince[subject]!;
        for (const control of pattern.controls) {
          const presses = ofControl[control]!;
          for (let k = presses.length - 1; k >= 0 && presses[k]!.frame >= since; k--)
            presses[k]!.lapses.push({ pattern: subject, frame, reason: first });
        }
        break;
      }
      case REQUEST:
        requests.set(frame * program.moves.length + subject, i);
        break;
      case PERFORMED:
        each(endOf(subject, first), draft =>
          draft.uses.push({ kind: "move", index: subject, made: first, frame, by: trace.payload[at + 1]! }),
        );
        break;
      case LOST:
        each(endOf(subject, first), draft =>
          draft.losses.push({
            move: subject,
            made: first,
            frame,
            reason: trace.payload[at + 1]!,
            because: trace.payload[at + 2]!,
            spentAt: trace.payload[at + 3]!,
          }),
        );
        break;
      case PROMPT: {
        if (first === SHOWN || first === OPENED || first === FAILED) break;
        const answer = program.prompts[subject]!.ask.find(pattern => firesNow.has(pattern));
        each(answer === undefined ? undefined : firesNow.get(answer), draft =>
          draft.uses.push({ kind: "prompt", index: subject, made: frame, frame, by: 0 }),
        );
        break;
      }
    }
  }
  for (const draft of all) draft.outcome = outcomeOf(draft);
  return all;
}
