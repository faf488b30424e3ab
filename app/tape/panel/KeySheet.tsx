import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import { Button } from "../../ui/Button";

const KEYS = [
  ["← →", "one frame back or on; with Shift ten"],
  ["[ ]", "last or next event of any row"],
  ["{ }", "last or next event of the chosen row"],
  ["↑ ↓", "choose the row above or below"],
  ["Alt ↑ ↓", "move the chosen row up or down in its group"],
  ["G", "fold the group of the chosen row, or unfold it"],
  ["O", "lay the next variant of the rules over the take, or none"],
  ["T", "the other takes as strips beside this one, or not"],
  ["Enter", "the fate of what stands on this frame in the chosen row"],
  ["Home End", "first or last frame"],
  ["Space", "replay, or stop"],
  ["1 … 5", "replay at 1/8, 1/4, 1/2, 1 or 2 times"],
  ["S", "begin a stretch here; again: end it here; again: let it go"],
  ["Z", "zoom to the stretch, or to the whole take"],
  ["L", "loop the stretch"],
  ["X C V", "cut or copy the stretch, paste it from this frame on"],
  [", .", "shift the stretch a frame earlier or later"],
  ["R Delete", "repeat the stretch after itself, or wipe it"],
  ["+ −", "nearer or farther"],
  ["P", "paint, or look again"],
  ["F", "press here for one frame in the chosen row (painting)"],
  ["Backspace", "wipe the press that stands here in the chosen row (painting)"],
  ["?", "this sheet"],
] as const;

/** Every action of the tape and its key. They work while the tape has the focus and the pad sleeps. */
export function KeySheet({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  return (
    <Dialog open={isOpen} onClose={onClose} className="relative z-50">
      <div className="fixed inset-0 bg-ink/30" aria-hidden />
      <div className="fixed inset-0 grid place-items-center p-6">
        <DialogPanel className="w-[560px] rounded-stone border-2 border-ink bg-paper p-6">
          <DialogTitle className="font-serif text-2xl font-semibold">Keys of the tape</DialogTitle>
          <p className="mb-3 text-sm text-soft">
            While the tape has the focus and the pad sleeps. By hand: drag to pan, wheel with Ctrl to zoom,
            Shift over the ruler to measure, pull the bars at the ends of windows, drag a row by its name,
            click the wedge before a group to fold it, and in paint drag on a lane (Shift wipes).
          </p>
          <dl className="text-sm">
            {KEYS.map(([keys, words]) => (
              <div key={keys} className="flex gap-4 border-b border-dotted border-line py-1">
                <dt className="w-24 shrink-0 font-mono font-semibold">{keys}</dt>
                <dd>{words}</dd>
              </div>
            ))}
          </dl>
          <p className="mt-4 text-right">
            <Button onClick={onClose}>Close</Button>
          </p>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
