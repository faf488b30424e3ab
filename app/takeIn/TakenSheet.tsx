import { sumTaken, type TakenLine } from "../storage/takenIn";
import { Sheet } from "../ui/Sheet";

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

/** The results of an import as a list in a dialog: what was not taken in, what was, and what was passed over. */
export function TakenSheet({ lines, onClose }: { lines: readonly TakenLine[]; onClose: () => void }) {
  return (
    <Sheet title="What was read in" isOpen isWide onClose={onClose}>
      <p className="text-soft">{sumTaken(lines)}</p>
      <Lines word="Not taken in" lines={lines.filter(line => !line.isTaken && !line.isPassed)} />
      <Lines word="Taken in" lines={lines.filter(line => line.isTaken)} />
      <Lines word="Passed over" lines={lines.filter(line => line.isPassed)} />
    </Sheet>
  );
}
