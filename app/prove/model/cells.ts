import { formatVerdict, appliesTo, type Check, type Take } from "#core";
import type { TakeVerdict } from "#stage";
import type { Proof, Verdicts } from "../../document/proving";

/**
 * The state of a cell: holds, holds because nothing could have made it fail, fails, not judged yet, its check does not
 * apply to its take, or cannot be judged.
 */
export type CellLook = "holds" | "vacuous" | "fails" | "unknown" | "unasked" | "faulty";

/** The finding of a check in a take, at all its rates. */
export interface Cell {
  readonly look: CellLook;
  /** A few characters in the cell: the frames of slip, or the number of events. */
  readonly mark: string;
  readonly words: string;
  /** The most informative verdict: the first failing one, otherwise the first. */
  readonly verdict: TakeVerdict | undefined;
}

const UNASKED: Cell = { look: "unasked", mark: "", words: "not asked", verdict: undefined };
const UNKNOWN: Cell = { look: "unknown", mark: "", words: "not judged yet", verdict: undefined };
const FAULTY: Cell = { look: "faulty", mark: "", words: "cannot be judged", verdict: undefined };

const MAX_SHOWN = 99;
const short = (count: number) => (count > MAX_SHOWN ? `${MAX_SHOWN}+` : String(count));

function markOf({ why, slip, count, reached }: TakeVerdict): string {
  if (slip !== undefined) return `${slip < 0 ? "−" : "+"}${short(Math.abs(slip))}`;
  if (count !== undefined) return short(count);
  if (reached !== undefined) return `≠${short(reached)}`;
  return why === "happened" ? "!" : "";
}

/** Returns the cell of a check and a take. */
export function readCell(proof: Proof, check: Check, takeId: string): Cell {
  if (!appliesTo(check, takeId)) return UNASKED;
  if (proof.faults.has(check.id)) return FAULTY;
  const verdicts = proof.found.get(takeId)?.get(check.id);
  const verdict = verdicts?.find(({ ok }) => !ok) ?? verdicts?.[0];
  if (!verdict || !verdicts) return UNKNOWN;
  const rate = verdicts.length > 1 ? ` at ${verdict.rate} frames a second` : "";
  const words = `${formatVerdict(verdict)}${verdict.ok ? "" : rate}`;
  const isVacuous = verdicts.every(({ vacuous }) => vacuous);
  if (verdict.ok) return { look: isVacuous ? "vacuous" : "holds", mark: "", words, verdict };
  return { look: "fails", mark: markOf(verdict), words, verdict };
}

/** Returns the takes a check names and the kit no longer has. */
export function missingTakes(check: Check, takes: readonly Take[]): string[] {
  if (check.on === "*" || check.off) return [];
  return check.on.filter(id => !takes.some(take => take.id === id));
}

/** A sum over cells: the number that apply, of those that hold, and of those that are not judged. */
export interface CellSum {
  readonly asked: number;
  readonly holds: number;
  readonly unknown: number;
}

function sum(cells: readonly Cell[]): CellSum {
  const asked = cells.filter(cell => cell.look !== "unasked");
  const count = (look: CellLook) => asked.filter(cell => cell.look === look).length;
  return { asked: asked.length, holds: count("holds") + count("vacuous"), unknown: count("unknown") };
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
}

/** Creates a reader of grids that reuses unchanged rows of its last result, since most edits change few. */
export function createGridReader(): (proof: Proof, checks: readonly Check[], takes: readonly Take[]) => Grid {
  const known = new WeakMap<Verdicts, { readonly of: readonly unknown[]; readonly row: ProofRow }>();
  const readRow = (proof: Proof, checks: readonly Check[], take: Take): ProofRow => {
    const verdicts = proof.found.get(take.id);
    const of = [take, checks, proof.faults];
    const last = verdicts && known.get(verdicts);
    if (last?.of.every((part, k) => part === of[k])) return last.row;
    const cells = checks.map(check => readCell(proof, check, take.id));
    const row = { take, cells, sum: sum(cells) };
    if (verdicts) known.set(verdicts, { of, row });
    return row;
  };
  return (proof, checks, takes) => {
    const rows = takes.map(take => readRow(proof, checks, take));
    const sums = checks.map((check, c) => {
      const own = sum(rows.map(row => row.cells[c]!));
      return { ...own, asked: own.asked + missingTakes(check, takes).length };
    });
    return { rows, sums };
  };
}
