import { autoUpdate, computePosition, flip, shift } from "@floating-ui/dom";
import { memo, useCallback, useLayoutEffect, useMemo, useRef, useState } from "react";
import { writeAt, type Kit } from "#core";
import { BLOW_WORDS, BLOWS, duelOf, MAX_MOVES_TRIED } from "#stage";
import { useWorkbench } from "../document/workbenchContext";
import { endFollow, isHeldBack, letFollow, waitUntilFree } from "../edits/cancelEdits";
import { Button } from "../ui/Button";
import { LengthStone } from "../ui/LengthStone";
import { firstWindow, layoutCancels, type CancelCell } from "./model/cancelTable";
import type { Tried } from "./useTrials";

interface CellProps {
  readonly kit: Kit;
  /** Indices of the moves. */
  readonly first: number;
  readonly second: number;
}

/** The window of a cell with its two ends, and the button that removes it. */
function WindowLine({ kit, first, second, at }: CellProps & { at: number }) {
  const workbench = useWorkbench();
  const [one, two] = [kit.moves![first]!, kit.moves![second]!];
  const window = one.opens![at]!;
  return (
    <>
      <p className="font-serif text-base leading-9">
        …from{" "}
        {(["from", "to"] as const).map(end => (
          <span key={end}>
            {end === "to" && " to "}
            <LengthStone
              label={`${end} frame`}
              value={window[end]}
              rateHz={kit.rate}
              rounding={end === "from" ? "atLeast" : "atMost"}
              least={0}
              isBare
              onChange={written =>
                workbench.editKit(`${two.name} after ${one.name}`, now =>
                  writeAt(now, ["moves", first, "opens", at, end], written),
                )
              }
              beginStep={workbench.beginStep}
            />
          </span>
        ))}{" "}
        of {one.name}.
      </p>
      <Button
        onClick={() =>
          workbench.editKit(`${two.name} no longer follows ${one.name}`, now => endFollow(now, first, second))
        }
      >
        Take this window away
      </Button>
    </>
  );
}

/** The buttons that give a cell its window: at any outcome, or on one of a blow. */
function WindowOffers({ kit, first, second }: CellProps) {
  const workbench = useWorkbench();
  const [one, two] = [kit.moves![first]!, kit.moves![second]!];
  const whens = duelOf(kit) ? (["any", ...BLOWS] as const) : (["any"] as const);
  if (!isHeldBack(kit, first, second))
    return (
      <>
        <p>Nothing holds it back while {one.name} runs.</p>
        <Button
          onClick={() =>
            workbench.editKit(`${two.name} waits for ${one.name}`, now => waitUntilFree(now, first, second))
          }
        >
          Let it wait until {one.name} is over
        </Button>
      </>
    );
  return (
    <>
      <p>It waits until {one.name} is over. From its first active frame on, let it follow</p>
      <div className="flex flex-wrap gap-1">
        {whens.map(when => (
          <Button
            key={when}
            onClick={() =>
              workbench.editKit(`${two.name} may follow ${one.name}`, now =>
                letFollow(now, first, second, firstWindow(now, one, when)),
              )
            }
          >
            {when === "any" ? "always" : BLOW_WORDS[when]}
          </Button>
        ))}
      </div>
    </>
  );
}

/** The frames on which the second move may follow the first, as a button. */
const CellButton = memo(function CellButton({
  label,
  lines,
  look,
  first,
  second,
  onChoose,
}: Pick<CancelCell, "look"> & {
  label: string;
  /** The lines of the cell, joined, so that an equal cell is not drawn again. */
  lines: string;
  first: number;
  second: number;
  onChoose: (first: number, second: number, button: HTMLElement) => void;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      aria-haspopup="dialog"
      className={`min-h-8 w-full min-w-16 rounded px-2 py-1 text-left font-mono text-xs whitespace-pre-line hover:outline-2 hover:outline-moss ${LOOKS[look]}`}
      onClick={event => onChoose(first, second, event.currentTarget)}
    >
      {lines || (look === "never" ? "never" : "·")}
    </button>
  );
});

const LOOKS: Readonly<Record<CancelCell["look"], string>> = {
  window: "bg-lichen text-on-lichen",
  free: "bg-leaf",
  never: "bg-sand text-foxglove",
  none: "bg-sand text-soft",
};

