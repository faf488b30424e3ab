import { Sheet } from "../../ui/Sheet";
import { TAPE_KEYS } from "../hand/tapeKeys";

/** The list of the tape's keys. They work while the tape has the focus and the pad is asleep. */
export function KeySheet({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  return (
    <Sheet title="Keys of the tape" isOpen={isOpen} onClose={onClose} isWide>
      <p className="mb-3 text-sm text-soft">
        While the tape has the focus and you are not listening. By hand: drag to pan, wheel with Ctrl to zoom,
        Shift over the ruler to measure, pull the bars at the ends of windows, drag a row by its name, click
        the wedge before a group to fold it, and in paint drag on a lane (Shift erases).
      </p>
      <dl className="columns-2 gap-8 text-sm">
        {TAPE_KEYS.map(({ shown, words }) => (
          <div key={shown} className="flex break-inside-avoid gap-3 border-b border-dotted border-line py-1">
            <dt className="w-20 shrink-0 font-mono font-semibold">{shown}</dt>
            <dd>{words}</dd>
          </div>
        ))}
      </dl>
    </Sheet>
  );
}
