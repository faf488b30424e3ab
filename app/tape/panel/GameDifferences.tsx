import { useMemo } from "react";
import { formatTrace, nameOf } from "#core";
import {
  compareTake,
  countDifferences,
  explainDifference,
  formatDifference,
  listDifferences,
  type PairedAct,
} from "#link";
import { useChecking } from "../../document/checksContext";
import { usePlaybackControl } from "../../document/evaluationContext";
import type { Evaluated } from "../../judging/judge";
import { Button } from "../../ui/Button";
import { Flap } from "../../ui/Flap";

/** The differences shown; a take with more is wrong in one place that the first of them name. */
const MAX_SHOWN = 200;

const frameOf = ({ game, rules }: PairedAct) => Math.min(game ?? Infinity, rules ?? Infinity);

/** The differences of a take, the largest first; each leads to its frame, and can become a check. */
function DifferenceList({
  evaluated,
  different,
  close,
}: {
  evaluated: Evaluated;
  different: readonly PairedAct[];
  close: () => void;
}) {
  const playback = usePlaybackControl();
  const checking = useChecking();
  const { kit } = evaluated.rules;
  const events = useMemo(() => formatTrace(evaluated.program, evaluated.trace).events, [evaluated]);
  return (
    <>
      <p className="px-3 py-1 text-soft">
        Moves that the game and the rules performed apart, or one of them alone; the largest first
      </p>
      <ul data-testid="difference-list">
        {different.slice(0, MAX_SHOWN).map(pair => {
          const name = nameOf(kit, "moves", pair.id);
          const why = explainDifference(kit, events, pair);
          return (
            <li key={`${pair.id} ${pair.game} ${pair.rules}`} className="flex items-start gap-1">
              <button
                type="button"
                className="grow rounded-xl px-3 py-1.5 text-left hover:bg-sand focus-visible:bg-sand"
                onClick={() => {
                  playback.goTo(frameOf(pair));
                  close();
                }}
              >
                <span className="font-mono">{frameOf(pair)}f</span> <b>{name}</b>: {formatDifference(pair)}
                {why && `. ${why[0]!.toUpperCase()}${why.slice(1)}.`}
              </button>
              <Button
                look="quiet"
                aria-label={`Check that the rules do as the game: ${name} at ${frameOf(pair)}f`}
                onClick={() => checking.asTheGame(pair)}
              >
                Make it a check
              </Button>
            </li>
          );
        })}
      </ul>
      {different.length > MAX_SHOWN && (
        <p className="px-3 py-1 text-soft">and {different.length - MAX_SHOWN} more</p>
      )}
    </>
  );
}

/** How the moves that a running game performed in the open take compare with the rules; nothing for other takes. */
export function GameDifferences({ evaluated }: { evaluated: Evaluated }) {
  const pairs = useMemo(() => compareTake(evaluated.program, evaluated.trace, evaluated.take), [evaluated]);
  if (pairs.length === 0) return null;
  const different = listDifferences(pairs);
  const { agreed } = countDifferences(pairs);
  if (different.length === 0)
    return (
      <span className="whitespace-nowrap text-soft">
        the game agrees, {agreed} of {agreed}
      </span>
    );
  return (
    <Flap
      word={`${different.length} differ`}
      label={`${different.length} differ from the game, ${agreed} agree`}
      wordLook="whitespace-nowrap text-foxglove underline-offset-4 hover:underline"
      anchor="top"
      panelLook="max-h-80 w-[560px] p-2"
    >
      {close => <DifferenceList evaluated={evaluated} different={different} close={close} />}
    </Flap>
  );
}
