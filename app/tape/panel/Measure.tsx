import { formatMs } from "#core";
import { usePlayback, usePlaybackControl } from "../../document/evaluationContext";
import { ActMenu } from "../../ui/ActMenu";
import { Button } from "../../ui/Button";
import { useTape } from "../hand/context";
import type { StretchAct } from "../hand/tapeActions";

const STRETCH_ACTS: readonly (readonly [StretchAct, string])[] = [
  ["cut", "Cut (X)"],
  ["copy", "Copy (C)"],
  ["paste", "Paste at the playhead (V)"],
  ["earlier", "A frame earlier (,)"],
  ["later", "A frame later (.)"],
  ["repeat", "Repeat after itself (R)"],
  ["wipe", "Erase (Delete)"],
];

/** The line below the tape while a stretch is selected: its length, whether it loops, and how to clear it. */
export function Measure({ rateHz }: { rateHz: number }) {
  const playback = usePlaybackControl();
  const { actions } = useTape();
  const stretch = usePlayback(state => state.stretch);
  const isLooping = usePlayback(state => state.isLooping);
  if (!stretch) return null;
  const frames = stretch.to - stretch.from;
  return (
    <p
      className="flex shrink-0 items-center gap-1 border-t border-line px-5 py-0.5 text-sm whitespace-nowrap"
      data-testid="measure"
    >
      <span className="mr-2 font-mono">
        {stretch.from}–{stretch.to}: <b>{frames}f</b> {formatMs(frames, rateHz)}
      </span>
      <Button
        look="quiet"
        aria-pressed={isLooping}
        onClick={() => playback.setState({ isLooping: !isLooping })}
      >
        {isLooping ? "Looping" : "Loop"}
      </Button>
      <ActMenu
        word="Edit"
        acts={STRETCH_ACTS.map(([act, words]) => ({ words, run: () => actions.actOnStretch(act) }))}
      />
      <Button
        look="quiet"
        aria-label="Let the stretch go"
        onClick={() => playback.setState({ stretch: undefined, isLooping: false })}
      >
        ×
      </Button>
    </p>
  );
}
