import { useEffect } from "react";
import { useDesk } from "../document/context";
import { usePad } from "../input/context";

/**
 * Guards the leaving of the page: asks first while a recording runs or something could not be kept, and sets aside what
 * is not yet written.
 */
export function useLeaving(hasHeld: () => boolean): void {
  const { workbench } = useDesk();
  const pad = usePad();
  useEffect(() => {
    const ending = new AbortController();
    const { signal } = ending;
    window.addEventListener(
      "beforeunload",
      event => {
        const isUnkept = hasHeld() || workbench.hasWaitingRecording();
        if (pad.getState().isRecording || isUnkept) event.preventDefault();
      },
      { signal },
    );
    window.addEventListener("pagehide", () => workbench.leave(), { signal });
    window.addEventListener("pageshow", event => event.persisted && workbench.comeBack(), { signal });
    document.addEventListener("visibilitychange", () => void workbench.flush(), { signal });
    return () => ending.abort();
  }, [workbench, pad, hasHeld]);
}
