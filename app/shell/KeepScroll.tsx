import { useSyncExternalStore } from "react";
import { ScrollRestoration } from "react-router";

/** Returns whether the browser keeps data for this tab; with data of sites blocked it throws. */
function keepsData(): boolean {
  try {
    sessionStorage.getItem("");
    return true;
  } catch {
    return false;
  }
}

const subscribe = () => () => undefined;

/** Restores the place of the page's scrolling; left out in a browser that keeps no data, where it would log an error. */
export function KeepScroll({ nonce }: { nonce: string | undefined }) {
  const isKept = useSyncExternalStore(subscribe, keepsData, () => false);
  return isKept && <ScrollRestoration nonce={nonce} />;
}
