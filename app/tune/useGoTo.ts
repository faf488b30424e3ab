import { usePlaybackControl } from "../document/evaluationContext";
import { useWorkbench } from "../document/workbenchContext";

/** Returns a function that opens a take at a frame on the tape. */
export function useGoTo(): (takeId: string, frame: number) => void {
  const workbench = useWorkbench();
  const playback = usePlaybackControl();
  return (takeId, frame) => {
    workbench.openTake(takeId);
    playback.goTo(Math.round(frame));
  };
}
