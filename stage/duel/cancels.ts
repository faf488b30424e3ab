import {
  createInputCursor,
  createTrace,
  findObstacleOf,
  groupBy,
  loadInput,
  type Kit,
  type Move,
  type Program,
  type State,
} from "#core";
import { createTrials, duelOf, TRIAL_FRAMES, type OpponentDoes, type Trial, type Trials } from "./blows";
import type { Rules } from "../rules";
import { stageOf } from "../stage";
import { createStaging, stepStaging } from "../staging";

/** The outcomes of the blow of a move; moves of a kit without a duel are tried as misses. */
export const BLOWS = ["miss", "hit", "guard"] as const;
export type Blow = (typeof BLOWS)[number];

/** The outcomes in words. */
export const BLOW_WORDS: Readonly<Record<Blow, string>> = {
  miss: "on a miss",
  hit: "on a hit",
  guard: "on a guard",
};

/** The maximum number of moves that are tried for a table or a file: each is run up to six times. */
export const MAX_MOVES_TRIED = 60;

/** Frames of a move's timeline, counted from its performance; both ends included. */
export interface FrameRange {
  readonly from: number;
  readonly to: number;
}

/** The moves that may follow a move before its timeline is over. */
export interface Cancels {
  /** The length of the timeline, in frames. */
  readonly frames: number;
  /** For each outcome that was tried and occurred: for each move of the kit, by index, the frames on which it may be performed. */
  readonly follows: ReadonlyMap<Blow, readonly (readonly FrameRange[])[]>;
}

const TICKS = 100;

/** Returns the ids of the gates that a game opens: those that nothing in a kit without a stage does. */
function freeGates(kit: Kit): ReadonlySet<string> {
  if (stageOf(kit)) return new Set();
  const opened = new Set([
    ...(kit.moves ?? []).flatMap(({ opens = [] }) => opens.map(({ gate }) => gate)),
    ...(kit.prompts ?? []).flatMap(({ opens }) => opens ?? []),
    ...(kit.gates ?? []).flatMap(({ id, all, any, none, while: whilst, fires, performs }) =>
      all || any || none || whilst || fires || performs ? [id] : [],
    ),
  ]);
  return new Set((kit.gates ?? []).flatMap(({ id }) => (opened.has(id) ? [] : [id])));
}

/** Returns whether every fire for which one move asks is one for which a rival of its pattern asks too. */
const isAskedWith = (own: Program["moves"][number], rival: Program["moves"][number]): boolean =>
  (rival.whenCount < 0 || rival.whenCount === own.whenCount) &&
  Math.max(0, rival.whenLevel) <= Math.max(0, own.whenLevel);

/** The parts of a kit that decide about following, whatever the state. */
interface Order {
  readonly isOff: readonly boolean[];
  /**
   * For each move the moves of its pattern that every fire for it asks for too, of a higher priority, and those of the same that are
   * above it.
   */
  readonly rivals: readonly (readonly number[])[];
  /** The gates that count as open for needs. */
  readonly free: ReadonlySet<number>;
}

function orderOf(kit: Kit, { program }: Rules, free: ReadonlySet<string>): Order {
  const off = new Set(kit.patterns.flatMap(({ id, off: isOff }) => (isOff ? [id] : [])));
  const isOff = kit.moves!.map(move => move.off === true || off.has(move.pattern));
  const { moves } = program;
  const ofPattern = groupBy(moves.keys(), m => moves[m]!.pattern);
  const rivals = moves.map((own, m) =>
    own.shares
      ? []
      : ofPattern.get(own.pattern)!.filter(r => {
          const { priority } = moves[r]!;
          if (isOff[r] || !isAskedWith(own, moves[r]!)) return false;
          return priority > own.priority || (priority === own.priority && r < m);
        }),
  );
  const isFree = program.gates.flatMap(({ id }, gate) => (free.has(id) ? [gate] : []));
  return { isOff, rivals, free: new Set(isFree) };
}

/** Returns whether a press could perform a move on the frame of a state: nothing keeps it away, and it prefers no other. */
function isAllowed({ program }: Rules, { isOff, rivals, free }: Order, state: State, m: number): boolean {
  const may = (move: number, isTakenAsOpen?: (gate: number) => boolean) =>
    program.moves[move]!.activeIn[state.mode] === true &&
    findObstacleOf(program, state, move, isTakenAsOpen) === 0;
  return !isOff[m] && may(m, gate => free.has(gate)) && !rivals[m]!.some(rival => may(rival));
}

/** Returns the length of a move's timeline, in ticks. */
function timelineTicks({ rules, move }: Trial): number {
  const { startupTicks, activeTicks, recoveryTicks } = rules.program.moves[move]!;
  return startupTicks + activeTicks + recoveryTicks;
}

/**
 * Runs a trial until the move's timeline is over; `see` is called on each of its frames, and ends the trial if it returns
 * false. Returns the frame of the performance, −1 without one.
 */
