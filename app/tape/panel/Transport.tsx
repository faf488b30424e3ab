import { memo } from "react";
import { Button } from "../../ui/Button";
import { ChoiceWord } from "../../ui/ChoiceWord";
import { LiveText } from "../../ui/LiveText";
import { usePlayback, usePlaybackControl } from "../../document/evaluationContext";
import { SPEEDS } from "../../document/playback";

const SPEED_WORDS = ["1/8", "1/4", "1/2", "1", "2"] as const;

/** Steps, playback and its speed, and the position of the playhead. */
export const Transport = memo(function Transport({ frames }: { frames: number }) {
  const playback = usePlaybackControl();
  const isPlaying = usePlayback(state => state.isPlaying);
  const speed = usePlayback(state => state.speed);
  const isFirst = usePlayback(({ frame }) => frame <= 0);
  const isLast = usePlayback(({ frame }) => frame >= frames - 1);
  const step = (by: 1 | -1) => playback.goTo(playback.getState().frame + by);
  return (
    <span className="flex items-center" role="group" aria-label="Replay">
      <Button look="quiet" aria-label="−1f, one frame back" onClick={() => step(-1)} disabled={isFirst}>
        −1f
      </Button>
      <Button look="quiet" onClick={playback.toggle}>
        {isPlaying ? "Stop" : "Replay"}
      </Button>
      <Button look="quiet" aria-label="+1f, one frame on" onClick={() => step(1)} disabled={isLast}>
        +1f
      </Button>
      <ChoiceWord
        label="Speed"
        value={String(speed)}
        choices={SPEEDS.map((value, i) => ({ value: String(value), label: `${SPEED_WORDS[i]}×` }))}
        onChoose={value => playback.setState({ speed: Number(value) })}
      />
      <LiveText
        store={playback}
        read={({ frame }) => `${frame}f`}
        className="w-14 text-right font-mono text-sm"
        testId="playhead"
      />
    </span>
  );
});
