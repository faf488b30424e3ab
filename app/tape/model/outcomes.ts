import type { Fate, TakeOutcomes } from "#core";

/** The outcomes that an overview of a take shows: presses, performances, and the loss of each lost press. */
export type Shown = "presses" | "performed" | "lost";

/** Calls back with the frame of each outcome shown, without a list of them: a take of ten hours has 600,000. */
export function eachShown(
  { presses, requests }: TakeOutcomes,
  onFrame: (shown: Shown, frame: number) => void,
): void {
  for (const { frame, outcome, losses } of presses) {
    onFrame("presses", frame);
    if (outcome === "lost") onFrame("lost", losses.at(-1)!.frame);
  }
  for (const { end, frame } of requests) if (end === "performed") onFrame("performed", frame);
}

/** Returns the cells of a strip over a take of `frames` frames that contain each outcome, in order, from 0. */
export function overviewCells(
  outcomes: TakeOutcomes,
  frames: number,
  cells: number,
): Readonly<Record<Shown, readonly number[]>> {
  const newCells = () => new Uint8Array(cells);
  const isIn: Record<Shown, Uint8Array> = { presses: newCells(), performed: newCells(), lost: newCells() };
  eachShown(
    outcomes,
    (shown, frame) =>
      (isIn[shown][Math.min(cells - 1, Math.floor((frame * cells) / Math.max(1, frames)))] = 1),
  );
  const listOf = (shown: Shown) => [...isIn[shown].keys()].filter(cell => isIn[shown][cell] === 1);
  return { presses: listOf("presses"), performed: listOf("performed"), lost: listOf("lost") };
}

/** A press performed late, with its delay in frames. */
export interface Late {
  readonly fate: Fate;
  readonly waited: number;
}

/** The presses of a take that have a list, each list in the order of the take but for the last. */
export interface PressLists {
  readonly lost: readonly Fate[];
  /** Without a result: rules saw them and lapsed. */
  readonly silent: readonly Fate[];
  /** Performed later than requested, longest delay first. */
  readonly late: readonly Late[];
}

/** Lists the presses that were lost, without a result, or late, in one pass: a take of ten hours has 300,000. */
export function listPresses(presses: readonly Fate[]): PressLists {
  const lost: Fate[] = [];
  const silent: Fate[] = [];
  const late: Late[] = [];
  for (const fate of presses) {
    if (fate.outcome === "lost") lost.push(fate);
    else if (fate.outcome === "lapsed") silent.push(fate);
    let waited = 0;
    for (const { made, frame } of fate.uses) waited = Math.max(waited, frame - made);
    if (waited > 0) late.push({ fate, waited });
  }
  late.sort((a, b) => b.waited - a.waited || a.fate.frame - b.fate.frame);
  return { lost, silent, late };
}
