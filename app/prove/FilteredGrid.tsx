import { useMemo, useState } from "react";
import type { Check } from "#core";
import { useProof } from "../document/checksContext";
import { useDocument } from "../document/workbenchContext";
import { countFailing } from "../ui/checkSum";
import { createGridReader, type ProofRow } from "./model/cells";
import { ProofGrid, type Chosen } from "./ProofGrid";
import { SinceBar, useHeldAt, type Since } from "./SinceBar";

/** The filter of the grid: words to find, the order, and which takes are listed. */
export interface GridFilter {
  readonly words: string;
  readonly failsFirst: boolean;
  readonly onlyFailing: boolean;
  /** The time with which results are compared, and whether only takes with changed results are listed. */
  readonly since: Since;
  readonly onlyTurned: boolean;
}

const includes = (text: string, sought: string) => text.toLowerCase().includes(sought.trim().toLowerCase());

/** Returns takes in display order: failing ones first if wanted. */
function arrange(rows: readonly ProofRow[], failsFirst: boolean): readonly ProofRow[] {
  if (!failsFirst) return rows;
  const failing = ({ sum }: ProofRow) => countFailing(sum) - sum.unknown;
  return [...rows].sort((a, b) => failing(b) - failing(a));
}

/**
 * Returns the takes and checks whose names match the search; if only checks match, all takes, and vice versa.
 */
function narrow(rows: readonly ProofRow[], checks: readonly Check[], sought: string) {
  const places = checks.flatMap((check, c) => (includes(check.name, sought) ? [c] : []));
  const own = rows.filter(({ take }) => includes(`${take.name} ${take.player ?? ""}`, sought));
  const columns = places.length > 0 ? places : checks.map((_, c) => c);
  const shown = own.length > 0 || places.length === 0 ? own : rows;
  if (columns.length === checks.length) return { columns, rows: shown };
  return { columns, rows: shown.map(row => ({ ...row, cells: columns.map(c => row.cells[c]!) })) };
}

/** The grid of the takes and checks that match a filter. */
export function FilteredGrid({
  filter,
  chosen,
  onFilter,
  onChoose,
}: {
  filter: GridFilter;
  chosen: Chosen;
  onFilter: (filter: GridFilter) => void;
  onChoose: (check: string, take: string | undefined) => void;
}) {
  const takes = useDocument(state => state.takes);
  const checks = useDocument(state => state.checks);
  const proof = useProof(state => state);
  const [readGrid] = useState(createGridReader);
  const { words, failsFirst, onlyFailing, since, onlyTurned } = filter;
  const heldAt = useHeldAt(since);
  const grid = useMemo(
    () => readGrid(proof, checks, takes, heldAt),
    [readGrid, proof, checks, takes, heldAt],
  );
  const found = narrow(grid.rows, checks, words);
  const wanted = found.rows.filter(
    ({ sum, cells }) =>
      (!onlyFailing || countFailing(sum) > sum.unknown) && (!onlyTurned || cells.some(({ turn }) => turn)),
  );
  const rows = arrange(wanted, failsFirst);
  return (
    <>
      <SinceBar
        since={since}
        turns={grid.turns}
        isOnly={onlyTurned}
        onSince={now => onFilter({ ...filter, since: now })}
        onOnly={isOnly => onFilter({ ...filter, onlyTurned: isOnly })}
      />
      {rows.length === 0 ? (
        <p className="px-5 py-4 text-soft">
          {takes.length === 0
            ? "No take yet: record one in Play, and it is judged here."
            : "No take is like that."}
        </p>
      ) : (
        <ProofGrid
          checks={found.columns.length === checks.length ? checks : found.columns.map(c => checks[c]!)}
          takes={takes}
          rows={rows}
          sums={found.columns.map(c => grid.sums[c]!)}
          chosen={chosen}
          isCurrent={proof.isCurrent}
          onChoose={onChoose}
        />
      )}
    </>
  );
}
