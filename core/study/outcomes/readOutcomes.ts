import { controlsOfKey, keyFrame, keySource, type Program } from "../../program/program";
import { FORMING } from "../../program/state";
import { notes } from "../../trace/noteKinds";
import { edgeCountOf, edgeOf, edgesOf } from "../../trace/notes/edgeList";
import { isAnswered, promptOutcome } from "../../trace/notes/prompt";
import { FAILURES, LAPSE_REASONS, LOSS_REASONS, PERFORMED_BY, type Trace } from "../../trace/trace";
import { controlsThatEnd, controlsThatFail, createShowings } from "./endings";
import { lostMovesOf, type Ending, type Fate } from "./fate";
import { count, createCounts, LOST_TO, noPresses, type RuleCounts } from "./ruleCounts";

/** One request of a move and its end. Frames of the trace; `note` and `endNote` are indices of its notes. */
export interface MoveRequest {
  readonly move: number;
  readonly made: number;
  /** The note with its edges (see edgeList). */
  readonly note: number;
  /** Whether it was repeated while its button was held, and not made by a fire of its frame. */
  readonly isAgain: boolean;
  readonly end: "pending" | "performed" | "lost";
  /** The frame and the note of the end; −1 while pending. */
  readonly frame: number;
  readonly endNote: number;
  /** If performed: an index into PERFORMED_BY. */
  readonly by: number;
  /** If lost: as in the note. */
  readonly reason: number;
  readonly because: number;
  readonly spentAt: number;
}

/** The outcomes of all presses and requests of one trace. */
export interface TakeOutcomes {
  /** The fate of every press edge, ordered by frame and then by control. */
  readonly presses: readonly Fate[];
  /** Every request, in the order of creation. */
  readonly requests: readonly MoveRequest[];
  readonly counts: RuleCounts;
}

type Draft = { -readonly [K in keyof Fate]: Fate[K] };
type RequestDraft = { -readonly [K in keyof MoveRequest]: MoveRequest[K] };

/** The empty list shared by all fates: most presses have few entries. */
const NONE: readonly never[] = Object.freeze([]);

/** The precedence of fates, from lowest to highest. */
const RANKS: Readonly<Record<Fate["outcome"], number>> = {
  unheard: 0,
  lapsed: 1,
  ended: 2,
  fired: 3,
  lost: 4,
  used: 5,
};

function draftOf(control: number, frame: number): Draft {
  return {
    control,
    frame,
    released: undefined,
    outcome: "unheard",
    uses: NONE,
    losses: NONE,
    fires: NONE,
    lapses: NONE,
    endings: NONE,
    kept: undefined,
  };
}

/**
 * Reads outcomes note by note, so that a long trace can be read in slices and a growing one while it grows.
 */
export interface OutcomeReader {
  /** Reads up to a note (exclusive). */
  readonly readTo: (note: number) => void;
  /** The fates read so far; the list and its items change as more is read. */
  readonly presses: readonly Fate[];
  readonly requests: readonly MoveRequest[];
  /** Returns the counts so far. */
  readonly count: () => RuleCounts;
}

/** Callbacks of a reader. */
export interface OutcomeListener {
  /** Called when a press is used for the first time. */
  readonly onUsed?: (press: Fate) => void;
  /**
   * Called when a request is lost. `presses` are the fates of its presses; empty if its directions began with
   * a release.
   */
  readonly onLost?: (presses: readonly Fate[]) => void;
}

/**
 * Creates the reader of the outcomes of presses and requests. Every count, list, map and price of the
 * application uses its results. `trace` may still grow. Reads each note once, in time linear in the edges.
 */
