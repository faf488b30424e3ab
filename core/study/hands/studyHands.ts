import { readTake } from "../../input/inputColumns";
import type { Take } from "../../input/takeSchema";
import type { Kit } from "../../kit/schema";
import type { Program } from "../../program/program";
import type { Fate } from "../outcomes/fate";
import type { PrepareRun } from "../prepareRun";
import type { Aims } from "./aims";
import type { Character } from "./character";
import {
  countPlay,
  fatesOf,
  isUsed,
  isUsedInTake,
  listPresses,
  usesOf,
  type CountedPress,
  type PlayedRun,
} from "./countPresses";
import { playHandWithPositions } from "./playHand";
import { drawRefits } from "./refit";
import { addToTally, createTally, shareOfTally, tallyOf, type Tallies, type Tally } from "./tally";
import { shareOf, type Share } from "./wilson";

/** The parameters of a study of hands. */
export interface HandsQuestion {
  readonly kit: Kit;
  readonly character: Character;
  /** For a character fitted to takes: the aims of their presses. Takes without an entry are of other players. */
  readonly aims?: Aims;
  readonly seed: number;
  /** The number of repetitions of each take, with consecutive seeds. */
  readonly count: number;
  /** Only presses of this control are counted; all if undefined. */
  readonly control?: string;
  /** The checks, by index, that something must never happen: what makes one fail is unwanted. */
  readonly never?: readonly number[];
}

/** One meant press of a take, and in how many repetitions it is used. */
export interface PressShare {
  readonly take: string;
  readonly control: string;
  /** Its index among the presses of its lane, and its frame in the take's own run. */
  readonly press: number;
  readonly frame: number;
  /** Indices of the moves and prompts that used it in the take; none if it was lost there. */
  readonly moves: readonly number[];
  readonly prompts: readonly number[];
  /** Indices of the moves that lost it in the take; none if one used it, and if no request was made of it. */
  readonly lostBy: readonly number[];
  /** The repetitions in which some move or prompt uses it. */
  readonly kept: Share;
  /** The repetitions in which the same ones use it as in the take; undefined if none did there. */
  readonly same: Share | undefined;
  /** The seed of the first repetition in which nothing uses it; undefined if it always is used. */
  readonly failsAt: number | undefined;
}

/** The result of a study of hands. */
export interface HandsResult {
  readonly plays: number;
  /** The number of takes with a meant press: intervals are over takes from two on, over plays otherwise. */
  readonly takes: number;
  /** The meant presses that are played around an aim other than where they were recorded. */
  readonly aimed: number;
  /** Of all meant presses, those that some move or prompt uses. */
  readonly kept: Share;
  /** Presses not meant or doubled that set off a move or prompt, and failures of checks that name unwanted events: in all plays. */
  readonly unwanted: number;
  readonly presses: readonly PressShare[];
  /** By index of the move or prompt: of the meant presses on its controls, those that it uses. */
  readonly moves: readonly { readonly index: number; readonly share: Share }[];
  readonly prompts: readonly { readonly index: number; readonly share: Share }[];
  /** By index of the check: the number of repetitions in which it holds. */
  readonly checks: readonly { readonly check: number; readonly share: Share }[];
}

/** The rules whose patterns hear a control, by the control's index. */
function rulesByControl(program: Program) {
  const hears = (pattern: number, control: number) => program.patterns[pattern]!.controls.includes(control);
  return program.controls.map((_, control) => ({
    moves: program.moves.flatMap((move, m) => (!move.isOff && hears(move.pattern, control) ? [m] : [])),
    prompts: program.prompts.flatMap((prompt, p) =>
      !prompt.isOff && [...prompt.ask, ...prompt.drawFrom].some(pattern => hears(pattern, control))
        ? [p]
        : [],
    ),
  }));
}

/**
 * Repeats takes with a character, `count` times each, and counts: of all meant presses, lost ones included, those that some
 * move or prompt uses, in all and by press; for each rule, of the meant presses on its controls, those that it uses; for each
 * check the repetitions in which it holds; and the unwanted events. Presses on controls that no move or prompt uses, and
 * presses marked as not meant, are not among the meant ones. A character without spread uses what the take used. Yields
 * after every repetition. Seeds: `seed`, `seed` + 1 … Source: docs/studies.md, "Hands".
 */
export function* studyHands(
  { kit, character, aims, seed, count, control, never = [] }: HandsQuestion,
  takes: readonly Take[],
  prepare: PrepareRun,
): Generator<{ readonly done: number; readonly of: number }, HandsResult> {
  const ready = prepare(kit);
  const { spreadMs } = character;
  const of = takes.length * count;
  const all: CountedPress[] = [];
  const kept = createTally();
  const [moves, prompts, checks]: [Tallies, Tallies, Tallies] = [new Map(), new Map(), new Map()];
  const aimOf = (one: CountedPress) => aims?.get(one.take.id)?.get(one.control)?.[one.press];
  const byControl = ready ? rulesByControl(ready.program) : [];
  let unwanted = 0;
  let done = 0;
  for (const [t, take] of (ready ? takes : []).entries()) {
    const { program, run, judge } = ready!;
    const listed = listPresses(ready!, take, control);
    const countRules = (one: CountedPress, fate: Fate | undefined, onsetMs: number | undefined) => {
      const [usedByMoves, usedByPrompts] = [usesOf(fate, "move"), usesOf(fate, "prompt")];
      const { moves: heardBy, prompts: askedBy } = byControl[one.place]!;
      const aim = aimOf(one);
      const drawn = aim && onsetMs !== undefined ? { aim, onsetMs, spreadMs } : undefined;
      addToTally(kept, t, isUsed(fate), drawn);
      for (const m of heardBy) addToTally(tallyOf(moves, m), t, usedByMoves.includes(m), drawn);
      for (const p of askedBy) addToTally(tallyOf(prompts, p), t, usedByPrompts.includes(p), drawn);
    };
    all.push(...listed.meant);
    for (let h = 0; h < count; h++) {
      const played = playHandWithPositions(take, character, seed + h, aims?.get(take.id));
      const columns = readTake(program, played.take);
      const trace = run(columns);
      const own: PlayedRun = { take, columns, fates: fatesOf(program, trace) };
      unwanted += countPlay(ready!, listed, played, own, seed + h, countRules);
      for (const { check, ok } of judge?.(trace, take.id) ?? []) {
        addToTally(tallyOf(checks, check), t, ok);
        if (!ok && never.includes(check)) unwanted++;
      }
      yield { done: ++done, of };
    }
  }
  const refits = aims && drawRefits(aims, takes, spreadMs, seed);
  const over = (tally: Tally) => shareOfTally(tally, refits, count, seed);
  const shares = (tallies: Tallies) =>
    [...tallies].sort((a, b) => a[0] - b[0]).map(([index, own]) => ({ index, share: over(own) }));
  return {
    plays: done,
    aimed: all.filter(one => aimOf(one) !== undefined).length,
    takes: kept.all.filter(({ n }) => n > 0).length,
    kept: over(kept),
    unwanted,
    presses: all.map(({ take, control, press, frame, kept: hits, same, failsAt, ...uses }) => ({
      take: take.id,
      control,
      press,
      frame,
      moves: uses.moves,
      prompts: uses.prompts,
      lostBy: uses.lostBy,
      kept: shareOf(hits, count),
      same: isUsedInTake(uses) ? shareOf(same, count) : undefined,
      failsAt,
    })),
    moves: shares(moves),
    prompts: shares(prompts),
    checks: shares(checks).map(({ index, share }) => ({ check: index, share })),
  };
}
