import { useDesk } from "../document/context";

/** Returns a function that opens a take at a frame on the tape. */
export function useGoTo(): (takeId: string, frame: number) => void {
  const { workbench, playback } = useDesk();
  return (takeId, frame) => {
    workbench.openTake(takeId);
    playback.goTo(Math.round(frame));
  };
}
