import { answeredStretch, type Program } from "#core";
import type { Evaluated } from "../store/workbench";

/** A stretch of press lengths on one control: what it ends in, or nothing (`name` undefined). Frames, both ends included. */
export interface LengthStretch {
  readonly from: number;
  readonly to: number;
  readonly patternIds: readonly string[];
}

/** How long each press of a control was in a take, in frames, as far as it was let go. */
export function listPressLengths({ columns }: Evaluated, control: number): number[] {
  const lengths: number[] = [];
  let down = -1;
  for (let k = 0; k < columns.controlFrame.length; k++) {
    const change = columns.controlChange[k]!;
    if (change >> 1 !== control) continue;
    if ((change & 1) === 1) down = columns.controlFrame[k]!;
    else if (down >= 0) lengths.push(columns.controlFrame[k]! - down);
  }
  return lengths;
}

/** The lengths of press on a control, from 1 frame up to `upTo`, cut wherever what answers them changes. */
export function listStretches(program: Program, control: number, upTo: number): LengthStretch[] {
  const answered = program.patterns.flatMap(pattern => {
    if (pattern.isOff || !("control" in pattern) || pattern.control !== control) return [];
    const stretch = answeredStretch(pattern);
    return stretch ? [stretch] : [];
  });
  const idsAt = (frames: number) => answered.filter(s => s.from <= frames && frames <= s.to).map(s => s.id);
  const stretches: { from: number; to: number; patternIds: string[] }[] = [];
  for (let frames = 1; frames <= upTo; frames++) {
    const patternIds = idsAt(frames);
    const last = stretches.at(-1);
    if (last && last.patternIds.join() === patternIds.join()) last.to = frames;
    else stretches.push({ from: frames, to: frames, patternIds });
  }
  return stretches;
}
