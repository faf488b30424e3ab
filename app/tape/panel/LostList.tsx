import { useMemo } from "react";
import { countWords, formatFate, formatRepair, type Fate, type Repair } from "#core";
import { useDesk } from "../../document/context";
import { Flap } from "../../ui/Flap";
import { useTape } from "../hand/context";
import { listLost } from "../model/outcomes";
import { useRepairs } from "./useRepairs";
import type { Evaluated } from "../../judging/judge";

interface Lost {
  readonly fate: Fate;
  readonly repair: Repair | undefined;
}

/** Every lost press of the open take, nearest miss first; worked out by a worker when the list is opened. */
function LostPresses({
  evaluated,
  lost,
  close,
}: {
  evaluated: Evaluated;
  lost: readonly Fate[];
  close: () => void;
}) {
  const { playback } = useDesk();
  const { look } = useTape();
  const { found, done, trouble } = useRepairs(evaluated, { fates: lost, isNearestOnly: true });
  const list = useMemo(() => {
    const all = lost.map((fate, i): Lost => ({ fate, repair: found?.[i]?.[0] }));
    const far = ({ repair }: Lost) => repair?.byFrames ?? Infinity;
    return found
      ? all.sort((a, b) => (far(a) === far(b) ? 0 : far(a) - far(b)) || a.fate.frame - b.fate.frame)
      : all;
  }, [lost, found]);
  return (
    <>
      <p className="px-3 py-1 text-soft" role="status">
        {trouble
          ? `What would have saved them was not found: ${trouble}`
          : found
            ? "Nearest to being saved first"
            : `Looking for what would have saved them: ${done} of ${lost.length}`}
      </p>
      <ul data-testid="lost-list">
        {list.map(({ fate, repair }) => (
          <li key={`${fate.control} ${fate.frame}`}>
            <button
              type="button"
              className="block w-full rounded-xl px-3 py-1.5 text-left hover:bg-sand focus-visible:bg-sand"
              onClick={() => {
                playback.goTo(fate.frame);
                look.setState({ fate });
                close();
              }}
            >
              {formatFate(evaluated.rules, evaluated.trace, fate)}{" "}
              {repair && (
                <b className="text-foxglove">
                  Saved by {repair.byFrames}f. {formatRepair(evaluated.rules.kit, repair)}.
                </b>
              )}
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}

/** How many presses of the open take were lost, and the list of them. */
export function LostList({ evaluated }: { evaluated: Evaluated }) {
  const { judge } = useDesk();
  const lost = useMemo(() => listLost(judge.fatesOf(evaluated)), [judge, evaluated]);
  if (lost.length === 0) return <span className="whitespace-nowrap text-soft">no press lost</span>;
  return (
    <Flap
      word={
        <>
          <svg aria-hidden width="14" height="14" viewBox="0 0 14 14">
            <path d="M3 11a5.2 5.2 0 1 1 7.5-.6" fill="none" className="stroke-foxglove" strokeWidth="2.4" />
          </svg>
          {countWords(lost.length, "press", "presses")} lost
        </>
      }
      wordLook="flex items-center gap-1.5 whitespace-nowrap underline-offset-4 hover:underline"
      anchor="top"
      panelLook="max-h-80 w-[460px] p-2"
    >
      {close => <LostPresses evaluated={evaluated} lost={lost} close={close} />}
    </Flap>
  );
}
