import type { KitRecord, TakeRecord } from "./library";

/** What had not been written when the page was left: small, and written at once, since nothing else outlives a page. */
export interface LeftBehind {
  readonly kit: KitRecord;
  readonly takes: readonly TakeRecord[];
  readonly goneTakeIds: readonly string[];
}

const KEY = "moss-tap-left-behind";

/** Puts it where the next page finds it. Where the browser has no room, only the ordinary writing is left to trust. */
export function leaveBehind(left: LeftBehind): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(left));
  } catch (error) {
    console.info("The last quarter of a second could not be set aside.", error);
  }
}

/** What the page before left behind, once; undefined when it left nothing. */
export function takeUpLeft(): LeftBehind | undefined {
  try {
    const text = localStorage.getItem(KEY);
    localStorage.removeItem(KEY);
    return text === null ? undefined : (JSON.parse(text) as LeftBehind);
  } catch (error) {
    console.info("What the page before left behind could not be read.", error);
    return undefined;
  }
}
