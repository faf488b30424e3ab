import { createStore, type StoreApi } from "zustand/vanilla";

/** Something that can be done about what is said. */
export interface NoticeAction {
  readonly label: string;
  readonly run: () => void;
}

/** A word to the user: what happened, its details, and what can be done about it. */
export interface Notice {
  readonly id: number;
  readonly tone: "plain" | "trouble";
  readonly title: string;
  readonly details: readonly string[];
  readonly action?: NoticeAction;
  /** The other way out. */
  readonly other?: NoticeAction;
}

/** Says something. The same word said again takes the place of the first. */
export interface Say {
  (notice: Omit<Notice, "id">): void;
  /** Hands something to the user as a file of JSON, as it is. */
  readonly saveRaw: (name: string, raw: unknown) => void;
}

export interface Notices {
  readonly store: StoreApi<readonly Notice[]>;
  readonly say: Say;
  /** Takes a notice away. */
  readonly dismiss: (id: number) => void;
}

/** As many are remembered; the oldest go first. */
const MOST = 30;

/** Makes the notices of one page. `saveRaw`: how something leaves as a file. */
export function createNotices(saveRaw: (name: string, raw: unknown) => void): Notices {
  const store = createStore<readonly Notice[]>(() => []);
  let nextId = 0;
  const tell = (notice: Omit<Notice, "id">) =>
    store.setState(
      [...store.getState().filter(other => other.title !== notice.title), { ...notice, id: nextId++ }].slice(
        -MOST,
      ),
      true,
    );
  return {
    store,
    say: Object.assign(tell, { saveRaw }),
    dismiss: id =>
      store.setState(
        store.getState().filter(notice => notice.id !== id),
        true,
      ),
  };
}
