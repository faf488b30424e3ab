import { changeOf, type KitChange } from "../storage/kitWrite";
import type { Library, Second } from "../storage/library";
import type { KitDocument, RowOrder } from "../storage/records";

/** A document with all that is written of it. */
export interface Written extends KitDocument {
  readonly rows: RowOrder;
  readonly change: string;
}

/** Writes an open document as it changes: the first write begins in the very task of the edit. */
export interface Autosave {
  /** To be called after each change. */
  readonly touch: () => void;
  /** Keeps its promise when all that was changed until now is written, or held by the library. */
  readonly flush: () => Promise<void>;
  /** The page may be gone before the next line: what is not yet written is set aside at once. */
  readonly leave: () => void;
  /** What stands in storage has been read anew: from here on changes are counted. */
  readonly reset: (written: Written) => void;
  readonly isClean: () => boolean;
  /** What was changed since the last write and is written otherwise: from here on it counts as written. */
  readonly takePending: () => KitChange | undefined;
}

interface AutosaveWorld {
  readonly library: Pick<Library, "write" | "setAside" | "forgetAside">;
  /** The document as it stands; undefined while it must not be written. */
  readonly read: () => Written | undefined;
  readonly nowMs: () => number;
  /** Another tab was first. Nothing is written until the promise is kept. */
  readonly onSecond: (second: Second) => Promise<void>;
}

function isSame(a: Written, b: Written): boolean {
  const keys = Object.keys(a) as (keyof Written)[];
  return keys.every(key => key === "change" || a[key] === b[key]);
}

/** Makes the autosave of one open document. One write is under way at a time; what changed meanwhile follows it at once. */
export function createAutosave({ library, read, nowMs, onSecond }: AutosaveWorld, first: Written): Autosave {
  let saved = first;
  let writing: Promise<void> | undefined;
  /** The kit of which this page has set something aside, while that may not be written yet. */
  let asideOf: string | undefined;

  const pending = () => {
    const now = read();
    return now && !isSame(now, saved) ? now : undefined;
  };
  const changeTo = (now: Written) => {
    const { rows, change, ...document } = now;
    return changeOf(saved, document, { rows, change, changedAt: nowMs() });
  };

  /** Writes until nothing is pending. Ends in the very task that finds so: an edit after it begins the next writing. */
  async function writeOn(): Promise<void> {
    try {
      let isHeld = false;
      for (let now = pending(); now; now = pending()) {
        const change = changeTo(now);
        const before = saved;
        const answer = await library.write(change);
        // It was read again meanwhile, so the text written then no longer matches the one stored now.
        if (saved === before) saved = now;
        isHeld = answer.state === "held";
        if (answer.state === "changed" || answer.state === "gone") await onSecond(answer);
      }
      if (asideOf !== undefined && !isHeld) {
        library.forgetAside(asideOf);
        asideOf = undefined;
      }
    } finally {
      writing = undefined;
    }
  }

  function touch(): void {
    if (!writing && pending()) writing = writeOn();
  }

  return {
    touch,
    async flush() {
      touch();
      await writing;
    },
    leave() {
      const now = pending();
      if (now) asideOf = now.kit.id;
      library.setAside(now && changeTo(now));
    },
    reset(written) {
      saved = written;
    },
    isClean: () => !pending(),
    takePending() {
      const now = pending();
      const change = now && changeTo(now);
      if (now) saved = now;
      return change;
    },
  };
}
