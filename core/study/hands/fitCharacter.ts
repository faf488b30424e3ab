import { findAims, ofOnePress, type Aims } from "./aims";
import { listJudgedPresses, type JudgedPress, type TakeRun } from "./judgedPresses";
import { traitsOf } from "../../patterns/recordOf";
import { notes } from "../../trace/noteKinds";
import { edgesOf } from "../../trace/notes/edgeList";
import type { Trace } from "../../trace/trace";
import type { InputColumns } from "../../input/inputColumns";
import { edgeKey, keyFrame, type Program } from "../../program/program";
import { listPresses } from "../feel/shiftPress";
import { STILL, type Character } from "./character";
import { momentsOf, pooledSpread, type FoundSpread } from "./spread";

/** The name of a fitted character. */
export const FITTED_NAME = "Fitted";

/** A character fitted to takes, with the evidence for each figure. */
export interface FittedCharacter {
  readonly character: Character;
  /** The aims of the presses of these takes. */
  readonly aims: Aims;
  readonly onset: FoundSpread;
  readonly length: FoundSpread;
  readonly fingers: FoundSpread;
}

/** Returns the mean offset to gates and targets, in ms; 0 without any. Steps have no moment to be late for. */
function meanOffset(judged: readonly JudgedPress[]): number {
  const offsets = judged.filter(({ by }) => by !== "step").map(({ offsetMs }) => offsetMs);
  return offsets.length === 0 ? 0 : offsets.reduce((sum, value) => sum + value, 0) / offsets.length;
}

/** Returns the distance of a chord's fingers from the first of them, in frames. */
function gatherFingers(program: Program, trace: Trace): number[] {
  const found: number[] = [];
  for (let i = 0; i < trace.count; i++) {
    if (trace.kind[i] !== notes.fired.code) continue;
    if (traitsOf(program.patterns[trace.subject[i]!]!.kind).presses !== "together") continue;
    const frames = edgesOf(trace, i).map(key => keyFrame(program, key));
    const first = Math.min(...frames);
    frames.forEach((frame, k) => k !== frames.indexOf(first) && found.push(frame - first));
  }
  return found;
}

/** A value with the name of its group. */
type Grouped = readonly [group: string, value: number];

/** Returns the logarithms of the lengths of presses; alike are those of one control that set off the same patterns. */
function gatherLengths(program: Program, columns: InputColumns, trace: Trace): Grouped[] {
  const fired = new Map<number, Set<number>>();
  for (let i = 0; i < trace.count; i++) {
    if (trace.kind[i] !== notes.fired.code) continue;
    for (const key of edgesOf(trace, i)) {
      const own = fired.get(key) ?? new Set();
      fired.set(key, own.add(trace.subject[i]!));
    }
  }
  return listPresses(columns).flatMap(({ control, down, up, upAt }): Grouped[] => {
    const by = fired.get(edgeKey(down, control, program.sourceCount));
    return upAt >= 0 && by ? [[`${control} ${[...by].sort().join()}`, Math.log(up - down)]] : [];
  });
}

const within = (value: number, least: number, most: number) =>
  Math.max(least, Math.min(most, Math.round(value)));

/**
 * Fits the character with which takes were played: bias and spread of the offsets of like presses to the gate, target or step
 * that judged them (see `listJudgedPresses`; the spread is pooled within like presses), the spread of the logarithm of lengths
 * of like presses (of one control that set off the same patterns), and of a chord's fingers about the first. Missed and
 * doubled presses look like intended ones and are 0. Figures are rounded to whole ms and percent; a figure without
 * evidence is 0, and its n is 0. Source: docs/studies.md, "Hands".
 */
export function fitCharacter(
  program: Program,
  runs: readonly (TakeRun & { readonly columns: InputColumns })[],
): FittedCharacter {
  const lengths: Grouped[] = [];
  const fingers: number[] = [];
  const judged = new Map<string, readonly JudgedPress[]>();
  for (const { take, columns, trace } of runs) {
    judged.set(take.id, listJudgedPresses(program, { take, trace }));
    fingers.push(...gatherFingers(program, trace));
    lengths.push(...gatherLengths(program, columns, trace));
  }
  const all = [...judged.values()].flat();
  const onset = pooledSpread(momentsOf(all.map(one => [one.like, ofOnePress(one)])));
  const length = pooledSpread(momentsOf(lengths));
  const apart =
    fingers.length === 0 ? 0 : Math.sqrt(fingers.reduce((sum, d) => sum + d * d, 0) / fingers.length);
  return {
    character: {
      ...STILL,
      name: FITTED_NAME,
      biasMs: within(meanOffset(all), -1000, 1000),
      spreadMs: within(onset.deviation, 0, 1000),
      lengthPercent: within(length.deviation * 100, 0, 100),
      fingersMs: within((apart * 1000) / program.rateHz, 0, 1000),
    },
    aims: findAims(judged),
    onset: { presses: onset.presses, groups: onset.groups },
    length: { presses: length.presses, groups: length.groups },
    fingers: { presses: fingers.length, groups: fingers.length > 0 ? 1 : 0 },
  };
}
