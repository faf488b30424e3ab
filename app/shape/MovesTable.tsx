import { useDeferredValue, useMemo, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { parseFrames, writeAt, type Kit, type Move } from "#core";
import { findAdvantage, formatAdvantage, type Advantage } from "#stage";
import { useDesk } from "../document/context";
import { LengthStone } from "../ui/LengthStone";

const PARTS = ["startup", "active", "recovery"] as const;
type Part = (typeof PARTS)[number];
type Column = "name" | Part | "whole" | "onHit" | "onGuard";

interface Row {
  readonly index: number;
  readonly move: Move;
  readonly frames: Readonly<Record<Part, number>> | undefined;
  readonly whole: number;
  readonly opens: string;
  readonly advantage: Advantage | undefined;
}

/** The maximum number of moves whose advantage is computed: each takes two runs. */
const MAX_MOVES_TRIED = 60;

const HEADS: readonly (readonly [Column, string])[] = [
  ["name", "Move"],
  ["startup", "Startup"],
  ["active", "Active"],
  ["recovery", "Recovery"],
  ["whole", "Whole"],
  ["onHit", "On a hit"],
  ["onGuard", "On a guard"],
];

function rowOf(kit: Kit, move: Move, index: number, advantage: Advantage | undefined): Row {
  const count = (written: string) => parseFrames(written, kit.rate, "atLeast") ?? 0;
  const { frames } = move;
  const parts = frames && {
    startup: count(frames.startup),
    active: count(frames.active),
    recovery: count(frames.recovery),
  };
  const names = (move.opens ?? []).map(
    ({ gate, from, to }) => `${kit.gates?.find(item => item.id === gate)?.name ?? gate} ${from} to ${to}`,
  );
  const whole = parts ? parts.startup + parts.active + parts.recovery : 0;
  return { index, move, frames: parts, whole, opens: names.join("; "), advantage };
}

/** Returns the sort value of a row; rows without one come last. */
function valueOf(row: Row, column: Column): number | string | undefined {
  if (column === "name") return row.move.name.toLowerCase();
  if (column === "whole") return row.whole;
  if (column === "onHit" || column === "onGuard") return row.advantage?.[column];
  return row.frames?.[column];
}

function compare(a: Row, b: Row, column: Column): number {
  const [x, y] = [valueOf(a, column), valueOf(b, column)];
  if (x === undefined || y === undefined) return Number(x === undefined) - Number(y === undefined);
  return typeof x === "string" ? x.localeCompare(String(y)) : x - Number(y);
}

/**
 * Every move in a table: its editable parts, the gates it opens, and its advantage; sortable by any column,
 * with a search field.
 */
export function MovesTable({ kit }: { kit: Kit }) {
  const { workbench } = useDesk();
  const [search] = useSearchParams();
  const [wanted, setWanted] = useState("");
  const [sort, setSort] = useState<{ by: Column; isDown: boolean } | undefined>();
  const rested = useDeferredValue(kit);
  const advantages = useMemo(
    () => (rested.moves ?? []).slice(0, MAX_MOVES_TRIED).map((_, m) => findAdvantage(rested, m)),
    [rested],
  );
  const word = wanted.trim().toLowerCase();
  const rows = (kit.moves ?? [])
    .map((move, m) => rowOf(kit, move, m, advantages[m]))
    .filter(({ move, opens }) => `${move.name} ${opens}`.toLowerCase().includes(word));
  if (sort) rows.sort((a, b) => (sort.isDown ? -1 : 1) * compare(a, b, sort.by) || a.index - b.index);
  const linkTo = (move: Move) => {
    const next = new URLSearchParams(search);
    next.set("rule", `move:${move.id}`);
    return `?${next.toString()}`;
  };
  return (
    <section aria-label="All moves" data-testid="moves-table">
      <div className="mb-3 flex items-center gap-4">
        <h1 className="font-serif text-2xl">All moves, side by side</h1>
        <input
          type="search"
          aria-label="Find a move"
          placeholder="Find a move"
          className="ml-auto w-44 rounded-full border border-line bg-leaf px-3 py-1 text-sm placeholder:text-soft"
          value={wanted}
          onChange={event => setWanted(event.target.value)}
        />
      </div>
      <table className="w-full text-sm">
        <thead className="text-left">
          <tr>
            {HEADS.map(([column, title]) => (
              <th
                key={column}
                className="pr-3 pb-1 font-normal whitespace-nowrap"
                aria-sort={sort?.by !== column ? "none" : sort.isDown ? "descending" : "ascending"}
              >
                <button
                  type="button"
                  className="text-soft underline-offset-4 hover:underline"
                  onClick={() => setSort({ by: column, isDown: sort?.by === column && !sort.isDown })}
                >
                  {title} {sort?.by === column ? (sort.isDown ? "↓" : "↑") : ""}
                </button>
              </th>
            ))}
            <th className="pb-1 font-normal text-soft">Opens</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ index, move, frames, whole, opens, advantage }) => (
            <tr
              key={move.id}
              className={`border-t border-line ${move.off ? "line-through decoration-soft" : ""}`}
            >
              <td className="max-w-40 truncate py-1 pr-3">
                <Link
                  to={linkTo(move)}
                  className="font-semibold text-moss underline-offset-4 hover:underline"
                >
                  {move.name}
                </Link>
              </td>
              {PARTS.map(part => (
                <td key={part} className="pr-3 whitespace-nowrap">
                  {frames ? (
                    <LengthStone
                      label={`${part} of ${move.name}`}
                      value={move.frames![part]}
                      rateHz={kit.rate}
                      rounding="atLeast"
                      least={0}
                      isBare
                      onChange={written =>
                        workbench.editKit(`${part} of ${move.name}`, now =>
                          writeAt(now, ["moves", index, "frames", part], written),
                        )
                      }
                      beginStep={workbench.beginStep}
                    />
                  ) : (
                    <span className="text-soft">none</span>
                  )}
                </td>
              ))}
              <td className="pr-3 font-mono">{whole > 0 ? `${whole}f` : ""}</td>
              <td className="pr-3 font-mono">{advantage ? formatAdvantage(advantage.onHit) : ""}</td>
              <td className="pr-3 font-mono">{advantage ? formatAdvantage(advantage.onGuard) : ""}</td>
              <td className="text-soft">{opens}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {(kit.moves?.length ?? 0) > MAX_MOVES_TRIED && (
        <p className="py-2 text-soft">Who can act first was tried for the first {MAX_MOVES_TRIED} moves.</p>
      )}
      {rows.length === 0 && <p className="py-2 text-soft">No move has “{wanted.trim()}” in its name.</p>}
    </section>
  );
}
