import { useEffect } from "react";
import { usePadState } from "../input/context";
import { useNotices } from "../ui/noticesContext";

/** Shows once, while the pad is awake, that time passed unrecorded. */
export function GapNotice() {
  const { notify } = useNotices();
  const hasMissed = usePadState(state => state.missedMs > 0);
  const missedMs = usePadState(state => state.missedMs);
  useEffect(() => {
    if (!hasMissed) return;
    notify({
      tone: "plain",
      title: `${(missedMs / 1000).toFixed(1)} s could not be played: the machine slept, or the rules took too long. The take has a gap there.`,
      details: [],
    });
    // Once for a session, with the first length.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
  }, [hasMissed, notify]);
  return null;
}
