import type { App } from "./compose";

/**
 * Handles leaving the page, for as long as it lives: asks first during a recording or if something could not be
 * stored, and sets unsaved changes aside.
 */
export function handleLeaving({ hasHeld, kits }: Pick<App, "hasHeld" | "kits">): void {
  window.addEventListener("beforeunload", event => {
    const { isRecording, isLinked } = kits.current?.pad.getState() ?? {};
    const isUnkept = hasHeld() || kits.current?.workbench.hasWaitingRecording();
    if ((isRecording && !isLinked) || isUnkept) event.preventDefault();
  });
  window.addEventListener("pagehide", () => kits.current?.workbench.leave());
  window.addEventListener("pageshow", event => event.persisted && kits.current?.workbench.comeBack());
  document.addEventListener("visibilitychange", () => void kits.current?.workbench.flush());
}
