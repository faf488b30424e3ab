import { useVirtualizer } from "@tanstack/react-virtual";
import { memo, useRef, type KeyboardEvent } from "react";
import type { Check, Take } from "#core";
import { countFailing, holdColour } from "../ui/checkSum";
import { TermWord } from "../ui/Explained";
import { CellMark, TurnMark } from "./CellMark";
import type { CellSum, ProofRow } from "./model/cells";

const ROW_PX = 28;
const MIN_CELL_PX = 46;
/** The width of a digit in a sum below a column, and the space beside it. */
const DIGIT_PX = 7.3;
const SUM_GAP_PX = 8;
/** A generous width of a letter in the name of a take. */
const LETTER_PX = 7.5;
/** The height of the slanted column headers, and the length of a name in them: names are longer above few takes. */
const LOW_HEAD = { heightPx: 92, namePx: 116 };
const TALL_HEAD = { heightPx: 148, namePx: 206 };
const FEW_TAKES = 8;

/** The selected cell. */
export interface Chosen {
  readonly check: string | undefined;
  readonly take: string | undefined;
}

function SumWord({ sum }: { sum: CellSum }) {
  const { holds, asked, unknown } = sum;
  if (asked === 0) return <span className="text-soft">–</span>;
  if (unknown > 0)
    return (
      <span className="font-mono text-xs text-soft" title={`${unknown} of ${asked} not judged`}>
        ?/{asked}
      </span>
    );
  return (
    <span
      className={`font-mono text-xs ${holdColour(sum)} ${countFailing(sum) > 0 ? "font-semibold" : ""}`}
      title={sum.vacuous > 0 ? `${sum.vacuous} of ${asked} could not have failed` : undefined}
    >
      {holds}/{asked}
    </span>
  );
}

const TURN_WORDS = { held: "; it now holds", broke: "; it broke", same: "" } as const;

/** The cells of a row, re-rendered only when one changes. `entry`: Tab enters at its first cell. */
const RowCells = memo(function RowCells({
  row: { take, cells },
  checks,
  chosenCheck,
  entry,
  onChoose,
}: {
  row: ProofRow;
  checks: readonly Check[];
  chosenCheck: string | undefined;
  entry: boolean;
  onChoose: (check: string, take: string | undefined) => void;
}) {
  return cells.map((cell, c) => {
    const check = checks[c]!;
    const isChosen = check.id === chosenCheck;
    return (
      <span key={check.id} role="gridcell" aria-selected={isChosen}>
        <button
          type="button"
          tabIndex={isChosen || (entry && c === 0) ? 0 : -1}
          aria-label={`${check.name || check.id} in ${take.name || take.id}: ${cell.words}${TURN_WORDS[cell.turn ?? "same"]}`}
          className={`flex h-6 w-full items-center justify-center gap-0.5 rounded -outline-offset-2 hover:bg-sand ${isChosen ? "bg-leaf outline-2 outline-moss" : ""} ${cell.turn ? "relative pr-2.5" : ""}`}
          onClick={() => onChoose(check.id, take.id)}
        >
          <CellMark look={cell.look} />
          {cell.turn && <TurnMark turn={cell.turn} />}
          {cell.mark && (
            <span className="font-mono text-[11px] font-semibold text-foxglove">{cell.mark}</span>
          )}
        </button>
      </span>
    );
  });
});

const LINE = "grid items-center";

/** The checks as slanted column headers. */
function HeadRow({
  checks,
  chosen,
  columns,
  head,
  onChoose,
}: Pick<GridProps, "checks" | "chosen" | "onChoose"> & { columns: string; head: typeof LOW_HEAD }) {
  return (
    <div
      role="row"
      className={`${LINE} sticky top-0 z-20 border-b border-line bg-paper`}
      style={{ gridTemplateColumns: columns, height: head.heightPx }}
    >
      {/* As high as the names, which it covers when they are scrolled behind it. */}
      <span
        role="columnheader"
        className="sticky left-0 z-10 flex h-full items-end gap-1 bg-paper px-5 pb-1 text-xs text-soft"
      >
        <TermWord of="take">takes</TermWord> ↓ <TermWord of="check">checks</TermWord> →
      </span>
      {checks.map(check => (
        <span key={check.id} role="columnheader" className="pointer-events-none relative h-full">
          <button
            type="button"
            title={check.name || check.id}
            aria-pressed={check.id === chosen.check}
            className={`pointer-events-auto absolute bottom-1.5 left-6 origin-bottom-left -rotate-[38deg] truncate text-xs hover:underline ${check.id === chosen.check ? "font-semibold text-moss" : ""} ${check.off ? "line-through decoration-soft" : ""}`}
            style={{ maxWidth: head.namePx }}
            onClick={() => onChoose(check.id, undefined)}
          >
            {check.name || check.id}
          </button>
        </span>
      ))}
      <span role="columnheader" className="self-end pb-1 text-center text-xs text-soft">
        holds
      </span>
    </div>
  );
}

