import { firstNoteAfter } from "#core";
import { useEvaluated, usePlayback, usePlaybackControl } from "../document/evaluationContext";
import { usePadState } from "../input/context";
import { listRecognised, type IsWanted } from "../scene/listRecognised";

const anything: IsWanted = () => true;

/**
 * The last recognised events, newest first, each with its frame: of the live session, or of the open take up
 * to the playhead if `isReplayTold`; a click on a line goes there.
 */
export function Ticker({
  only = anything,
  includesReplay = false,
}: {
  only?: IsWanted;
  includesReplay?: boolean;
}) {
  const playback = usePlaybackControl();
  const session = usePadState(state => state.session);
  const evaluated = useEvaluated();
  const live = usePadState(state => state.session?.trace.count ?? 0);
  const replayed = includesReplay && !session ? evaluated : undefined;
  const reached = usePlayback(({ frame }) => (replayed ? firstNoteAfter(replayed.trace, frame) : 0));
  const shown = session ?? replayed;
  const lines = shown ? listRecognised(shown.rules, shown.trace, session ? live : reached, only) : [];
  if (lines.length === 0) {
    return (
      <p className="text-sm text-soft">
        {session
          ? "Press something: recognised inputs appear here."
          : replayed
            ? "Replay the take, or start listening and press: recognised inputs appear here."
            : "Start listening and press: recognised inputs appear here."}
      </p>
    );
  }
  return (
    <ol className="text-sm" aria-label="Last results" data-testid="ticker">
      {lines.map(line => (
        <li
          key={line.note}
          className={`flex justify-between gap-3 border-b border-dotted border-line py-1 ${line.isLoss ? "text-foxglove" : ""}`}
        >
          <span>
            <b>{line.name}</b> {line.words}
          </span>
          {replayed ? (
            <button
              type="button"
              className="font-mono underline-offset-4 hover:underline"
              aria-label={`${line.frame}f: go to the frame`}
              onClick={() => playback.goTo(line.frame)}
            >
              {line.frame}f
            </button>
          ) : (
            <span className="font-mono">{line.frame}f</span>
          )}
        </li>
      ))}
    </ol>
  );
}
