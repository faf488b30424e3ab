import { useEffect } from "react";
import { useWorkbench } from "../document/workbenchContext";
import { usePad } from "../input/context";

/**
 * Handles leaving the page: asks first during a recording or if something could not be stored, and sets
 * unsaved changes aside.
 */
export function useLeaving(hasHeld: () => boolean): void {
  const workbench = useWorkbench();
  const pad = usePad();
  useEffect(() => {
    const ending = new AbortController();
    const { signal } = ending;
    window.addEventListener(
      "beforeunload",
      event => {
        const isUnkept = hasHeld() || workbench.hasWaitingRecording();
        const { isRecording, isLinked } = pad.getState();
        if ((isRecording && !isLinked) || isUnkept) event.preventDefault();
      },
      { signal },
    );
    window.addEventListener("pagehide", () => workbench.leave(), { signal });
    window.addEventListener("pageshow", event => event.persisted && workbench.comeBack(), { signal });
    document.addEventListener("visibilitychange", () => void workbench.flush(), { signal });
    return () => ending.abort();
  }, [workbench, pad, hasHeld]);
}
