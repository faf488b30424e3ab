import { listLengths, parseFrames, writeAt, type Kit, type WrittenLength } from "#core";
import { listStageLengths } from "#stage";

/** What lengths written in frames keep when a kit's rate changes: their frames, or about their time. */
export type Keeps = "frames" | "time";

/** Every length of a kit, its stage's among them. */
export function listAllLengths(kit: Kit): WrittenLength[] {
  return [...listLengths(kit), ...listStageLengths(kit)];
}

/** Frames at a new rate that last about as long: rounded to the nearest, and never nothing where there was something. */
function framesForTime(frames: number, from: number, to: number): number {
  return frames === 0 ? 0 : Math.max(1, Math.round((frames * to) / from));
}

const inFrames = ({ written }: WrittenLength) => written.endsWith("f");

/**
 * A kit at another rate. Lengths written in ms keep their time and come to other frames; those written in frames keep
 * their frames as they are, or are written anew so that they keep their time. Takes keep their own rate.
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

/** The lengths of a kit that a change of rate is about, counted by how they are written. */
export interface RateChange {
  readonly inFrames: number;
  readonly inMs: number;
  /** The first one written in frames, with what it lasts before and after if its frames are kept. */
  readonly example:
    { readonly written: string; readonly msBefore: number; readonly msAfter: number } | undefined;
}

/** Counts a kit's lengths by how they are written; the example is the first in frames, with what it lasts before and after. */
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
