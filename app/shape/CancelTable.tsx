import { writeAt, type Kit } from "#core";
import { BLOW_WORDS, BLOWS, duelOf, MAX_MOVES_TRIED, type Cancels } from "#stage";
import { useWorkbench } from "../document/workbenchContext";
import { endFollow, findFollowWindow, isHeldBack, letFollow, waitUntilFree } from "../edits/cancelEdits";
import { Button } from "../ui/Button";
import { Flap } from "../ui/Flap";
import { LengthStone } from "../ui/LengthStone";
import { firstWindow, listCellLines } from "./model/cancelTable";
import type { Tried } from "./useTrials";

interface CellProps {
  readonly kit: Kit;
  /** Indices of the moves. */
  readonly first: number;
  readonly second: number;
}

/** The window of a cell with its two ends, and the button that removes it. */
function WindowLine({ kit, first, second, at, close }: CellProps & { at: number; close: () => void }) {
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
        onClick={() => {
          workbench.editKit(`${two.name} no longer follows ${one.name}`, now =>
            endFollow(now, first, second),
          );
          close();
        }}
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

/** A cell: the frames on which the second move may follow the first, as a word that opens to its window. */
function Cell({ cancels, ...cell }: CellProps & { cancels: Cancels }) {
  const { kit, first, second } = cell;
  const [one, two] = [kit.moves![first]!, kit.moves![second]!];
  const lines = listCellLines(cancels, second);
  const at = findFollowWindow(kit, first, second);
  const isFree = at < 0 && !isHeldBack(kit, first, second);
  const look = lines.length === 0 ? "bg-sand" : isFree ? "bg-leaf" : "bg-lichen text-on-lichen";
  return (
    <Flap
      word={
        lines.length > 0 ? (
          lines.map(line => (
            <span key={line} className="block">
              {line}
            </span>
          ))
        ) : (
          <span className={at < 0 ? "text-soft" : "text-foxglove"}>{at < 0 ? "·" : "never"}</span>
        )
      }
      wordLook={`min-h-8 w-full min-w-16 rounded px-2 py-1 text-left font-mono text-xs hover:outline-2 hover:outline-moss ${look}`}
      label={`${two.name} after ${one.name}: ${lines.join("; ") || "not before it is over"}`}
      anchor="bottom start"
      panelLook="w-80 space-y-2 p-3"
    >
      {close => (
        <>
          <p>
            <b>{two.name}</b> after <b>{one.name}</b>: {lines.join("; ") || "not before it is over"}.
            {at >= 0 &&
              lines.length === 0 &&
              " It has a window, but a gate or a ban keeps it away, or another move takes its press."}
          </p>
          {at >= 0 ? <WindowLine {...cell} at={at} close={close} /> : <WindowOffers {...cell} />}
        </>
      )}
    </Flap>
  );
}

/**
 * The moves that may follow each other before the first is over, found by running it: a row for each first move, a column for
 * each second one. A cell opens to its window. `word`: only first moves with it in their names, in lower case.
 */
export function CancelTable({ kit, tried, word }: { kit: Kit; tried: Tried; word: string }) {
  const moves = (kit.moves ?? []).slice(0, MAX_MOVES_TRIED);
  // Findings of the kit before are not shown beside the moves of this one.
  const isSame = tried.kit.moves?.length === kit.moves?.length;
  const rows = moves.flatMap((move, first) => {
    const cancels = isSame ? tried.cancels[first] : undefined;
    return cancels && move.name.toLowerCase().includes(word) ? [{ move, first, cancels }] : [];
  });
  if (rows.length === 0) return null;
  const untried = isSame
    ? moves.filter(({ frames, off }, m) => frames && !off && !tried.cancels[m]).map(({ name }) => name)
    : [];
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
            {rows.map(({ move, first, cancels }) => (
              <tr key={move.id}>
                <th scope="row" className="max-w-40 truncate pr-2 text-left font-semibold" title={move.name}>
                  {move.name} <span className="font-mono font-normal text-soft">{cancels.frames}f</span>
                </th>
                {moves.map(({ id }, second) => (
                  <td key={id} className="align-top">
                    <Cell kit={kit} first={first} second={second} cancels={cancels} />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {untried.length > 0 && (
        <p className="text-sm text-soft">
          Not tried as the first, since a press alone does not perform it: {untried.join(", ")}.
        </p>
      )}
    </section>
  );
}
