import { countWords, type Kit } from "#core";
import type { PlayedHands } from "../../judging/jobs/hands";
import { Button } from "../../ui/Button";
import { FrameLink } from "../FrameLink";
import { listHardest, type PlayedPress } from "../model/hardestPresses";
import { usedFor } from "../model/usedFor";
import { ShareBar } from "./ShareBar";
import type { HandsStudy } from "./useHands";

/** One press: its place, its share, the spread it bears, and a play that lost it. */
function PressRow({
  played: { press, by },
  kit,
  study: { beginSpread, keepPlay },
}: {
  played: PlayedPress;
  kit: Kit;
  study: HandsStudy;
}) {
  const words = usedFor(kit, press);
  return (
    <tr className="border-t border-line">
      <td className="w-full max-w-0 pr-4">
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
}

/** The presses with which a hand has most trouble: those of the take it uses least often, and those it saves most often. */
export function HardestPresses({
  results,
  kit,
  study,
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
  const { used, lost, hopeless, chance } = listHardest(results);
  if (used.length + lost.length + hopeless + chance === 0) return null;
  const soFar = isWhole ? "" : " so far";
  const left = [
    ...(hopeless > 0
      ? [
          `${countWords(hopeless, "press", "presses")} used neither in the take nor in any play${soFar}: mark on the tape those that were not meant`,
        ]
      : []),
    ...(chance > 0
      ? [
          `${countWords(chance, "press", "presses")} that no rule used or lost in the take, but some plays use`,
        ]
      : []),
  ];
  const groups = [
    { heading: "Hardest presses of those that the take used", presses: used },
    { heading: "Lost in the take, used most often in plays", presses: lost },
  ];
  return (
    <div className="mt-2 overflow-x-auto text-sm">
      <table className="w-full min-w-[44rem]" aria-label="Hardest presses" data-testid="hardest">
        {groups.map(
          ({ heading, presses }) =>
            presses.length > 0 && (
              <tbody key={heading}>
                <tr>
                  <th colSpan={3} scope="rowgroup" className="pt-2 text-left">
                    {heading}
                  </th>
                </tr>
                {presses.map(played => {
                  const { take, control, press } = played.press;
                  return (
                    <PressRow key={`${take} ${control} ${press}`} played={played} kit={kit} study={study} />
                  );
                })}
              </tbody>
            ),
        )}
      </table>
      {left.length > 0 && <p className="mt-1 text-soft">Not listed: {left.join("; ")}.</p>}
    </div>
  );
}
