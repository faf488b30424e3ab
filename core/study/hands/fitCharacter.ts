import { traitsOf } from "../../patterns/recordOf";
import { notes } from "../../trace/noteKinds";
import { edgesOf } from "../../trace/notes/edgeList";
import type { Trace } from "../../trace/trace";
import { firstAbove } from "../../time/rising";
import type { InputColumns } from "../../input/inputColumns";
import { edgeKey, keyFrame, type Program } from "../../program/program";
import { listPresses } from "../feel/shiftPress";
import { STILL, type Character } from "./character";

/** A measured spread: from how many presses, in how many groups of like presses. */
export interface FoundSpread {
  readonly presses: number;
  readonly groups: number;
}

/** A character fitted to takes, with the evidence for each figure. */
export interface FittedCharacter {
  readonly character: Character;
  readonly onset: FoundSpread;
  readonly length: FoundSpread;
  readonly fingers: FoundSpread;
}

/** A press further than this from the gate that judged it was not aimed at it, in ms. */
const AIMED_MS = 500;

/** Returns the pooled spread within groups, each about its own mean. Groups of one contribute nothing. */
function pooled(groups: Iterable<readonly number[]>): FoundSpread & { readonly deviation: number } {
  let squares = 0;
  let presses = 0;
  let used = 0;
  for (const group of groups) {
    if (group.length < 2) continue;
    const mean = group.reduce((sum, value) => sum + value, 0) / group.length;
    squares += group.reduce((sum, value) => sum + (value - mean) ** 2, 0);
    presses += group.length;
    used++;
  }
  const free = presses - used;
  return { deviation: free > 0 ? Math.sqrt(squares / free) : 0, presses, groups: used };
}

function addTo(groups: Map<string, number[]>, key: string, value: number): void {
  const own = groups.get(key);
  if (own) own.push(value);
  else groups.set(key, [value]);
}

/**
 * Collects the offsets, in frames, of requests from the nearest change of the gates they need, and the gaps
 * between the presses of one fire.
 */
function gatherOnsets(program: Program, trace: Trace, groups: Map<string, number[]>, most: number): void {
  const turns = program.gates.map((): number[] => []);
  for (let i = 0; i < trace.count; i++)
    if (trace.kind[i] === notes.gate.code) turns[trace.subject[i]!]!.push(trace.frame[i]!);
  for (let i = 0; i < trace.count; i++) {
    const index = trace.subject[i]!;
    const isPerformed = trace.kind[i] === notes.performed.code;
    if (isPerformed || trace.kind[i] === notes.lost.code) {
      const made = isPerformed ? notes.performed.made(trace, i) : notes.lost.made(trace, i);
      for (const { gate } of program.moves[index]!.needs) {
        const own = turns[gate]!;
        const after = firstAbove(own, made);
        const near = [own[after - 1], own[after]].flatMap(frame =>
          frame === undefined ? [] : [made - frame],
        );
        const nearest = near.sort((a, b) => Math.abs(a) - Math.abs(b))[0];
        // Openings and closings form separate groups.
        const side = nearest === undefined || nearest >= 0 ? after - 1 : after;
        if (nearest !== undefined && Math.abs(nearest) <= most)
          addTo(groups, `move ${index} ${gate} ${side % 2}`, nearest);
      }
    }
    if (trace.kind[i] !== notes.fired.code) continue;
    if (traitsOf(program.patterns[index]!.kind).presses !== "apart") continue;
    const frames = edgesOf(trace, i).map(key => keyFrame(program, key));
    // A gap has the variance of two presses.
    frames
      .slice(1)
      .forEach((frame, k) => addTo(groups, `steps ${index} ${k}`, (frame - frames[k]!) / Math.SQRT2));
  }
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

/**
 * Fits the character with which takes were played: the spread of offsets of like presses from the gate or
 * step that judged them (pooled within moves and steps), of the logarithm of lengths of like presses (of one
 * control that set off the same patterns), and of a chord's fingers about the first. Intentions are not
 * recorded, so bias, missed and doubled presses are 0. Figures are rounded to whole ms and percent; a figure
 * without evidence is 0, and its n is 0.
 */
export function fitCharacter(
  program: Program,
  runs: readonly { readonly columns: InputColumns; readonly trace: Trace }[],
): FittedCharacter {
  const { rateHz } = program;
  const onsets = new Map<string, number[]>();
  const lengths = new Map<string, number[]>();
  const fingers: number[] = [];
  for (const { columns, trace } of runs) {
    gatherOnsets(program, trace, onsets, (AIMED_MS * rateHz) / 1000);
    fingers.push(...gatherFingers(program, trace));
    const fired = new Map<number, Set<number>>();
    for (let i = 0; i < trace.count; i++) {
      if (trace.kind[i] !== notes.fired.code) continue;
      for (const key of edgesOf(trace, i)) {
        const own = fired.get(key) ?? new Set();
        fired.set(key, own.add(trace.subject[i]!));
      }
    }
    for (const { control, down, up, upAt } of listPresses(columns)) {
      const by = fired.get(edgeKey(down, control, program.sourceCount));
      if (upAt >= 0 && by) addTo(lengths, `${control} ${[...by].sort().join()}`, Math.log(up - down));
    }
  }
  const onset = pooled(onsets.values());
  const length = pooled(lengths.values());
  const apart =
    fingers.length === 0 ? 0 : Math.sqrt(fingers.reduce((sum, d) => sum + d * d, 0) / fingers.length);
  return {
    character: {
      ...STILL,
      name: "Fitted",
      spreadMs: Math.min(1000, Math.round((onset.deviation * 1000) / rateHz)),
      lengthPercent: Math.min(100, Math.round(length.deviation * 100)),
      fingersMs: Math.min(1000, Math.round((apart * 1000) / rateHz)),
    },
    onset: { presses: onset.presses, groups: onset.groups },
    length: { presses: length.presses, groups: length.groups },
    fingers: { presses: fingers.length, groups: fingers.length > 0 ? 1 : 0 },
  };
}
