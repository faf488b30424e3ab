import { useDeferredValue, useMemo } from "react";
import { useDocument, useWorkbench } from "../document/workbenchContext";
import { usePlaybackControl, useSoundKit } from "../document/evaluationContext";
import { usePadState } from "../input/context";
import { useJudging } from "../judging/context";
import { NextStep } from "../parts/NextStep";
import { findPressToSee } from "./model/pressToSee";

/** A press of the takes that is worth a look, which a click opens. */
function PressLink() {
  const workbench = useWorkbench();
  const playback = usePlaybackControl();
  const { judge } = useJudging();
  // It runs every take, so it follows a number that is dragged when input pauses.
  const kit = useDeferredValue(useSoundKit());
  const takes = useDocument(state => state.takes);
  const press = useMemo(() => kit && findPressToSee(judge, kit, takes), [judge, kit, takes]);
  if (!press) return null;
  return (
    <>
      {" "}
      Then look at{" "}
      <button
        type="button"
        className="text-left text-moss underline underline-offset-4"
        onClick={() => {
          workbench.openTake(press.take.id);
          playback.goTo(press.frame);
        }}
      >
        {press.control} at {press.frame}f
      </button>{" "}
      in “{press.take.name || press.take.id}”, {press.what}: the tape shows why.
    </>
  );
}

/** A line on what to try first, until something was played; with a press of the takes to look at, if one is worth it. */
export function FirstStep() {
  const isAwake = usePadState(state => state.session !== undefined);
  return (
    <NextStep view="play" isDone={isAwake} isBrief>
      Press Start listening and play with your keys: inputs are recognised as you play.
      <PressLink />
    </NextStep>
  );
}