/** The panel of one cell, below it and above everything; it closes by Escape and by a press elsewhere. */
function CellPanel({
  kit,
  first,
  second,
  cell: { lines, at },
  anchor,
  onClose,
}: CellProps & { cell: CancelCell; anchor: HTMLElement; onClose: () => void }) {
  const [one, two] = [kit.moves![first]!, kit.moves![second]!];
  const panel = useRef<HTMLDivElement>(null);
  useLayoutEffect(() => {
    const own = panel.current!;
    const middleware = [flip(), shift({ padding: 8 })];
    const place = async () => {
      const at = await computePosition(anchor, own, {
        placement: "bottom-start",
        strategy: "fixed",
        middleware,
      });
      Object.assign(own.style, { left: `${at.x}px`, top: `${at.y}px` });
    };
    own.showPopover();
    own.querySelector<HTMLElement>("input, button")?.focus({ preventScroll: true });
    return autoUpdate(anchor, own, () => void place());
  }, [anchor]);
  return (
    <div
      ref={panel}
      popover="auto"
      role="dialog"
      aria-label={`${two.name} after ${one.name}`}
      className="fixed inset-auto m-0 w-80 space-y-2 rounded-stone border border-line bg-leaf p-3 text-sm text-ink shadow-lg"
      onToggle={({ newState }) => newState === "closed" && onClose()}
    >
      <p>
        <b>{two.name}</b> after <b>{one.name}</b>: {lines.join("; ") || "not before it is over"}.
        {at >= 0 &&
          lines.length === 0 &&
          " It has a window, but a gate or a ban keeps it away, or another move takes its press."}
      </p>
      {at >= 0 ? (
        <WindowLine kit={kit} first={first} second={second} at={at} />
      ) : (
        <WindowOffers kit={kit} first={first} second={second} />
      )}
    </div>
  );
}

/** The chosen cell, and its button. */
interface Chosen {
  readonly first: number;
  readonly second: number;
  readonly anchor: HTMLElement;
}

/**
 * The moves that may follow each other before the first is over, found by running it: a row for each first move, a column for
 * each second one. A cell opens to its window. `word`: only first moves with it in their names, in lower case.
 */
export function CancelTable({ kit, tried, word }: { kit: Kit; tried: Tried; word: string }) {
  const [chosen, setChosen] = useState<Chosen>();
  const choose = useCallback(
    (first: number, second: number, anchor: HTMLElement) => setChosen({ first, second, anchor }),
    [],
  );
  const { rows: all, untried } = useMemo(() => layoutCancels(kit, tried), [kit, tried]);
  const rows = all.filter(({ move }) => move.name.toLowerCase().includes(word));
  const cell = chosen && all.find(({ first }) => first === chosen.first)?.cells[chosen.second];
  if (rows.length === 0) return null;
  const moves = kit.moves!.slice(0, MAX_MOVES_TRIED);
  return (
    <section aria-label="What may follow what" data-testid="cancel-table" className="mt-6">
      <h2 className="font-serif text-xl">What may follow what</h2>
      <p className="mb-2 text-sm text-soft">
        On which frames of the move at the left the move above may be performed, found by running it. Open a
        cell to let a move follow another, or to change when.
      </p>
      <div className="overflow-auto">
        <table className="border-separate border-spacing-1 text-sm">
          <thead>
            <tr>
              <td />
              {moves.map(({ id, name }) => (
                <th
                  key={id}
                  scope="col"
                  className="max-w-28 truncate px-1 text-left font-normal"
                  title={name}
                >
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ move, first, frames, cells }) => (
              <tr key={move.id}>
                <th scope="row" className="max-w-40 truncate pr-2 text-left font-semibold" title={move.name}>
                  {move.name} <span className="font-mono font-normal text-soft">{frames}f</span>
                </th>
                {cells.map(({ lines, look }, second) => (
                  <td key={second} className="align-top">
                    <CellButton
                      label={`${moves[second]!.name} after ${move.name}: ${lines.join("; ") || "not before it is over"}`}
                      lines={lines.join("\n")}
                      look={look}
                      first={first}
                      second={second}
                      onChoose={choose}
                    />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {untried.length > 0 && (
        <p className="text-sm text-soft">
          Not tried as the first, since no input made for its pattern performs it: {untried.join(", ")}.
        </p>
      )}
      {chosen && cell && (
        <CellPanel
          key={`${chosen.first} ${chosen.second}`}
          kit={kit}
          {...chosen}
          cell={cell}
          onClose={() => setChosen(now => (now === chosen ? undefined : now))}
        />
      )}
    </section>
  );
}
