import { nanoid } from "nanoid";
import { createStore } from "zustand/vanilla";

/** A word to the user that stands until read: what happened, its details, and what can be done about it. */
export interface Notice {
  readonly id: string;
  readonly tone: "plain" | "trouble";
  readonly title: string;
  readonly details: readonly string[];
  readonly action?: { readonly label: string; readonly run: () => void };
}

export const notices = createStore<readonly Notice[]>(() => []);

/** Says something. At most three notices stand at once; the oldest goes first. */
export function say(notice: Omit<Notice, "id">): void {
  notices.setState([...notices.getState(), { ...notice, id: nanoid(6) }].slice(-3), true);
}

/** Takes a notice away. */
export function dismiss(id: string): void {
  notices.setState(
    notices.getState().filter(notice => notice.id !== id),
    true,
  );
}
