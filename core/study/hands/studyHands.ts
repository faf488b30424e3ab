import { ownValue } from "../../formats/ownValue";
import { landingFrame } from "../../time/clock";
import type { Take } from "../../input/takeSchema";
import { readTake, type InputColumns } from "../../input/inputColumns";
import type { Kit } from "../../kit/schema";
import { edgeKey, type Program } from "../../program/program";
import { firstAbove } from "../../time/rising";
import type { Trace } from "../../trace/trace";
import { usersOf, type Fate } from "../outcomes/fate";
import { readOutcomes } from "../outcomes/readOutcomes";
import type { PreparedKit, PrepareRun } from "../prepareRun";
import type { Character } from "./character";
import { STILL } from "./character";
import { playHandWithPositions, type PlayedAt } from "./playHand";
import { shareOf, type Share } from "./wilson";

/** The parameters of a study of hands. */
export interface HandsQuestion {
  readonly kit: Kit;
  readonly character: Character;
  readonly seed: number;
  /** The number of repetitions of each take, with consecutive seeds. */
  readonly count: number;
}

/** One press of a take that a rule used, and the number of repetitions in which it was used the same way. */
export interface PressShare {
  readonly take: string;
  readonly control: string;
  /** Its index among the presses of its lane, and its frame in the take's own run. */
  readonly press: number;
  readonly frame: number;
  /** Indices of the moves and prompts that used it. */
  readonly moves: readonly number[];
  readonly prompts: readonly number[];
  readonly share: Share;
  /** The seed of the first repetition in which it was not; undefined if it always was. */
  readonly failsAt: number | undefined;
}

/** The result of a study of hands. */
export interface HandsResult {
  readonly plays: number;
  readonly presses: readonly PressShare[];
  /** By index of the move or prompt: of all presses it used, how often they were used again. */
  readonly moves: readonly { readonly index: number; readonly share: Share }[];
  readonly prompts: readonly { readonly index: number; readonly share: Share }[];
  /** By index of the check: the number of repetitions in which it holds. */
  readonly checks: readonly { readonly check: number; readonly share: Share }[];
}

/** Returns the frame of a stroke's press edge: the first on its control within the stroke; −1 for none. */
function edgeOf(columns: InputColumns, control: number, fromFrame: number, toFrame: number): number {
  const { controlFrame, controlChange } = columns;
  for (let k = firstAbove(controlFrame, fromFrame - 1); k < controlFrame.length; k++) {
    if (controlFrame[k]! > toFrame) return -1;
    if (controlChange[k] === control * 2 + 1) return controlFrame[k]!;
  }
  return -1;
}

function fatesOf(program: Program, trace: Trace): ReadonlyMap<number, Fate> {
  return new Map(
    readOutcomes(program, trace).presses.map(fate => [
      edgeKey(fate.frame, fate.control, program.sourceCount),
      fate,
    ]),
  );
}

const usesOf = (fate: Fate | undefined, kind: "move" | "prompt") => (fate ? usersOf(fate, kind) : []);

interface Counted {
  readonly take: Take;
  readonly control: string;
  readonly place: number;
  readonly press: number;
  readonly frame: number;
  readonly moves: readonly number[];
  readonly prompts: readonly number[];
  hits: number;
  failsAt: number | undefined;
}

/** Returns the fate of one press of a take in a repetition. */
function fateAt(
  { program }: PreparedKit,
  take: Take,
  columns: InputColumns,
  fates: ReadonlyMap<number, Fate>,
  at: PlayedAt,
  control: string,
  press: number,
): { readonly frame: number; readonly fate: Fate | undefined } {
  const came = ownValue(at, control)?.[press];
  const place = program.controls.findIndex(({ id }) => id === control);
  if (!came || place < 0) return { frame: -1, fate: undefined };
  const from = landingFrame(came.from, program.rateHz, take.rate);
  const frame = edgeOf(columns, place, from, landingFrame(came.to, program.rateHz, take.rate));
  return { frame, fate: fates.get(edgeKey(frame, place, program.sourceCount)) };
}

/**
 * Repeats takes with a character, `count` times each, and counts: for each press a move or prompt used in the
 * take's own run, the repetitions in which the same moves and prompts use it; the same per rule; and for each
 * check the repetitions in which it holds. A character without spread gives shares of 1. Yields after every
 * repetition. Seeds: `seed`, `seed` + 1 …
 */
export function* studyHands(
  { kit, character, seed, count }: HandsQuestion,
  takes: readonly Take[],
  prepare: PrepareRun,
): Generator<{ readonly done: number; readonly of: number }, HandsResult> {
  const ready = prepare(kit);
  const of = takes.length * count;
  const all: Counted[] = [];
  const checks = new Map<number, { hits: number; n: number }>();
  let done = 0;
  for (const take of ready ? takes : []) {
    const { program, run, judge } = ready!;
    const still = playHandWithPositions(take, STILL, 0);
    const own = readTake(program, take);
    const ownFates = fatesOf(program, run(own));
    const counted = Object.entries(still.at).flatMap(([control, presses]) =>
      presses.flatMap((_, press): Counted[] => {
        const { frame, fate } = fateAt(ready!, take, own, ownFates, still.at, control, press);
        const moves = usesOf(fate, "move");
        const prompts = usesOf(fate, "prompt");
        if (moves.length + prompts.length === 0) return [];
        const place = program.controls.findIndex(({ id }) => id === control);
        return [{ take, control, place, press, frame, moves, prompts, hits: 0, failsAt: undefined }];
      }),
    );
    all.push(...counted);
    for (let h = 0; h < count; h++) {
      const played = playHandWithPositions(take, character, seed + h);
      const columns = readTake(program, played.take);
      const trace = run(columns);
      const fates = fatesOf(program, trace);
      for (const one of counted) {
        const { fate } = fateAt(ready!, take, columns, fates, played.at, one.control, one.press);
        const isSame =
          usesOf(fate, "move").join() === one.moves.join() &&
          usesOf(fate, "prompt").join() === one.prompts.join();
        if (isSame) one.hits++;
        else one.failsAt ??= seed + h;
      }
      for (const { check, ok } of judge?.(trace, take.id) ?? []) {
        const sum = checks.get(check) ?? { hits: 0, n: 0 };
        sum.n++;
        if (ok) sum.hits++;
        checks.set(check, sum);
      }
      yield { done: ++done, of };
    }
  }
  const byRule = (kind: "moves" | "prompts") => {
    const sums = new Map<number, { hits: number; n: number }>();
    for (const one of all)
      for (const index of one[kind]) {
        const sum = sums.get(index) ?? { hits: 0, n: 0 };
        sum.n += count;
        sum.hits += one.hits;
        sums.set(index, sum);
      }
    return [...sums.entries()]
      .sort((a, b) => a[0] - b[0])
      .map(([index, { hits, n }]) => ({ index, share: shareOf(hits, n) }));
  };
  return {
    plays: done,
    presses: all.map(({ take, control, press, frame, moves, prompts, hits, failsAt }) => {
      return { take: take.id, control, press, frame, moves, prompts, share: shareOf(hits, count), failsAt };
    }),
    moves: byRule("moves"),
    prompts: byRule("prompts"),
    checks: [...checks.entries()]
      .sort((a, b) => a[0] - b[0])
      .map(([check, { hits, n }]) => ({ check, share: shareOf(hits, n) })),
  };
}
