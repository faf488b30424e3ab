import { useEffect, useRef, useState } from "react";
import { createStore, type StoreApi } from "zustand/vanilla";
import type { ReadFile } from "#handover";
import { useWorkers } from "../judging/workers";
import { beginReading, type Reading } from "../judging/reading";
import type { TakenLine } from "../storage/takenIn";
import { loadTakenSheet } from "./loadTakenSheet";

/** The progress of reading. */
export interface ReadingNow {
  readonly files: number;
  /** Bytes read, and their total. */
  readonly done: number;
  readonly of: number;
}

/** The running import, and the results of the last one. */
export interface TakingIn {
  /** How far reading is, undefined while nothing is read; a store, so that only the board renders with it. */
  readonly now: StoreApi<ReadingNow | undefined>;
  readonly lines: readonly TakenLine[] | undefined;
  readonly begin: (files: readonly File[]) => void;
  /** Cancels reading; nothing is imported. */
  readonly stop: () => void;
  readonly forget: () => void;
}

/**
 * Reads files and passes them to `place`, which returns the result of each. A newer import cancels the
 * running one.
 */
export function useTakingIn(place: (read: readonly ReadFile[]) => Promise<readonly TakenLine[]>): TakingIn {
  const workers = useWorkers();
  const reading = useRef<Reading>(undefined);
  const [now] = useState(() => createStore<ReadingNow | undefined>(() => undefined));
  const [lines, setLines] = useState<readonly TakenLine[]>();
  useEffect(() => () => reading.current?.stop(), []);

  async function run(files: readonly File[]): Promise<void> {
    const begun = beginReading(workers, files, (done, of) => {
      if (reading.current === begun) now.setState({ files: files.length, done, of }, true);
    });
    reading.current = begun;
    // With the readers, so that the list of results opens though the server may have ended by then.
    loadTakenSheet().catch(() => undefined);
    const read = await begun.outcome;
    const isLast = reading.current === begun;
    if (isLast) now.setState(undefined, true);
    if (read && isLast) setLines(await place(read));
  }

  return {
    now,
    lines,
    begin(files) {
      if (files.length === 0) return;
      reading.current?.stop();
      void run(files);
    },
    stop: () => reading.current?.stop(),
    forget: () => setLines(undefined),
  };
}
