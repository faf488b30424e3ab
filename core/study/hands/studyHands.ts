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
import { isUnmeant, meantControls } from "./meantPresses";
import { shareOverTakes, type TakeSum } from "./overTakes";
import { playHandWithPositions, type PlayedTake } from "./playHand";
import { shareOf, type Share } from "./wilson";

/** The parameters of a study of hands. */
export interface HandsQuestion {
  readonly kit: Kit;
  readonly character: Character;
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
const isUsed = (fate: Fate | undefined) => usesOf(fate, "move").length + usesOf(fate, "prompt").length > 0;

interface Counted {
  readonly take: Take;
  readonly control: string;
  /** The control's index in the program. */
  readonly place: number;
  readonly press: number;
  readonly frame: number;
  readonly moves: readonly number[];
  readonly prompts: readonly number[];
  kept: number;
  same: number;
  failsAt: number | undefined;
}

/** A repetition that was run. */
interface Run {
  readonly take: Take;
  readonly columns: InputColumns;
  readonly fates: ReadonlyMap<number, Fate>;
}

/** Returns the fate of a press that lasts from `from` to `to`, in frames of the take. */
function fateWithin(
  { program }: PreparedKit,
  { take, columns, fates }: Run,
  place: number,
  { from, to }: { readonly from: number; readonly to: number },
): { readonly frame: number; readonly fate: Fate | undefined } {
  if (place < 0) return { frame: -1, fate: undefined };
  const landed = landingFrame(from, program.rateHz, take.rate);
  const frame = edgeOf(columns, place, landed, landingFrame(to, program.rateHz, take.rate));
  return { frame, fate: fates.get(edgeKey(frame, place, program.sourceCount)) };
}

/** Returns the presses of a take on the controls of rules: those that were meant, and those that are marked as not. */
function listPresses(
  ready: PreparedKit,
  take: Take,
  only: string | undefined,
): { readonly meant: Counted[]; readonly unmeant: Counted[] } {
  const { program, run } = ready;
  const columns = readTake(program, take);
  const own: Run = { take, columns, fates: fatesOf(program, run(columns)) };
  const controls = meantControls(program);
  const [meant, unmeant]: [Counted[], Counted[]] = [[], []];
  for (const [control, presses] of Object.entries(playHandWithPositions(take, STILL, 0).at)) {
    const place = program.controls.findIndex(({ id }) => id === control);
    if (!controls.has(place) || (only !== undefined && only !== control)) continue;
    presses.forEach((came, press) => {
      const { frame, fate } = fateWithin(ready, own, place, came!);
      // An analog press that never reaches the threshold is none.
      if (frame < 0) return;
      const [moves, prompts] = [usesOf(fate, "move"), usesOf(fate, "prompt")];
      const list = isUnmeant(take, control, came!.from, came!.to) ? unmeant : meant;
      list.push({ take, control, place, press, frame, moves, prompts, kept: 0, same: 0, failsAt: undefined });
    });
  }
  return { meant, unmeant };
}

/** Sums by rule or check, a sum for each take. */
type Sums = Map<number, { hits: number; n: number }[]>;

function addSum(sums: Sums, index: number, takes: number, hits: number, n: number): void {
  const own = sums.get(index) ?? [];
  sums.set(index, own);
  while (own.length <= takes) own.push({ hits: 0, n: 0 });
  own[takes]!.hits += hits;
  own[takes]!.n += n;
}

/** Counts one repetition: which meant presses are used, and how many unwanted ones are. */
function countPlay(
  ready: PreparedKit,
  { meant, unmeant }: ReturnType<typeof listPresses>,
  played: PlayedTake,
  run: Run,
  seed: number,
  count: (one: Counted, fate: Fate | undefined) => void,
): number {
  const cameAt = ({ control, press }: Counted) => ownValue(played.at, control)?.[press];
  for (const one of meant) {
    const came = cameAt(one);
    const fate = came && fateWithin(ready, run, one.place, came).fate;
    const isSame =
      usesOf(fate, "move").join() === one.moves.join() &&
      usesOf(fate, "prompt").join() === one.prompts.join();
    if (isUsed(fate)) one.kept++;
    else one.failsAt ??= seed;
    if (isSame) one.same++;
    count(one, fate);
  }
  const placeOf = (control: string) => ready.program.controls.findIndex(({ id }) => id === control);
  const slips = unmeant.filter(one => {
    const came = cameAt(one);
    return came && isUsed(fateWithin(ready, run, one.place, came).fate);
  });
  const doubles = played.doubled.filter(one =>
    isUsed(fateWithin(ready, run, placeOf(one.control), one).fate),
  );
  return slips.length + doubles.length;
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
  { kit, character, seed, count, control, never = [] }: HandsQuestion,
  takes: readonly Take[],
  prepare: PrepareRun,
): Generator<{ readonly done: number; readonly of: number }, HandsResult> {
  const ready = prepare(kit);
  const of = takes.length * count;
  const all: Counted[] = [];
  const kept: TakeSum[] = [];
  const [moves, prompts, checks]: [Sums, Sums, Sums] = [new Map(), new Map(), new Map()];
  const byControl = ready ? rulesByControl(ready.program) : [];
  let unwanted = 0;
  let done = 0;
  for (const [t, take] of (ready ? takes : []).entries()) {
    const { program, run, judge } = ready!;
    const listed = listPresses(ready!, take, control);
    const countRules = ({ place }: Counted, fate: Fate | undefined) => {
      const used = [usesOf(fate, "move"), usesOf(fate, "prompt")];
      for (const m of byControl[place]!.moves) addSum(moves, m, t, used[0]!.includes(m) ? 1 : 0, 1);
      for (const p of byControl[place]!.prompts) addSum(prompts, p, t, used[1]!.includes(p) ? 1 : 0, 1);
    };
    all.push(...listed.meant);
    for (let h = 0; h < count; h++) {
      const played = playHandWithPositions(take, character, seed + h);
      const columns = readTake(program, played.take);
      const trace = run(columns);
      const own: Run = { take, columns, fates: fatesOf(program, trace) };
      unwanted += countPlay(ready!, listed, played, own, seed + h, countRules);
      for (const { check, ok } of judge?.(trace, take.id) ?? []) {
        addSum(checks, check, t, ok ? 1 : 0, 1);
        if (!ok && never.includes(check)) unwanted++;
      }
      yield { done: ++done, of };
    }
    kept.push({ hits: listed.meant.reduce((sum, one) => sum + one.kept, 0), n: listed.meant.length * count });
  }
  const over = (sums: readonly TakeSum[]) => shareOverTakes(sums, count, seed);
  const shares = (sums: Sums) =>
    [...sums].sort((a, b) => a[0] - b[0]).map(([index, own]) => ({ index, share: over(own) }));
  return {
    plays: done,
    takes: kept.filter(({ n }) => n > 0).length,
    kept: over(kept),
    unwanted,
    presses: all.map(({ take, control, press, frame, kept: hits, same, failsAt, ...uses }) => ({
      take: take.id,
      control,
      press,
      frame,
      moves: uses.moves,
      prompts: uses.prompts,
      kept: shareOf(hits, count),
      same: uses.moves.length + uses.prompts.length > 0 ? shareOf(same, count) : undefined,
      failsAt,
    })),
    moves: shares(moves),
    prompts: shares(prompts),
    checks: shares(checks).map(({ index, share }) => ({ check: index, share })),
  };
}
