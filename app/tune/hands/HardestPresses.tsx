import type { Kit, PressShare } from "#core";
import { Button } from "../../ui/Button";
import { FrameLink } from "../FrameLink";
import { usedFor } from "../model/usedFor";
import { ShareBar } from "./ShareBar";
import type { HandsStudy } from "./useHands";

const MAX_PRESSES = 15;

/** The presses that are used the same way least often, each with a play that lost it. */
export function HardestPresses({
  presses,
  kit,
  study: { beginSpread, keepPlay },
}: {
  presses: readonly PressShare[];
  /** The studied kit. */
  kit: Kit;
  study: HandsStudy;
}) {
  const hardest = [...presses].sort((a, b) => a.share.share - b.share.share).slice(0, MAX_PRESSES);
  if (hardest.length === 0) return null;
  return (
    <table className="mt-2 text-sm" aria-label="Hardest presses" data-testid="hardest">
      <caption className="text-left font-semibold">Hardest presses</caption>
      <tbody>
        {hardest.map(press => {
          const words = usedFor(kit, press);
          return (
            <tr key={`${press.take} ${press.control} ${press.press}`} className="border-t border-line">
              <td className="max-w-80 pr-4">
                <FrameLink take={press.take} frame={press.frame} words={words} />
              </td>
              <td className="pr-4">
                <ShareBar share={press.share} />
              </td>
              <td className="whitespace-nowrap">
                <Button
                  look="quiet"
                  aria-label={`Who loses the press for ${words} on ${press.frame}f`}
                  onClick={() => beginSpread(press)}
                >
                  who loses it?
                </Button>
                {press.failsAt !== undefined && (
                  <Button
                    look="quiet"
                    aria-label={`Open a play that loses the press for ${words} on ${press.frame}f`}
                    onClick={() => keepPlay(press.take, press.failsAt!)}
                  >
                    open one that lost it
                  </Button>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
