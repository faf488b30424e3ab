import { formatVerdict, appliesTo, type Check, type Take } from "#core";
import type { TakeVerdict } from "#stage";
import { heldIn, type HeldAt } from "../../document/proofPoint";
import type { ProvedTake } from "../../judging/jobs/prove";
import type { CheckSum } from "../../ui/checkSum";
import type { Proof, Verdicts } from "../../document/proving";

/**
 * The state of a cell: holds, holds because nothing could have made it fail, fails, not judged yet, its check does not
 * apply to its take, or cannot be judged.
 */
export type CellLook = "holds" | "vacuous" | "fails" | "unknown" | "unasked" | "faulty";

/** A result that changed: it holds now, or it broke. */
export type Turn = "held" | "broke";

/** How many results turned in each way. */
export type Turns = Readonly<Record<Turn, number>>;

/** Returns how the results of one check turn when it is judged anew, take by take, as the cells of the grid count. */
export function countTurns(
  { found }: Pick<Proof, "found">,
  checkId: string,
  takes: readonly Take[],
  proved: readonly ProvedTake[],
): Turns {
  const heldAt = heldIn(found);
  const turns = { held: 0, broke: 0 };
  for (const { take, verdicts } of proved) {
    const before = heldAt(takes[take]!.id, checkId);
    const isOk = verdicts.every(({ ok }) => ok);
    if (verdicts.length === 0 || before === undefined || before === isOk) continue;
    turns[isOk ? "held" : "broke"]++;
  }
  return turns;
}

/** The finding of a check in a take, at all its rates. */
export interface Cell {
  readonly look: CellLook;
  /** A few characters in the cell: the frames of slip, or the number of events. */
  readonly mark: string;
  readonly words: string;
  /** How the result changed since the time it is compared with; undefined if it did not, or was not known then. */
  readonly turn: Turn | undefined;
  /** The most informative verdict: the first failing one, otherwise the first. */
  readonly verdict: TakeVerdict | undefined;
}

const UNASKED: Cell = { look: "unasked", mark: "", words: "not asked", turn: undefined, verdict: undefined };
const UNKNOWN: Cell = {
  look: "unknown",
  mark: "",
  words: "not judged yet",
  turn: undefined,
  verdict: undefined,
};
const FAULTY: Cell = {
  look: "faulty",
  mark: "",
  words: "cannot be judged",
  turn: undefined,
  verdict: undefined,
};

const MAX_SHOWN = 99;
const short = (count: number) => (count > MAX_SHOWN ? `${MAX_SHOWN}+` : String(count));

function markOf({ why, slip, count, reached }: TakeVerdict): string {
  if (slip !== undefined) return `${slip < 0 ? "−" : "+"}${short(Math.abs(slip))}`;
  if (count !== undefined) return short(count);
  if (reached !== undefined) return `≠${short(reached)}`;
  return why === "happened" ? "!" : "";
}

const NEVER_KNOWN: HeldAt = () => undefined;

/** Returns the cell of a check and a take. `heldAt`: the results it is compared with. */
export function readCell(proof: Proof, check: Check, takeId: string, heldAt = NEVER_KNOWN): Cell {
  if (!appliesTo(check, takeId)) return UNASKED;
  if (proof.faults.has(check.id)) return FAULTY;
  const verdicts = proof.found.get(takeId)?.get(check.id);
  const verdict = verdicts?.find(({ ok }) => !ok) ?? verdicts?.[0];
  if (!verdict || !verdicts) return UNKNOWN;
  const rate = verdicts.length > 1 ? ` at ${verdict.rate} frames a second` : "";
  const words = `${formatVerdict(verdict)}${verdict.ok ? "" : rate}`;
  const isVacuous = verdicts.every(({ vacuous }) => vacuous);
  const before = heldAt(takeId, check.id);
  const turn = before === undefined || before === verdict.ok ? undefined : verdict.ok ? "held" : "broke";
  if (verdict.ok) return { look: isVacuous ? "vacuous" : "holds", mark: "", words, turn, verdict };
  return { look: "fails", mark: markOf(verdict), words, turn, verdict };
}

/** Returns the takes a check names and the kit no longer has. */
export function missingTakes(check: Check, takes: readonly Take[]): string[] {
  if (check.on === "*" || check.off) return [];
  return check.on.filter(id => !takes.some(take => take.id === id));
}

/** The sum of a row or a column of cells, with the number that are not judged. */
export interface CellSum extends CheckSum {
  readonly unknown: number;
}

const newSum = () => ({ asked: 0, holds: 0, vacuous: 0, unknown: 0 });

function addTo(sum: ReturnType<typeof newSum>, { look }: Cell): void {
  if (look === "unasked") return;
  sum.asked++;
  if (look === "holds" || look === "vacuous" || look === "unknown") sum[look]++;
}

/** One row of the grid: a take with its cells, check by check. */
export interface ProofRow {
  readonly take: Take;
  readonly cells: readonly Cell[];
  readonly sum: CellSum;
}

/** Every take with its cells, and the sum of every check, including missing takes. */
export interface Grid {
  readonly rows: readonly ProofRow[];
  readonly sums: readonly CellSum[];
  readonly turns: Turns;
}

/** Creates a reader of grids that reuses unchanged rows of its last result, since most edits change few. */
export function createGridReader(): (
  proof: Proof,
  checks: readonly Check[],
  takes: readonly Take[],
  heldAt?: HeldAt,
) => Grid {
  const known = new WeakMap<Verdicts, { readonly of: readonly unknown[]; readonly row: ProofRow }>();
  const readRow = (
    proof: Proof,
    checks: readonly Check[],
    take: Take,
    heldAt: HeldAt | undefined,
  ): ProofRow => {
    const verdicts = proof.found.get(take.id);
    const of = [take, checks, proof.faults, heldAt];
    const last = verdicts && known.get(verdicts);
    if (last?.of.every((part, k) => part === of[k])) return last.row;
    const cells = checks.map(check => readCell(proof, check, take.id, heldAt));
    const row = { take, cells, sum: newSum() };
    for (const cell of cells) addTo(row.sum, cell);
    if (verdicts) known.set(verdicts, { of, row });
    return row;
  };
  return (proof, checks, takes, heldAt) => {
    const rows = takes.map(take => readRow(proof, checks, take, heldAt));
    const sums = checks.map(check => ({ ...newSum(), asked: missingTakes(check, takes).length }));
    const turns = { held: 0, broke: 0 };
    for (const { cells } of rows)
      for (const [c, cell] of cells.entries()) {
        addTo(sums[c]!, cell);
        if (cell.turn) turns[cell.turn]++;
      }
    return { rows, sums, turns };
  };
}
