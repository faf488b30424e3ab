import { useEffect, useRef, useState } from "react";
import type { ReadFile } from "#handover";
import { useDesk } from "../../document/context";
import { beginReading, type Reading } from "../../judging/readFiles";
import type { TakenLine } from "../../storage/takenIn";

/** How far reading has come. */
export interface ReadingNow {
  readonly files: number;
  /** Bytes read, of how many. */
  readonly done: number;
  readonly of: number;
}

/** Files being taken in, and what became of the last ones. */
export interface TakingIn {
  readonly now: ReadingNow | undefined;
  readonly lines: readonly TakenLine[] | undefined;
  readonly begin: (files: readonly File[]) => void;
  /** Calls the reading off: nothing of it is kept. */
  readonly stop: () => void;
  readonly forget: () => void;
}

/** Reads files and hands them to `place`, which says what became of each. Newer files call older ones off. */
export function useTakingIn(place: (read: readonly ReadFile[]) => Promise<readonly TakenLine[]>): TakingIn {
  const desk = useDesk();
  const reading = useRef<Reading>(undefined);
  const [now, setNow] = useState<ReadingNow>();
  const [lines, setLines] = useState<readonly TakenLine[]>();
  useEffect(() => () => reading.current?.stop(), []);

  async function run(files: readonly File[]): Promise<void> {
    const begun = beginReading(desk, files, (done, of) => {
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
