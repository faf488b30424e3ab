import { useMemo, useState } from "react";
import { formatMs, notes } from "#core";
import { Button } from "../../ui/Button";
import { listEvents, type EventLine } from "../model/frameFacts";
import { useChecking } from "../../document/checksContext";
import { usePlaybackControl } from "../../document/evaluationContext";
import type { Evaluated } from "../../judging/judge";

const PAGE = 200;

type SortBy = "frame" | "name" | "words";

const COLUMNS: readonly { readonly by: SortBy; readonly title: string }[] = [
  { by: "frame", title: "Frame" },
  { by: "name", title: "What" },
  { by: "words", title: "Happened" },
];

function sortLines(lines: readonly EventLine[], by: SortBy, isDown: boolean): EventLine[] {
  const sign = isDown ? -1 : 1;
  const compare = (a: EventLine, b: EventLine) =>
    by === "frame" ? a.note - b.note : a[by].localeCompare(b[by]) || a.note - b.note;
  return [...lines].sort((a, b) => sign * compare(a, b));
}

/**
 * The tape as a table, for keyboards and screen readers: every edge and event with its frame, sortable by any
 * column.
 */
export function TapeTable({ evaluated }: { evaluated: Evaluated }) {
  const playback = usePlaybackControl();
  const checking = useChecking();
  const [shown, setShown] = useState(PAGE);
  const [sort, setSort] = useState<{ by: SortBy; isDown: boolean }>({ by: "frame", isDown: false });
  const lines = useMemo(() => {
    return sortLines(listEvents(evaluated.rules, evaluated.trace), sort.by, sort.isDown);
  }, [evaluated, sort]);
  return (
    <div
      className="min-h-0 grow overflow-auto px-5"
      tabIndex={0}
      role="region"
      aria-label="Events of the take"
    >
      <table className="w-full max-w-3xl text-sm" data-testid="tape-table">
        <thead className="sticky top-0 bg-paper text-left">
          <tr>
            {COLUMNS.map(({ by, title }) => (
              <th
                key={by}
                className="py-1 font-normal"
                aria-sort={sort.by !== by ? "none" : sort.isDown ? "descending" : "ascending"}
              >
                <button
                  type="button"
                  className="text-soft underline-offset-4 hover:underline"
                  onClick={() => setSort({ by, isDown: sort.by === by && !sort.isDown })}
                >
                  {title} {sort.by === by ? (sort.isDown ? "↓" : "↑") : ""}
                </button>
              </th>
            ))}
            <th className="py-1 text-right font-normal text-soft">A check: this</th>
          </tr>
        </thead>
        <tbody>
          {lines.slice(0, shown).map(line => (
            <tr key={line.note} className="border-t border-line">
              <td className="py-1 font-mono">
                <button
                  type="button"
                  className="text-moss underline"
                  onClick={() => playback.goTo(line.frame)}
                >
                  {line.frame}f
                </button>{" "}
                <span className="text-soft">{formatMs(line.frame, evaluated.program.rateHz)}</span>
              </td>
              <td>{line.name}</td>
              <td>{line.words}</td>
              <td className="text-right whitespace-nowrap">
                {evaluated.trace.kind[line.note] !== notes.edge.code && (
                  <>
                    <Button
                      look="quiet"
                      aria-label={`Check: ${line.name} ${line.words} must happen at ${line.frame}f`}
                      onClick={() => checking.mustHappen(line.note)}
                    >
                      must
                    </Button>
                    <Button
                      look="quiet"
                      aria-label={`Check: ${line.name} ${line.words} must never happen`}
                      onClick={() => checking.mustNever(line.note)}
                    >
                      never
                    </Button>
                  </>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {lines.length > shown && (
        <Button onClick={() => setShown(shown + PAGE)}>
          Show {Math.min(PAGE, lines.length - shown)} more
        </Button>
      )}
    </div>
  );
}
