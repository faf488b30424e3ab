import { memo } from "react";
import { Button } from "../../ui/Button";
import { ChoiceWord } from "../../ui/ChoiceWord";
import { usePlayback, usePlaybackControl } from "../../document/evaluationContext";
import { SPEEDS } from "../../document/playback";

const SPEED_WORDS = ["1/8", "1/4", "1/2", "1", "2"] as const;

/** Steps, playback and its speed, and the position of the playhead. */
export const Transport = memo(function Transport({ frames }: { frames: number }) {
  const playback = usePlaybackControl();
  const { frame, isPlaying, speed } = usePlayback(state => state);
  return (
    <span className="flex items-center" role="group" aria-label="Replay">
      <Button
        look="quiet"
        aria-label="−1f, one frame back"
        onClick={() => playback.goTo(frame - 1)}
        disabled={frame <= 0}
      >
        −1f
      </Button>
      <Button look="quiet" onClick={playback.toggle}>
        {isPlaying ? "Stop" : "Replay"}
      </Button>
      <Button
        look="quiet"
        aria-label="+1f, one frame on"
        onClick={() => playback.goTo(frame + 1)}
        disabled={frame >= frames - 1}
      >
        +1f
      </Button>
      <ChoiceWord
        label="Speed"
        value={String(speed)}
        choices={SPEEDS.map((value, i) => ({ value: String(value), label: `${SPEED_WORDS[i]}×` }))}
        onChoose={value => playback.setState({ speed: Number(value) })}
      />
      <span className="w-14 text-right font-mono text-sm" data-testid="playhead">
        {frame}f
      </span>
    </span>
  );
});