export function createOutcomeReader(
  program: Program,
  trace: Trace,
  { onUsed, onLost }: OutcomeListener = {},
): OutcomeReader {
  const controls = program.controls.length;
  const presses: Draft[] = [];
  const requests: RequestDraft[] = [];
  const counts = createCounts(program);
  const pressesOfControl = program.controls.map((): Draft[] => []);
  /** The presses of the frame of the last one. */
  let pressesNow: Draft[] = [];
  const showings = createShowings(program);
  /** Pending requests, by move and frame. */
  const pending = new Map<number, RequestDraft>();
  /** The notes of this frame's fires, by pattern. */
  const firesNow = new Map<number, number>();
  let firesFrame = -1;
  /**
   * By pattern: the first frame of its current attempt (−1 for none), and the frame of its last fire or
   * lapse.
   */
  const formingSince = new Float64Array(program.patterns.length).fill(-1);
  const endedAt = new Float64Array(program.patterns.length).fill(-1);

  function pressAt(control: number, frame: number): Draft | undefined {
    const own = pressesOfControl[control] ?? [];
    for (let k = own.length - 1; k >= 0 && own[k]!.frame >= frame; k--)
      if (own[k]!.frame === frame) return own[k];
    return undefined;
  }

  /** Adds an item to a list of a press; its fate is the highest of all its outcomes. */
  function add<K extends "uses" | "losses" | "fires" | "lapses" | "endings">(
    draft: Draft,
    list: K,
    item: Fate[K][number],
    outcome: Fate["outcome"],
  ): void {
    const items = draft[list] as unknown[];
    if (items.length === 0) draft[list] = [item] as unknown as Fate[K];
    else items.push(item);
    if (RANKS[outcome] <= RANKS[draft.outcome]) return;
    draft.outcome = outcome;
    if (outcome === "used") onUsed?.(draft);
  }

  /**
   * Adds an item to each press among the edges of a fire or a request; a direction counts as the presses it
   * began with.
   */
  function addToPresses<K extends "uses" | "losses" | "fires" | "endings">(
    note: number,
    list: K,
    item: Fate[K][number],
    outcome: Fate["outcome"],
  ): void {
    for (let k = edgeCountOf(trace, note) - 1; k >= 0; k--) {
      const key = edgeOf(trace, note, k);
      const frame = keyFrame(program, key);
      const source = keySource(program, key);
      if (source < controls) {
        const draft = pressAt(source, frame);
        if (draft && draft[list].at(-1) !== item) add(draft, list, item, outcome);
      } else
        for (const control of controlsOfKey(program, key)) {
          const draft = pressAt(control, frame);
          // A press and the direction it made may both be edges of one fire.
          if (draft && draft[list].at(-1) !== item) add(draft, list, item, outcome);
        }
    }
  }

  /** Returns the fates of the presses of a request. */
  function pressesOf(note: number): readonly Fate[] {
    const found = edgesOf(trace, note).flatMap(key =>
      controlsOfKey(program, key).flatMap(control => pressAt(control, keyFrame(program, key)) ?? []),
    );
    return [...new Set(found)];
  }

  /** Returns whether the pattern could see the press, or something hid it from all but its own rules. */
  function canSee(pattern: number, { kept }: Draft): boolean {
    if (!kept) return true;
    if (kept.kind === "prompt") return program.prompts[kept.index]!.ask.includes(pattern);
    return program.patterns[pattern]!.captures;
  }

  function beginAttempt(pattern: number, frame: number): void {
    counts.patterns[pattern]!.formed++;
    // An attempt that begins on the frame on which another ended is noted as forming one frame later.
    formingSince[pattern] = endedAt[pattern] === frame - 1 ? frame - 1 : frame;
  }

  function endAttempt(pattern: number, frame: number): void {
    formingSince[pattern] = -1;
    endedAt[pattern] = frame;
  }

  /** Adds what ended to the presses of some controls on its frame that nothing hid from it. */
  function addEnding(by: readonly number[], ending: Ending): void {
    for (const press of pressesNow) {
      if (press.frame !== ending.frame || !by.includes(press.control)) continue;
      if (ending.kind === "pattern" && !canSee(ending.index, press)) continue;
      add(press, "endings", ending, "ended");
    }
  }

  /**
   * Adds a lapse to the presses of its attempt, or to the last press the pattern could see if none was noted
   * as forming.
   */
  function lapse(pattern: number, frame: number, reason: number): void {
    count(counts.patterns[pattern]!.lapsed, LAPSE_REASONS[reason]!);
    const since = formingSince[pattern]!;
    let last: Draft | undefined;
    for (const control of program.patterns[pattern]!.controls) {
      const own = pressesOfControl[control]!;
      for (let k = own.length - 1; k >= 0; k--) {
        const press = own[k]!;
        if (since >= 0 && press.frame < since) break;
        if (!canSee(pattern, press)) continue;
        if (since >= 0) add(press, "lapses", { pattern, frame, reason }, "lapsed");
        else {
          if (!last || press.frame > last.frame) last = press;
          break;
        }
      }
    }
    if (last) add(last, "lapses", { pattern, frame, reason }, "lapsed");
    const by = controlsThatEnd(program.patterns[pattern]!, reason);
    if (by.length > 0) addEnding(by, { kind: "pattern", index: pattern, frame, reason });
    endAttempt(pattern, frame);
  }

  function ask(move: number, frame: number, note: number): void {
    const request: RequestDraft = {
      move,
      made: frame,
      note,
      isAgain: !firesNow.has(program.moves[move]!.pattern),
      end: "pending",
      frame: -1,
      endNote: -1,
      by: -1,
      reason: -1,
      because: -1,
      spentAt: -1,
    };
    requests.push(request);
    pending.set(frame * program.moves.length + move, request);
    counts.moves[move]!.asked++;
    counts.moves[move]!.pending++;
  }

  /** Removes the request that ends with a note from the pending ones, and returns it. */
  function endRequest(
    move: number,
    made: number,
    end: MoveRequest["end"],
    note: number,
  ): RequestDraft | undefined {
    const key = made * program.moves.length + move;
    const request = pending.get(key);
    if (!request) return undefined;
    pending.delete(key);
    counts.moves[move]!.pending--;
    request.end = end;
    request.frame = trace.frame[note]!;
    request.endNote = note;
    return request;
  }

  function perform(move: number, frame: number, note: number): void {
    const made = notes.performed.made(trace, note);
    const by = notes.performed.by(trace, note);
    counts.moves[move]!.performed[PERFORMED_BY[by]!]++;
    const request = endRequest(move, made, "performed", note);
    if (!request) return;
    request.by = by;
    addToPresses(request.note, "uses", { kind: "move", index: move, made, frame, by }, "used");
  }

  function lose(move: number, frame: number, note: number): void {
    const made = notes.lost.made(trace, note);
    const reason = notes.lost.reason(trace, note);
    const because = notes.lost.because(trace, note);
    const spentAt = notes.lost.spentAt(trace, note);
    count(counts.moves[move]!.lost, LOSS_REASONS[reason]!);
    const to = LOST_TO.find(name => name === LOSS_REASONS[reason]);
    if (to) count(counts.moves[move]!.lostTo[to], String(because));
    const request = endRequest(move, made, "lost", note);
    if (request) {
      request.reason = reason;
      request.because = because;
      request.spentAt = spentAt;
      addToPresses(request.note, "losses", { move, made, frame, reason, because, spentAt }, "lost");
    }
    onLost?.(request ? pressesOf(request.note) : []);
  }

  /** Adds a failure of a prompt to the presses that brought it about. */
  function failShowing(prompt: number, frame: number, reason: number): void {
    const own = program.prompts[prompt]!;
    const { shownAt, openAt, drawn } = showings[prompt]!;
    const ending: Ending = { kind: "prompt", index: prompt, frame, reason };
    addEnding(controlsThatFail(own, reason, drawn), ending);
    if (FAILURES[reason] !== "wrong" || own.draw < 0) return;
    const from = own.early === "allow" ? shownAt : openAt;
    for (const pattern of own.ask) {
      const fire = firesNow.get(pattern);
      if (fire === undefined || pattern === drawn) continue;
      if (edgesOf(trace, fire).every(key => keyFrame(program, key) >= from))
        addToPresses(fire, "endings", ending, "ended");
    }
  }

  function judge(prompt: number, frame: number, note: number): void {
    const outcome = notes.prompt.outcome(trace, note);
    const detail = notes.prompt.detail(trace, note);
    const own = counts.prompts[prompt]!;
    const showing = showings[prompt]!;
    if (outcome === promptOutcome.shown) {
      own.shown++;
      own.showing++;
      showing.shownAt = frame;
      showing.drawn = detail;
      return;
    }
    if (outcome === promptOutcome.open) {
      showing.openAt = frame;
      return;
    }
    own.showing--;
    if (!isAnswered(outcome)) {
      count(own.failed, FAILURES[detail]!);
      failShowing(prompt, frame, detail);
      return;
    }
    own.answered++;
    if (outcome >= promptOutcome.graded) own.graded[outcome - promptOutcome.graded]!++;
    const fire = firesNow.get(detail);
    if (fire === undefined) return;
    addToPresses(fire, "uses", { kind: "prompt", index: prompt, made: frame, frame, by: 0 }, "used");
  }

  function fire(pattern: number, frame: number, note: number): void {
    counts.patterns[pattern]!.fired++;
    firesNow.set(pattern, note);
    addToPresses(note, "fires", { pattern, frame }, "fired");
    endAttempt(pattern, frame);
  }

  function press(control: number, frame: number): void {
    const draft = draftOf(control, frame);
    presses.push(draft);
    if (pressesNow[0]?.frame === frame) pressesNow.push(draft);
    else pressesNow = [draft];
    pressesOfControl[control]!.push(draft);
  }

  function release(control: number, frame: number): void {
    const draft = pressesOfControl[control]!.at(-1);
    if (draft) draft.released = frame;
  }

  function keep(control: number, frame: number, note: number): void {
    const draft = pressAt(control, frame);
    const kind = notes.kept.isPrompt(trace, note) === 1 ? "prompt" : "pattern";
    if (draft) draft.kept = { kind, index: notes.kept.keeper(trace, note) };
  }

  function readNote(note: number): void {
    const frame = trace.frame[note]!;
    const subject = trace.subject[note]!;
    if (frame !== firesFrame && firesNow.size > 0) firesNow.clear();
    firesFrame = frame;
    switch (trace.kind[note]) {
      case notes.edge.code:
        if (notes.edge.isDown(trace, note) === 1) press(subject, frame);
        else release(subject, frame);
        break;
      case notes.kept.code:
        keep(subject, frame, note);
        break;
      case notes.phase.code:
        if (notes.phase.phase(trace, note) === FORMING) beginAttempt(subject, frame);
        break;
      case notes.fired.code:
        fire(subject, frame, note);
        break;
      case notes.lapsed.code:
        lapse(subject, frame, notes.lapsed.reason(trace, note));
        break;
      case notes.request.code:
        ask(subject, frame, note);
        break;
      case notes.performed.code:
        perform(subject, frame, note);
        break;
      case notes.lost.code:
        lose(subject, frame, note);
        break;
      case notes.prompt.code:
        judge(subject, frame, note);
        break;
    }
  }

  let next = 0;
  return {
    presses,
    requests,
    readTo(note) {
      for (; next < note; next++) readNote(next);
    },
    count() {
      const fateCounts = noPresses();
      const lostPresses = program.moves.map(() => 0);
      for (const fate of presses) {
        fateCounts[fate.outcome]++;
        for (const move of lostMovesOf(fate)) lostPresses[move]!++;
      }
      const moves = counts.moves.map((own, m) => ({ ...own, lostPresses: lostPresses[m]! }));
      return { ...counts, moves, presses: fateCounts };
    },
  };
}

/** Returns the outcome of every press and every request of a complete trace of a program. */
export function readOutcomes(program: Program, trace: Trace): TakeOutcomes {
  const reader = createOutcomeReader(program, trace);
  reader.readTo(trace.count);
  return finishOutcomes(reader);
}

/** Returns the outcomes of a reader that has read its complete trace. */
export function finishOutcomes(reader: OutcomeReader): TakeOutcomes {
  return { presses: reader.presses, requests: reader.requests, counts: reader.count() };
}
