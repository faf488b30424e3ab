import { countWords, type Kit, type PressShare } from "#core";
import type { PlayedHands } from "../../judging/jobs/hands";
import { Button } from "../../ui/Button";
import { FrameLink } from "../FrameLink";
import { usedFor } from "../model/usedFor";
import { ShareBar } from "./ShareBar";
import type { HandsStudy } from "./useHands";

const MAX_PRESSES = 15;

/** The meant presses that are used least often, each with a play that lost it. */
export function HardestPresses({
  results,
  kit,
  study: { beginSpread, keepPlay },
  isWhole,
}: {
  /** The results of the first hand, for each group of takes. */
  results: readonly PlayedHands[];
  /** The studied kit. */
  kit: Kit;
  study: HandsStudy;
  /** Whether every group has been played. */
  isWhole: boolean;
}) {
  // Used neither in the take nor in any play: no spread explains that, so they are only counted.
  const isHopeless = ({ same, kept }: PressShare) => same === undefined && kept.hits === 0;
  const presses = results.flatMap(by => by.presses.map(press => ({ press, by })));
  const hopeless = presses.filter(({ press }) => isHopeless(press)).length;
  const hardest = presses
    .filter(({ press }) => !isHopeless(press))
    .sort((a, b) => a.press.kept.share - b.press.kept.share)
    .slice(0, MAX_PRESSES);
  if (presses.length === 0) return null;
  return (
    <div className="overflow-x-auto">
      <table className="mt-2 text-sm" aria-label="Hardest presses" data-testid="hardest">
        <caption className="text-left">
          <b>Hardest presses</b>
          {hopeless > 0 && (
            <span className="text-soft">
              , besides {countWords(hopeless, "press", "presses")} used neither in the take nor in any play
              {!isWhole && " so far"}: mark on the tape those that were not meant
            </span>
          )}
        </caption>
        <tbody>
          {hardest.map(({ press, by }) => {
            const words = usedFor(kit, press);
            return (
              <tr key={`${press.take} ${press.control} ${press.press}`} className="border-t border-line">
                <td className="max-w-80 pr-4">
                  <FrameLink take={press.take} frame={press.frame} words={words} />
                </td>
                <td className="pr-4">
                  <ShareBar share={press.kept} />
                </td>
                <td className="whitespace-nowrap">
                  <Button
                    look="quiet"
                    aria-label={`Who loses the press for ${words} on ${press.frame}f`}
                    onClick={() => beginSpread(press, by)}
                  >
                    who loses it?
                  </Button>
                  {press.failsAt !== undefined && (
                    <Button
                      look="quiet"
                      aria-label={`Open a play that loses the press for ${words} on ${press.frame}f`}
                      onClick={() => keepPlay(press.take, press.failsAt!, by)}
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
    </div>
  );
}
