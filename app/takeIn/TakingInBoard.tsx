import { useState } from "react";
import { sumTaken, type TakenLine } from "../storage/takenIn";
import { Button } from "../ui/Button";
import { Sheet } from "../ui/Sheet";
import type { TakingIn } from "./useTakingIn";

/** The number of results shown individually; more are in a list. */
const FEW_LINES = 3;
/** The maximum number of list items drawn; the rest is counted. */
const MAX_LINES = 2000;

function Lines({ word, lines }: { word: string; lines: readonly TakenLine[] }) {
  if (lines.length === 0) return null;
  return (
    <section aria-label={word}>
      <h3 className="mt-3 font-semibold">
        {word} <span className="font-mono text-sm font-normal text-soft">{lines.length}</span>
      </h3>
      <ul className="text-sm">
        {lines.slice(0, MAX_LINES).map(({ name, words }, n) => (
          <li
            key={n}
            className="grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-4 border-b border-dotted border-line py-1"
          >
            <span className="truncate" title={name}>
              {name}
            </span>
            <span className="break-words text-soft">{words}</span>
          </li>
        ))}
      </ul>
      {lines.length > MAX_LINES && <p className="text-sm text-soft">and {lines.length - MAX_LINES} more</p>}
    </section>
  );
}

/** A few results, shown individually. */
function FewLines({ lines }: { lines: readonly TakenLine[] }) {
  return (
    <ul className="grow break-words">
      {lines.length === 0 && <li>There was nothing in it.</li>}
      {lines.map(({ name, words, isTaken, isPassed }, n) => (
        <li key={n} className={isTaken || isPassed ? "" : "text-foxglove"}>
          <b>{name}</b> {words}
        </li>
      ))}
    </ul>
  );
}

/**
 * The progress of an import with a cancel button and, when it is complete, the result of each document.
 * `isFewSaid`: a few results are shown elsewhere.
 */
export function TakingInBoard({
  taking,
  isShortListElsewhere = false,
}: {
  taking: TakingIn;
  isShortListElsewhere?: boolean;
}) {
  const { now, lines } = taking;
  const [isListed, setListed] = useState(false);
  const close = () => {
    setListed(false);
    taking.forget();
  };
  if (now)
    return (
      <div
        role="status"
        className="flex items-center gap-3 rounded-stone border-2 border-moss bg-leaf px-4 py-2 text-sm"
      >
        <label className="grow">
          Reading {now.files === 1 ? "a file" : `${now.files} files`},{" "}
          <span className="font-mono">
            {(now.done / 1e6).toFixed(1)} of {(now.of / 1e6).toFixed(1)} MB
          </span>
          <progress className="block w-full accent-moss" value={now.done} max={Math.max(1, now.of)} />
        </label>
        <Button onClick={taking.stop}>Cancel</Button>
      </div>
    );
  const isFew = lines !== undefined && lines.length <= FEW_LINES;
  if (!lines || (isFew && isShortListElsewhere)) return null;
  return (
    <div
      role="status"
      className="flex items-center gap-3 rounded-stone border border-line bg-leaf px-4 py-2 text-sm"
    >
      {isFew ? (
        <FewLines lines={lines} />
      ) : (
        <>
          <span className="grow">{sumTaken(lines)}</span>
          <Button onClick={() => setListed(true)}>Show the list</Button>
        </>
      )}
      <Button look="quiet" onClick={close}>
        Close
      </Button>
      <Sheet title="What was read in" isOpen={isListed} isWide onClose={() => setListed(false)}>
        <p className="text-soft">{sumTaken(lines)}</p>
        <Lines word="Not taken in" lines={lines.filter(line => !line.isTaken && !line.isPassed)} />
        <Lines word="Taken in" lines={lines.filter(line => line.isTaken)} />
        <Lines word="Passed over" lines={lines.filter(line => line.isPassed)} />
      </Sheet>
    </div>
  );
}
