import { useDocument, useWorkbench } from "../document/workbenchContext";
import { usePlaybackControl } from "../document/evaluationContext";
import { usePadState } from "../input/context";
import { NextStep } from "../parts/NextStep";

/** A press of a demo that is worth a look, by the id of its kit. */
const PRESSES: Readonly<
  Record<
    string,
    { readonly take: string; readonly frame: number; readonly words: string; readonly why: string }
  >
> = {
  "belfry-runner": {
    take: "3-eaten",
    frame: 136,
    words: "the leap at 136f that came to nothing",
    why: "the tape names the buffer that would have saved it",
  },
  "clapper-duel": {
    take: "2-pressed-too-early",
    frame: 66,
    words: "the strike at 66f that came too early",
    why: "the tape names what it waited for",
  },
  "rope-catch": {
    take: "3-too-soon",
    frame: 58,
    words: "the catch at 58f, before its window",
    why: "the tape names what it failed on",
  },
};

/** A line on what to try first, until something was played; in a demo with a press to look at, which a click opens. */
export function FirstStep() {
  const workbench = useWorkbench();
  const playback = usePlaybackControl();
  const isAwake = usePadState(state => state.session !== undefined);
  const press = useDocument(state => {
    const found = PRESSES[state.kit?.id ?? ""];
    return found && state.takes.some(({ id }) => id === found.take) ? found : undefined;
  });
  return (
    <NextStep view="play" isDone={isAwake}>
      Press Start listening and play with your keys: it is understood as you play.
      {press && (
        <>
          {" "}
          Then look at{" "}
          <button
            type="button"
            className="text-left text-moss underline underline-offset-4"
            onClick={() => {
              workbench.openTake(press.take);
              playback.goTo(press.frame);
            }}
          >
            {press.words}
          </button>
          : {press.why}.
        </>
      )}
    </NextStep>
  );
}
