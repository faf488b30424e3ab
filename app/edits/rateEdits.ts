import { listLengths, LONGEST_WRITTEN, parseFrames, writeAt, type Kit, type WrittenLength } from "#core";
import { listStageLengths } from "#stage";

/**
 * The quantity a change of rate preserves for lengths written in frames: their frames, or approximately their time.
 */
export type Keeps = "frames" | "time";

/** Returns every length of a kit, including its stage's. */
export function listAllLengths(kit: Kit): WrittenLength[] {
  return [...listLengths(kit), ...listStageLengths(kit)];
}

/** Converts frames to a new rate, rounded to the nearest and at least 1 if they were. */
function framesForTime(frames: number, from: number, to: number): number {
  return frames === 0 ? 0 : Math.min(LONGEST_WRITTEN, Math.max(1, Math.round((frames * to) / from)));
}

const inFrames = ({ written }: WrittenLength) => written.endsWith("f");

/**
 * Returns a kit at another rate. Lengths written in ms keep their time; those written in frames keep their
 * frames, or are rewritten to keep their time. Takes keep their own rate.
 */
export function changeRate(kit: Kit, rate: number, keeps: Keeps): Kit {
  const at = { ...kit, rate };
  if (keeps === "frames") return at;
  return listAllLengths(kit)
    .filter(inFrames)
    .reduce((now, { path, written }) => {
      const frames = framesForTime(parseInt(written, 10), kit.rate, rate);
      return writeAt(now, path, `${frames}f`);
    }, at);
}

/** The number of lengths that a change of rate affects, by unit. */
export interface RateChange {
  readonly inFrames: number;
  readonly inMs: number;
  /** The first length written in frames, with its time before and after if its frames are kept. */
  readonly example:
    | { readonly written: string; readonly msBefore: number; readonly msAfter: number }
    | undefined;
}

/** Counts a kit's lengths by unit; the example is the first one in frames, with its time before and after. */
export function readRateChange(kit: Kit, rate: number): RateChange {
  const all = listAllLengths(kit).filter(
    ({ written }) => (parseFrames(written, kit.rate, "atLeast") ?? 0) > 0,
  );
  const framed = all.filter(inFrames);
  const first = framed[0];
  return {
    inFrames: framed.length,
    inMs: all.length - framed.length,
    example: first && {
      written: first.written,
      msBefore: (parseInt(first.written, 10) * 1000) / kit.rate,
      msAfter: (parseInt(first.written, 10) * 1000) / rate,
    },
  };
}
