import { answeredStretch, readTake, type InputColumns, type Program, type Take } from "#core";

/** A stretch of press lengths on one control: what it ends in, or nothing (`name` undefined). Frames, both ends included. */
export interface LengthStretch {
  readonly from: number;
  readonly to: number;
  readonly patternIds: readonly string[];
}

const columnsOf = new WeakMap<Program, WeakMap<Take, InputColumns>>();

/** A take read into columns for a program, once for each pair; the rules need not be run for this. */
function readOnce(program: Program, take: Take): InputColumns {
  let ofProgram = columnsOf.get(program);
  if (!ofProgram) columnsOf.set(program, (ofProgram = new WeakMap()));
  let columns = ofProgram.get(take);
  if (!columns) ofProgram.set(take, (columns = readTake(program, take)));
  return columns;
}

/** How long each press of a control was in a take, in frames, as far as it was let go. */
export function listPressLengths(program: Program, take: Take, control: number): number[] {
  const columns = readOnce(program, take);
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
