import { changeOf, type KitChange } from "../storage/kitWrite";
import type { Library, WriteConflict } from "../storage/library";
import type { CheckTally, KitDocument, KitSettings } from "../storage/records";

/** A document with everything that is stored with it. */
export interface Written extends KitDocument {
  readonly settings: KitSettings;
  readonly change: string;
  readonly checkTally: CheckTally | undefined;
}

/** Stores an open document as it changes; the first write begins in the same task as the edit. */
export interface Autosave {
  /** Call after each change. */
  readonly touch: () => void;
  /** Resolves when every change so far is stored, or held in memory by the library. */
  readonly flush: () => Promise<void>;
  /** Sets unsaved changes aside at once, because the page may be closed before a write completes. */
  readonly leave: () => void;
  /** Resets the saved version to what was just read from storage. */
  readonly reset: (written: Written) => void;
  readonly isClean: () => boolean;
  /** Returns unsaved changes and marks them saved. */
  readonly takePending: () => KitChange | undefined;
}

interface AutosaveWorld {
  readonly library: Pick<Library, "write" | "setAside" | "forgetAside">;
  /** Returns the current document; undefined while it must not be written. */
  readonly read: () => Written | undefined;
  readonly nowMs: () => number;
  /** Called on a write conflict with another tab. Nothing is written until the promise resolves. */
  readonly onConflict: (second: WriteConflict) => Promise<void>;
}

function isSame(a: Written, b: Written): boolean {
  const keys = Object.keys(a) as (keyof Written)[];
  return keys.every(key => key === "change" || a[key] === b[key]);
}

/**
 * Creates the autosave of one open document. Only one write runs at a time; changes made meanwhile are
 * written right after it.
 */
export function createAutosave(
  { library, read, nowMs, onConflict }: AutosaveWorld,
  first: Written,
): Autosave {
  let saved = first;
  let writing: Promise<void> | undefined;
  /** The kit for which this page has set changes aside that could not yet be stored. */
  let asideOf: string | undefined;

  const pending = () => {
    const now = read();
    return now && !isSame(now, saved) ? now : undefined;
  };
  const changeTo = (now: Written) => {
    const { settings, change, checkTally, ...document } = now;
    return changeOf(saved, document, { rows: settings, change, checkTally, changedAt: nowMs() });
  };

  /**
   * Writes until nothing is pending. Ends in the same task in which it finds nothing, so that a later edit
   * starts a new run.
   */
  async function writeOn(): Promise<void> {
    try {
      let isHeld = false;
      for (let now = pending(); now; now = pending()) {
        const change = changeTo(now);
        const before = saved;
        const answer = await library.write(change);
        // It was reloaded meanwhile, so the text written then no longer matches the stored one.
        if (saved === before) saved = now;
        isHeld = answer.state === "held";
        if (answer.state === "changed" || answer.state === "gone") await onConflict(answer);
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
