import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { writeAt, type Kit } from "#core";
import { formatAdvantage, MAX_MOVES_TRIED } from "#stage";
import { useWorkbench } from "../document/workbenchContext";
import { Explained, explanationOf } from "../ui/Explained";
import { LengthStone } from "../ui/LengthStone";
import { CancelTable } from "./CancelTable";
import { useTrials } from "./useTrials";
import {
  PARTS,
  rowOf,
  sortRows,
  type Column,
  type MoveRow,
  type MoveSort,
  type Part,
} from "./model/movesTable";

const HEADS: readonly (readonly [Column, string])[] = [
  ["name", "Move"],
  ["startup", "Startup"],
  ["active", "Active"],
  ["recovery", "Recovery"],
  ["whole", "Whole"],
  ["onHit", "On a hit"],
  ["onGuard", "On a guard"],
  ["onMiss", "On a miss"],
];

/** The column titles; each sorts by its column, and again the other way. */
function Heads({ sort, onSort }: { sort: MoveSort | undefined; onSort: (sort: MoveSort) => void }) {
  return (
    <thead className="text-left">
      <tr>
        {HEADS.map(([column, title]) => {
          const isDown = sort?.by === column ? sort.isDown : undefined;
          const button = (
            <button
              type="button"
              className="text-soft underline-offset-4 hover:underline"
              onClick={() => onSort({ by: column, isDown: isDown === false })}
            >
              {title} {isDown === undefined ? "" : isDown ? "↓" : "↑"}
            </button>
          );
          return (
            <th
              key={column}
              className="pr-3 pb-1 font-normal whitespace-nowrap"
              aria-sort={isDown === undefined ? "none" : isDown ? "descending" : "ascending"}
            >
              {column === "name" ? button : <Explained words={explanationOf(column)}>{button}</Explained>}
            </th>
          );
        })}
        <th className="pb-1 font-normal text-soft">Opens</th>
      </tr>
    </thead>
  );
}

/** The editable length of one part of a move's timeline. */
function PartField({ row: { index, move }, part, rateHz }: { row: MoveRow; part: Part; rateHz: number }) {
  const workbench = useWorkbench();
  if (!move.frames) return <span className="text-soft">none</span>;
  const label = `${part} of ${move.name}`;
  return (
    <LengthStone
      label={label}
      value={move.frames[part]}
      rateHz={rateHz}
      rounding="atLeast"
      least={0}
      isBare
      onChange={written =>
        workbench.editKit(label, now => writeAt(now, ["moves", index, "frames", part], written))
      }
      beginStep={workbench.beginStep}
    />
  );
}

/** One move: its name as a link to its sentence, its parts, its advantage, the gates it opens. */
function Row({ row, rateHz }: { row: MoveRow; rateHz: number }) {
  const [search] = useSearchParams();
  const { move, whole, opens, advantage } = row;
  const target = new URLSearchParams(search);
  target.set("rule", `move:${move.id}`);
  return (
    <tr className={`border-t border-line ${move.off ? "line-through decoration-soft" : ""}`}>
      <td className="max-w-40 truncate py-1 pr-3">
        <Link
          to={`?${target.toString()}`}
          className="font-semibold text-moss underline-offset-4 hover:underline"
        >
          {move.name}
        </Link>
      </td>
      {PARTS.map(part => (
        <td key={part} className="pr-3 whitespace-nowrap">
          <PartField row={row} part={part} rateHz={rateHz} />
        </td>
      ))}
      <td className="pr-3 font-mono">{whole > 0 ? `${whole}f` : ""}</td>
      <td className="pr-3 font-mono">{advantage ? formatAdvantage(advantage.onHit) : ""}</td>
      <td className="pr-3 font-mono">{advantage ? formatAdvantage(advantage.onGuard) : ""}</td>
      <td className="pr-3 font-mono">{advantage ? formatAdvantage(advantage.onMiss) : ""}</td>
      <td className="text-soft">{opens}</td>
    </tr>
  );
}

/**
 * Every move in a table: its editable parts, the gates it opens, and its advantage; sortable by any column,
 * with a search field.
 */
export function MovesTable({ kit }: { kit: Kit }) {
  const [wanted, setWanted] = useState("");
  const [sort, setSort] = useState<MoveSort | undefined>();
  const tried = useTrials(kit);
  const word = wanted.trim().toLowerCase();
  const moves = kit.moves ?? [];
  const found = moves
    .map((move, m) => rowOf(kit, move, m, tried?.advantages[m]))
    .filter(({ move, opens }) => `${move.name} ${opens}`.toLowerCase().includes(word));
  return (
    <section aria-label="All moves" data-testid="moves-table">
      <div className="mb-3 flex items-center gap-4">
        <h1 className="font-serif text-2xl">All moves, side by side</h1>
        <input
          type="search"
          aria-label="Find a move"
          placeholder="Find a move"
          className="ml-auto w-44 rounded-full border border-edge bg-leaf px-3 py-1 text-sm placeholder:text-soft"
          value={wanted}
          onChange={event => setWanted(event.target.value)}
        />
      </div>
      <table className="w-full text-sm">
        <Heads sort={sort} onSort={setSort} />
        <tbody>
          {sortRows(found, sort).map(row => (
            <Row key={row.move.id} row={row} rateHz={kit.rate} />
          ))}
        </tbody>
      </table>
      {moves.length > MAX_MOVES_TRIED && (
        <p className="py-2 text-soft">Who can act first was tried for the first {MAX_MOVES_TRIED} moves.</p>
      )}
      {found.length === 0 && <p className="py-2 text-soft">No move has “{wanted.trim()}” in its name.</p>}
      {tried && <CancelTable kit={kit} tried={tried} word={word} />}
    </section>
  );
}
