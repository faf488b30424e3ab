import { useSyncExternalStore } from "react";
import { Button } from "../ui/Button";

const KEY = "moss-tap-theme";
const CHANGED = "moss-tap-theme";

function subscribe(listener: () => void): () => void {
  window.addEventListener(CHANGED, listener);
  return () => window.removeEventListener(CHANGED, listener);
}

/** Switches between day and night, stored by the browser if it allows. */
export function ThemeButton() {
  const isNight = useSyncExternalStore(
    subscribe,
    () => document.documentElement.dataset.theme === "night",
    () => false,
  );
  const turn = () => {
    const theme = isNight ? "" : "night";
    document.documentElement.dataset.theme = theme;
    try {
      localStorage.setItem(KEY, theme);
    } catch {
      console.info("The theme is not remembered: this browser keeps no storage.");
    }
    window.dispatchEvent(new Event(CHANGED));
  };
  return (
    <Button look="quiet" onClick={turn} aria-label={isNight ? "Day theme" : "Night theme"}>
      {isNight ? "Day" : "Night"}
    </Button>
  );
}
