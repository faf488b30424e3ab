import { createStore, type StoreApi } from "zustand/vanilla";

/** An action offered by a notice. */
export interface NoticeAction {
  readonly label: string;
  readonly run: () => void;
}

/** A message to the user: the event, its details, and possible actions. */
export interface Notice {
  readonly id: number;
  readonly tone: "plain" | "trouble";
  readonly title: string;
  readonly details: readonly string[];
  readonly action?: NoticeAction;
  /** The second action. */
  readonly other?: NoticeAction;
}

/** Shows a notice. An equal one replaces the first. */
export interface Notify {
  (notice: Omit<Notice, "id">): void;
  /** Saves a value as a JSON file, unchanged. */
  readonly saveRaw: (name: string, raw: unknown) => void;
}

export interface Notices {
  readonly store: StoreApi<readonly Notice[]>;
  readonly notify: Notify;
  /** Removes a notice. */
  readonly dismiss: (id: number) => void;
}

/** The maximum number of notices kept; the oldest are dropped first. */
const MAX_NOTICES = 30;

/** Creates the notices of one page. `saveRaw` saves a value as a file. */
export function createNotices(saveRaw: (name: string, raw: unknown) => void): Notices {
  const store = createStore<readonly Notice[]>(() => []);
  let nextId = 0;
  const notify = (notice: Omit<Notice, "id">) =>
    store.setState(
      [...store.getState().filter(other => other.title !== notice.title), { ...notice, id: nextId++ }].slice(
        -MAX_NOTICES,
      ),
      true,
    );
  return {
    store,
    notify: Object.assign(notify, { saveRaw }),
    dismiss: id =>
      store.setState(
        store.getState().filter(notice => notice.id !== id),
        true,
      ),
  };
}
