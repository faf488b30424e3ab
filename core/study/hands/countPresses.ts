import { ownValue } from "../../formats/ownValue";
import { readTake, type InputColumns } from "../../input/inputColumns";
import type { Take } from "../../input/takeSchema";
import { edgeKey, type Program } from "../../program/program";
import { landingFrame } from "../../time/clock";
import { firstAbove } from "../../time/rising";
import type { Trace } from "../../trace/trace";
import { lostMovesOf, usersOf, type Fate } from "../outcomes/fate";
import { readOutcomes } from "../outcomes/readOutcomes";
import type { PreparedKit } from "../prepareRun";
import { STILL } from "./character";
import { isUnmeant, meantControls } from "./meantPresses";
import { playHandWithPositions, type PlayedTake } from "./playHand";

/** Returns the frame of a stroke's press edge: the first on its control within the stroke; −1 for none. */
function edgeOf(columns: InputColumns, control: number, fromFrame: number, toFrame: number): number {
  const { controlFrame, controlChange } = columns;
  for (let k = firstAbove(controlFrame, fromFrame - 1); k < controlFrame.length; k++) {
    if (controlFrame[k]! > toFrame) return -1;
    if (controlChange[k] === control * 2 + 1) return controlFrame[k]!;
  }
  return -1;
}

/** Returns the fates of a run, by the keys of their press edges. */
export function fatesOf(program: Program, trace: Trace): ReadonlyMap<number, Fate> {
  return new Map(
    readOutcomes(program, trace).presses.map(fate => [
      edgeKey(fate.frame, fate.control, program.sourceCount),
      fate,
    ]),
  );
}

export const usesOf = (fate: Fate | undefined, kind: "move" | "prompt") => (fate ? usersOf(fate, kind) : []);
export const isUsed = (fate: Fate | undefined) =>
  usesOf(fate, "move").length + usesOf(fate, "prompt").length > 0;

/** A press of a take, and the plays in which it was used. */
export interface CountedPress {
  readonly take: Take;
  readonly control: string;
  /** The control's index in the program. */
  readonly place: number;
  readonly press: number;
  readonly frame: number;
  readonly moves: readonly number[];
  readonly prompts: readonly number[];
  /** Indices of the moves that lost it in the take; none if one used it. */
  readonly lostBy: readonly number[];
  kept: number;
  same: number;
  failsAt: number | undefined;
}

/** Returns whether a move or a prompt used a press in its take. */
export const isUsedInTake = ({ moves, prompts }: Pick<CountedPress, "moves" | "prompts">): boolean =>
  moves.length + prompts.length > 0;

/** A repetition that was run. */
export interface PlayedRun {
  readonly take: Take;
  readonly columns: InputColumns;
  readonly fates: ReadonlyMap<number, Fate>;
}

/** Returns the fate of a press that lasts from `from` to `to`, in frames of the take. */
function fateWithin(
  { program }: PreparedKit,
  { take, columns, fates }: PlayedRun,
  place: number,
  { from, to }: { readonly from: number; readonly to: number },
): { readonly frame: number; readonly fate: Fate | undefined } {
  if (place < 0) return { frame: -1, fate: undefined };
  const landed = landingFrame(from, program.rateHz, take.rate);
  const frame = edgeOf(columns, place, landed, landingFrame(to, program.rateHz, take.rate));
  return { frame, fate: fates.get(edgeKey(frame, place, program.sourceCount)) };
}

/** The presses of a take on the controls of rules. */
export interface ListedPresses {
  readonly meant: readonly CountedPress[];
  readonly unmeant: readonly CountedPress[];
}

/** Returns the presses of a take on the controls of rules: those that were meant, and those that are marked as not. */
export function listPresses(ready: PreparedKit, take: Take, only: string | undefined): ListedPresses {
  const { program, run } = ready;
  const columns = readTake(program, take);
  const own: PlayedRun = { take, columns, fates: fatesOf(program, run(columns)) };
  const controls = meantControls(program);
  const [meant, unmeant]: [CountedPress[], CountedPress[]] = [[], []];
  for (const [control, presses] of Object.entries(playHandWithPositions(take, STILL, 0).at)) {
    const place = program.controls.findIndex(({ id }) => id === control);
    if (!controls.has(place) || (only !== undefined && only !== control)) continue;
    presses.forEach((came, press) => {
      const { frame, fate } = fateWithin(ready, own, place, came!);
      // An analog press that never reaches the threshold is none.
      if (frame < 0) return;
      const [moves, prompts] = [usesOf(fate, "move"), usesOf(fate, "prompt")];
      const list = isUnmeant(take, control, came!.from, came!.to) ? unmeant : meant;
      const lostBy = fate ? lostMovesOf(fate) : [];
      const counts = { kept: 0, same: 0, failsAt: undefined };
      list.push({ take, control, place, press, frame, moves, prompts, lostBy, ...counts });
    });
  }
  return { meant, unmeant };
}

/**
 * Counts one repetition: which meant presses are used (`count` is called with each and its fate). Returns how many unwanted
 * ones set off a move or prompt: those marked as not meant, and doubled ones. `onsetMs` is undefined for a missing press.
 */
export function countPlay(
  ready: PreparedKit,
  { meant, unmeant }: ListedPresses,
  played: PlayedTake,
  run: PlayedRun,
  seed: number,
  count: (one: CountedPress, fate: Fate | undefined, onsetMs: number | undefined) => void,
): number {
  const cameAt = ({ control, press }: CountedPress) => ownValue(played.at, control)?.[press];
  for (const one of meant) {
    const came = cameAt(one);
    const fate = came && fateWithin(ready, run, one.place, came).fate;
    const isSame =
      usesOf(fate, "move").join() === one.moves.join() &&
      usesOf(fate, "prompt").join() === one.prompts.join();
    if (isUsed(fate)) one.kept++;
    else one.failsAt ??= seed;
    if (isSame) one.same++;
    count(one, fate, came?.onsetMs);
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
