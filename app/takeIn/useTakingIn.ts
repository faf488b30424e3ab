import { useEffect, useRef, useState } from "react";
import type { ReadFile } from "#handover";
import { useWorkers } from "../judging/workers";
import { beginReading, type Reading } from "../judging/reading";
import type { TakenLine } from "../storage/takenIn";

/** The progress of reading. */
export interface ReadingNow {
  readonly files: number;
  /** Bytes read, and their total. */
  readonly done: number;
  readonly of: number;
}

/** The running import, and the results of the last one. */
export interface TakingIn {
  readonly now: ReadingNow | undefined;
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
  const [now, setNow] = useState<ReadingNow>();
  const [lines, setLines] = useState<readonly TakenLine[]>();
  useEffect(() => () => reading.current?.stop(), []);

  async function run(files: readonly File[]): Promise<void> {
    const begun = beginReading(workers, files, (done, of) => {
      if (reading.current === begun) setNow({ files: files.length, done, of });
    });
    reading.current = begun;
    const read = await begun.outcome;
    const isLast = reading.current === begun;
    if (isLast) setNow(undefined);
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