/** One take with its cells and their sum. `entry`: Tab enters the grid at its first cell. */
function TakeLine({
  row,
  index,
  topPx,
  checks,
  chosen,
  isOld,
  columns,
  entry,
  onChoose,
}: Pick<GridProps, "checks" | "chosen" | "onChoose"> & {
  row: ProofRow;
  index: number;
  topPx: number;
  isOld: boolean;
  columns: string;
  entry: boolean;
}) {
  const { take, sum } = row;
  const isChosen = take.id === chosen.take;
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      data-old={isOld}
      className={`${LINE} absolute w-full border-b border-line contain-content after:pointer-events-none after:absolute after:inset-0 data-[old=true]:after:bg-paper/55`}
      style={{ gridTemplateColumns: columns, height: ROW_PX, top: topPx }}
    >
      <span
        role="rowheader"
        title={take.name}
        className={`sticky left-0 z-10 truncate bg-paper px-5 text-sm ${isChosen ? "font-semibold text-moss" : ""}`}
      >
        {take.name || take.id}
      </span>
      <RowCells
        row={row}
        checks={checks}
        chosenCheck={isChosen ? chosen.check : undefined}
        entry={entry}
        onChoose={onChoose}
      />
      <span role="gridcell" className="text-center">
        <SumWord sum={sum} />
      </span>
    </div>
  );
}

/** The sums of the columns. */
function SumRow({ checks, sums, columns }: Pick<GridProps, "checks" | "sums"> & { columns: string }) {
  return (
    <div
      role="row"
      className={`${LINE} sticky bottom-0 z-20 border-t border-line bg-paper`}
      style={{ gridTemplateColumns: columns, height: ROW_PX }}
    >
      <span role="rowheader" className="sticky left-0 z-10 bg-paper px-5 text-xs text-soft">
        holds
      </span>
      {sums.map((sum, c) => (
        <span key={checks[c]!.id} role="gridcell" className="text-center">
          <SumWord sum={sum} />
        </span>
      ))}
      <span role="gridcell" />
    </div>
  );
}

/** Returns the width of the column of a check, in which a sum over all takes has room, as 200/200; px. */
function cellWidth(takes: readonly Take[]): number {
  const letters = 2 * String(takes.length).length + 1;
  return Math.max(MIN_CELL_PX, Math.ceil(letters * DIGIT_PX) + SUM_GAP_PX);
}

/** Returns the width of the column of takes, for the longest of their names up to a third of the window. */
function nameWidth(takes: readonly Take[]): string {
  const letters = Math.max(0, ...takes.map(({ name, id }) => (name || id).length));
  return `clamp(150px, ${letters * LETTER_PX + 44}px, min(360px, 30vw))`;
}

interface GridProps {
  checks: readonly Check[];
  /** All takes, also those without a row: a filter does not change the sizes of the grid. */
  takes: readonly Take[];
  rows: readonly ProofRow[];
  /** The sum of each column. */
  sums: readonly CellSum[];
  chosen: Chosen;
  /** The takes whose results are of the present rules, by id. */
  isCurrent: ReadonlySet<string>;
  onChoose: (check: string, take: string | undefined) => void;
}

const STEPS: Readonly<Record<string, readonly [down: number, across: number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/** Takes as rows, checks as columns, a mark in each cell, sums on both edges; navigated by arrow keys. */
export function ProofGrid({ checks, takes, rows, sums, chosen, isCurrent, onChoose }: GridProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const head = takes.length > FEW_TAKES ? LOW_HEAD : TALL_HEAD;
  // The virtualizer's functions change with the visible range; this component re-renders with them and passes
  // none on.
  // oxlint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 8,
    scrollPaddingStart: head.heightPx,
    scrollPaddingEnd: ROW_PX,
  });
  const walk = (event: KeyboardEvent) => {
    const step = STEPS[event.key];
    if (!step) return;
    event.preventDefault();
    const [down, across] = step;
    const r = rows.findIndex(row => row.take.id === chosen.take);
    const c = checks.findIndex(check => check.id === chosen.check);
    const row = rows[Math.min(rows.length - 1, Math.max(0, r + down))];
    const check = checks[Math.min(checks.length - 1, Math.max(0, c + across))];
    if (!row || !check) return;
    virtual.scrollToIndex(rows.indexOf(row));
    onChoose(check.id, row.take.id);
    requestAnimationFrame(() =>
      scroller.current?.querySelector<HTMLElement>('[aria-selected="true"] button')?.focus(),
    );
  };
  const columns = `${nameWidth(takes)} repeat(${checks.length}, ${cellWidth(takes)}px) 60px`;
  return (
    <div
      ref={scroller}
      role="grid"
      aria-label="Takes and checks"
      aria-rowcount={rows.length + 2}
      aria-colcount={checks.length + 2}
      className="min-h-0 grow overflow-auto"
      onKeyDown={walk}
      data-testid="proof-grid"
    >
      <div style={{ width: "max-content", minWidth: "100%" }}>
        <HeadRow checks={checks} chosen={chosen} columns={columns} head={head} onChoose={onChoose} />
        <div style={{ height: virtual.getTotalSize(), position: "relative" }} role="rowgroup">
          {virtual.getVirtualItems().map(({ index, start }) => {
            const row = rows[index]!;
            return (
              <TakeLine
                key={row.take.id}
                row={row}
                index={index}
                topPx={start}
                checks={checks}
                chosen={chosen}
                isOld={!isCurrent.has(row.take.id)}
                columns={columns}
                entry={!chosen.take && index === 0}
                onChoose={onChoose}
              />
            );
          })}
        </div>
        <SumRow checks={checks} sums={sums} columns={columns} />
      </div>
    </div>
  );
}
