import { useMemo, useState } from "react";
import { formatMs } from "#core";
import { goToFrame } from "../store/playhead";
import type { Evaluated } from "../store/workbench";
import { useWorkbench } from "../store/useWorkbench";
import { Button } from "../ui/Button";
import { listEvents } from "./frameFacts";

const PAGE = 200;

/** The tape read as a table: every edge and event with its frame, for keyboards and screen readers. */
export function TapeTable({ evaluated }: { evaluated: Evaluated }) {
  const kit = useWorkbench(state => state.kit);
  const [shown, setShown] = useState(PAGE);
  const lines = useMemo(
    () => (kit ? listEvents(kit, evaluated.program, evaluated.trace) : []),
    [kit, evaluated],
  );
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
            <th className="py-1 font-normal text-soft">Frame</th>
            <th className="font-normal text-soft">Time</th>
            <th className="font-normal text-soft">What</th>
            <th className="font-normal text-soft">Happened</th>
          </tr>
        </thead>
        <tbody>
          {lines.slice(0, shown).map(line => (
            <tr key={line.note} className="border-t border-line">
              <td className="py-1 font-mono">
                <button
                  type="button"
                  className="text-moss underline"
                  onClick={() => goToFrame(line.frame, evaluated.trace.frames)}
                >
                  {line.frame}f
                </button>
              </td>
              <td className="font-mono text-soft">{formatMs(line.frame, evaluated.program.rateHz)}</td>
              <td>{line.name}</td>
              <td>{line.words}</td>
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
