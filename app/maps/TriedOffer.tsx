import { countWords, formatPrice, writeAt, type Kit } from "#core";
import { Button } from "../ui/Button";
import { useWorkbench } from "../document/workbenchContext";
import { useOffer, type OfferWanted } from "./useOffer";
import type { TakesNow } from "./useTakes";

/**
 * An offer to change a number of the kit that saves presses: a button with the length that was tried, the
 * number it saves, and its other effects; a plain line if no length within reach saves any. Nothing if there
 * is nothing to save.
 */
export function TriedOffer({
  kit,
  now,
  verb,
  what,
  ...of
}: OfferWanted & {
  kit: Kit;
  now: TakesNow;
  /** The change up to its length: "Set the buffer to". */
  verb: string;
  /** The presses to save: "lost early". */
  what: string;
}) {
  const workbench = useWorkbench();
  const found = useOffer(kit, now, of);
  const { lever, wanted, mostFrames } = of;
  if (wanted.length === 0) return null;
  // As high as the offer, so that nothing below it moves when it appears; shown only if it takes long.
  if (!found)
    return (
      <p className="appear-late flex min-h-9 items-center text-soft">Trying what would save those {what} …</p>
    );
  if (found.trouble)
    return (
      <p className="flex min-h-9 items-center text-foxglove">
        What would save them was not found: {found.trouble}
      </p>
    );
  const { change } = found;
  if (!change)
    return (
      <p className="flex min-h-9 items-center text-soft">
        Up to {mostFrames}f more than now saves none of the {countWords(wanted.length, "press", "presses")}{" "}
        {what}.
      </p>
    );
  const words = `${verb} ${change.to}`;
  return (
    <p className="flex min-h-9 flex-wrap items-center gap-x-2 gap-y-1">
      <Button
        className="border-moss font-semibold text-moss"
        onClick={() => workbench.editKit(words, known => writeAt(known, lever.path, change.to))}
      >
        {words}
      </Button>
      <span className="text-soft">
        saves {change.saved.length} of {wanted.length} {what}; {formatPrice(kit, change.price)}
      </span>
    </p>
  );
}