function runTrial(trial: Trial, see: (age: number, state: State) => boolean): number {
  const { rules, columns, move } = trial;
  const { program } = rules;
  const staging = createStaging(rules);
  const { state } = staging;
  const trace = createTrace(program.rateHz);
  const cursor = createInputCursor(program, columns);
  const wholeTicks = timelineTicks(trial);
  for (let frame = 0; frame < TRIAL_FRAMES; frame++) {
    stepStaging(rules, staging, loadInput(cursor, frame), trace);
    if (state.performedFrame[move]! < 0) continue;
    const ageTicks = state.gameTicks - state.slotTicks[program.moves[move]!.slot]!;
    if (ageTicks >= wholeTicks || !see(ageTicks / TICKS, state)) break;
  }
  return state.performedFrame[move]!;
}

/** Adds a frame to ranges in ascending order. */
function extend(ranges: { from: number; to: number }[], age: number): void {
  const last = ranges.at(-1);
  const frame = Math.ceil(age);
  if (last && frame <= last.to + 1) last.to = Math.max(last.to, frame);
  else ranges.push({ from: frame, to: frame });
}

const OPPONENTS: Readonly<Record<Blow, OpponentDoes>> = {
  hit: "waits",
  miss: { does: "away", frames: 2 * TRIAL_FRAMES },
  guard: { does: "guard", frames: 2 * TRIAL_FRAMES },
};

/** A move as it is tried. */
interface Begun {
  readonly first: Trial;
  /** The frame on which it is performed, and the mode then. */
  readonly began: number;
  readonly mode: number;
  /** The ids of the gates that are open throughout. */
  readonly throughout: readonly string[];
}

/** Tries a move with gates open throughout; undefined if it is not performed. */
function beginWith(throughout: readonly string[], move: number, does: OpponentDoes, trials: Trials) {
  const first = trials.prepare(move, does, { throughout });
  if (!first) return undefined;
  let mode = -1;
  const began = runTrial(first, (_age, state) => {
    mode = state.mode;
    return false;
  });
  return began < 0 ? undefined : { first, began, mode, throughout };
}

/**
 * Tries a move with all gates open that a game opens and that any move needs, if it is performed so and in the mode in which the kit
 * starts; else with those that it needs itself. Undefined if it is not performed.
 */
function begin(
  kit: Kit,
  move: number,
  does: OpponentDoes,
  free: ReadonlySet<string>,
  trials: Trials,
): Begun | undefined {
  const own = kit.moves![move]!;
  const gatesFor = (moves: readonly Move[]) => {
    const needed = moves.flatMap(({ needs = [] }) => needs.map(({ gate }) => gate));
    return [...new Set(needed)].filter(gate => free.has(gate) && !own.bans?.includes(gate));
  };
  const [all, least] = [gatesFor(kit.moves!), gatesFor([own])];
  const begun = beginWith(all, move, does, trials);
  if (all.length === least.length) return begun;
  const isAtStart = begun && (kit.modes ?? [])[begun.mode]?.id === kit.start;
  return isAtStart ? begun : (beginWith(least, move, does, trials) ?? begun);
}

/**
 * Finds the moves that may follow a move before its timeline is over, by running it: on each of its frames the needs, bans,
 * cooldowns and uses of all moves are judged as the rules do, and of moves of one pattern the one that a press would set off is
 * taken. Without a stage, gates that nothing in the kit opens count as open for needs, and stay open if moves need them: a
 * game opens them. On a duel the move is tried on a hit, on a guard and as a miss. Returns undefined for moves without a timeline,
 * and for those that no input made for their patterns performs. `trials` are those of the kit, which several moves share.
 */
export function findCancels(kit: Kit, move: number, trials: Trials = createTrials(kit)): Cancels | undefined {
  const follows = new Map<Blow, FrameRange[][]>();
  const free = freeGates(kit);
  let frames = 0;
  for (const blow of duelOf(kit) ? BLOWS : (["miss"] as const)) {
    const begun = begin(kit, move, OPPONENTS[blow], free, trials);
    frames = begun ? timelineTicks(begun.first) / TICKS : 0;
    if (!begun || frames === 0) return undefined;
    const { began, throughout } = begun;
    // The gates that it needs are held open until it is performed, and follow the rules from then on; those that a game opens stay.
    const trial = trials.prepare(move, OPPONENTS[blow], { openUntil: began + 1, throughout })!;
    const order = orderOf(kit, trial.rules, free);
    const ranges = kit.moves!.map((): { from: number; to: number }[] => []);
    runTrial(trial, (age, state) => {
      if (age > 0 || state.frame > began)
        ranges.forEach((own, m) => isAllowed(trial.rules, order, state, m) && extend(own, age));
      return true;
    });
    follows.set(blow, ranges);
  }
  return { frames, follows };
}

/** Formats ranges of frames: "10–24f", several with commas; empty for none. */
export function formatRanges(ranges: readonly FrameRange[]): string {
  return ranges.map(({ from, to }) => (from === to ? `${from}f` : `${from}–${to}f`)).join(", ");
}
