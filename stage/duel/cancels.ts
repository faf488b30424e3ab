import { createInputCursor, createTrace, findObstacleOf, loadInput, type Kit } from "#core";
import { prepareTrial, TRIAL_FRAMES, type OpponentDoes, type Trial } from "./blows";
import type { Rules } from "../rules";
import { stageOf } from "../stage";
import { createStaging, stepStaging } from "../staging";

/** The outcomes of the blow of a move; moves of a kit without a duel are tried as misses. */
export const BLOWS = ["miss", "hit", "guard"] as const;
export type Blow = (typeof BLOWS)[number];

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

/** Returns the gates, by index in the program, that a game opens: those that nothing in a kit without a stage does. */
function freeGates(kit: Kit, { program }: Rules): ReadonlySet<number> {
  if (stageOf(kit)) return new Set();
  const opened = new Set([
    ...(kit.moves ?? []).flatMap(({ opens = [] }) => opens.map(({ gate }) => gate)),
    ...(kit.prompts ?? []).flatMap(({ opens }) => opens ?? []),
    ...(kit.gates ?? []).flatMap(({ id, all, any, none, while: whilst, fires, performs }) =>
      all || any || none || whilst || fires || performs ? [id] : [],
    ),
  ]);
  const declared = new Set((kit.gates ?? []).map(({ id }) => id));
  return new Set(
    program.gates.flatMap(({ id }, gate) => (declared.has(id) && !opened.has(id) ? [gate] : [])),
  );
}

/** Returns the moves that may be performed on the frame of a state, apart from those that another one is preferred to. */
function listAllowed(
  kit: Kit,
  { program }: Rules,
  state: ReturnType<typeof createStaging>["state"],
  free: ReadonlySet<number>,
) {
  const isOff = (m: number) => {
    const { off, pattern } = kit.moves![m]!;
    return off === true || kit.patterns.find(({ id }) => id === pattern)?.off === true;
  };
  const may = (m: number, takesFree: boolean) =>
    !isOff(m) &&
    program.moves[m]!.activeIn[state.mode] &&
    findObstacleOf(program, state, m, takesFree ? gate => free.has(gate) : undefined) === 0;
  const certain = program.moves.map((_, m) => may(m, false));
  return program.moves.map((own, m) => {
    if (!may(m, true)) return false;
    // One press sets off one move of its pattern: that of the highest priority, of equals the first.
    const isBeaten = (rival: (typeof program.moves)[number], r: number) =>
      r !== m &&
      certain[r]! &&
      rival.pattern === own.pattern &&
      (rival.priority > own.priority || (rival.priority === own.priority && r < m));
    return own.shares || !program.moves.some(isBeaten);
  });
}

/** Runs a trial up to the end of the move's timeline; `see` is called on each of its frames. Returns the performance. */
function runTrial(
  { rules, columns, move }: Trial,
  see: (age: number, staging: ReturnType<typeof createStaging>) => void,
): number {
  const { program } = rules;
  const staging = createStaging(rules);
  const trace = createTrace(program.rateHz);
  const cursor = createInputCursor(program, columns);
  const { startupTicks, activeTicks, recoveryTicks } = program.moves[move]!;
  for (let frame = 0; frame < TRIAL_FRAMES; frame++) {
    stepStaging(rules, staging, loadInput(cursor, frame), trace);
    const { performedFrame, slotTicks, gameTicks } = staging.state;
    if (performedFrame[move]! < 0) continue;
    const ageTicks = gameTicks - slotTicks[program.moves[move]!.slot]!;
    if (ageTicks >= startupTicks + activeTicks + recoveryTicks) break;
    if (frame > performedFrame[move]!) see(ageTicks / TICKS, staging);
  }
  return staging.state.performedFrame[move]!;
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

/**
 * Finds the moves that may follow a move before its timeline is over, by running it: on each of its frames the needs, bans,
 * cooldowns and uses of all moves are judged as the rules do, and of moves of one pattern the one that a press would set off is
 * taken. Without a stage, gates that nothing in the kit opens count as open for needs: a game opens them. On a duel the move is tried on a hit, on a guard and as a
 * miss. Returns undefined for moves without a timeline, and for those that need more than a press.
 */
export function findCancels(kit: Kit, move: number): Cancels | undefined {
  const blows = stageOf(kit)?.kind === "duel" ? BLOWS : (["miss"] as const);
  const follows = new Map<Blow, FrameRange[][]>();
  let frames = 0;
  for (const blow of blows) {
    const first = prepareTrial(kit, move, OPPONENTS[blow]);
    if (!first) return undefined;
    const { startupTicks, activeTicks, recoveryTicks } = first.rules.program.moves[first.move]!;
    frames = (startupTicks + activeTicks + recoveryTicks) / TICKS;
    const began = runTrial(first, () => undefined);
    if (frames === 0 || began < 0) return undefined;
    const trial = prepareTrial(kit, move, OPPONENTS[blow], began + 1)!;
    const free = freeGates(kit, trial.rules);
    const ranges = kit.moves!.map((): { from: number; to: number }[] => []);
    runTrial(trial, (age, { state }) =>
      listAllowed(kit, trial.rules, state, free).forEach(
        (isAllowed, m) => isAllowed && extend(ranges[m]!, age),
      ),
    );
    follows.set(blow, ranges);
  }
  return { frames, follows };
}

/** Formats ranges of frames: "10–24f", several with commas; empty for none. */
export function formatRanges(ranges: readonly FrameRange[]): string {
  return ranges.map(({ from, to }) => (from === to ? `${from}f` : `${from}–${to}f`)).join(", ");
}
