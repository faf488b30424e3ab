import { edgeKey, keyFrame, type Program } from "../../program/program";
import type { Take } from "../../input/takeSchema";
import { traitsOf } from "../../patterns/recordOf";
import { firstAbove } from "../../time/rising";
import { listGateTurns } from "../../trace/gateTurns";
import { notes } from "../../trace/noteKinds";
import { edgesOf } from "../../trace/notes/edgeList";
import { promptOutcome } from "../../trace/notes/prompt";
import type { Trace } from "../../trace/trace";
import { explainingLoss, type Fate } from "../outcomes/fate";
import { fatesOf, listPresses, type CountedPress } from "./countPresses";

/** A take with its trace under a program. */
export interface TakeRun {
  readonly take: Take;
  readonly trace: Trace;
}

/** A meant press and its offset to the moment that judged it. Presses of one `like` are attempts at the same moment. */
export interface JudgedPress {
  readonly control: string;
  /** Its index among the presses of its lane. */
  readonly press: number;
  readonly like: string;
  /**
   * `gate`: from the nearest turn of a gate that its move needs; `target`: from the target of its prompt; `step`: from the
   * press of the step before, which is at `after`.
   */
  readonly by: "gate" | "target" | "step";
  readonly offsetMs: number;
  /** The index of the judged press of the step before, in the same list. */
  readonly after: number | undefined;
}

/** A press further than this from the turn of a gate was not aimed at it, in ms. */
const AIMED_MS = 500;

/** The frames of the notes that judge presses: turns by gate, and openings by prompt. */
interface Moments {
  readonly turns: readonly (readonly number[])[];
  readonly openings: readonly (readonly number[])[];
}

function listMoments(program: Program, trace: Trace): Moments {
  // A gate opens and closes in turn.
  const turns = listGateTurns(program.gates.length, trace).map(({ opened, closed }) =>
    opened.flatMap((frame, k) => [frame, ...closed.slice(k, k + 1)]),
  );
  const openings = program.prompts.map((): number[] => []);
  for (let i = 0; i < trace.count; i++) {
    if (trace.kind[i] === notes.prompt.code && notes.prompt.outcome(trace, i) === promptOutcome.open)
      openings[trace.subject[i]!]!.push(trace.frame[i]!);
  }
  return { turns, openings };
}

type Offset = Pick<JudgedPress, "like" | "by" | "offsetMs">;

/** Returns the offset of a request to the nearest turn of the gates that its move needs; undefined if all are far. */
function offsetToGate(program: Program, move: number, made: number, { turns }: Moments): Offset | undefined {
  let best: Offset | undefined;
  for (const { gate } of program.moves[move]!.needs) {
    const own = turns[gate]!;
    const after = firstAbove(own, made);
    for (const turn of [after - 1, after]) {
      if (own[turn] === undefined) continue;
      const offsetMs = ((made - own[turn]) * 1000) / program.rateHz;
      if (Math.abs(offsetMs) > Math.min(AIMED_MS, best ? Math.abs(best.offsetMs) - 1e-9 : Infinity)) continue;
      // A gate opens and closes in turn, so that even turns are of one kind.
      best = { like: `move ${move} gate ${gate} turn ${turn % 2}`, by: "gate", offsetMs };
    }
  }
  return best;
}

/** Returns the offset of an answer to the target of its prompt. */
function offsetToTarget(program: Program, prompt: number, made: number, { openings }: Moments): Offset {
  const own = openings[prompt]!;
  const opened = own[firstAbove(own, made) - 1] ?? made;
  const target = opened + program.prompts[prompt]!.targetTicks / 100;
  return { like: `prompt ${prompt}`, by: "target", offsetMs: ((made - target) * 1000) / program.rateHz };
}

function offsetOf(program: Program, fate: Fate | undefined, moments: Moments): Offset | undefined {
  const use = fate?.uses[0];
  if (use?.kind === "prompt") return offsetToTarget(program, use.index, use.made, moments);
  const loss = fate && !use ? explainingLoss(fate) : undefined;
  if (use) return offsetToGate(program, use.index, use.made, moments);
  return loss && offsetToGate(program, loss.move, loss.made, moments);
}

/** Returns, by the key of a press, the press of the step before it in the first sequence that fired with both. */
function listSteps(program: Program, trace: Trace): ReadonlyMap<number, { before: number; like: string }> {
  const steps = new Map<number, { before: number; like: string }>();
  for (let i = 0; i < trace.count; i++) {
    if (trace.kind[i] !== notes.fired.code) continue;
    const pattern = trace.subject[i]!;
    if (traitsOf(program.patterns[pattern]!.kind).presses !== "apart") continue;
    const keys = edgesOf(trace, i);
    keys.slice(1).forEach((key, k) => {
      const before = keys[k]!;
      if (!steps.has(key) && keyFrame(program, key) > keyFrame(program, before))
        steps.set(key, { before, like: `pattern ${pattern} step ${k + 1}` });
    });
  }
  return steps;
}

const keyOf = (program: Program, { frame, place }: CountedPress) =>
  edgeKey(frame, place, program.sourceCount);

/**
 * Returns the meant presses of a take that something judged, in order of their frames: by the step before in a sequence that
 * fired, else by the target of the prompt they answered, or by the nearest turn, within half a second, of a gate that the move
 * needs which used or lost them. Presses that nothing judged are left out.
 */
export function listJudgedPresses(program: Program, { take, trace }: TakeRun): readonly JudgedPress[] {
  const moments = listMoments(program, trace);
  const fates = fatesOf(program, trace);
  const steps = listSteps(program, trace);
  const { meant } = listPresses({ program, run: () => trace }, take, undefined);
  const byKey = new Map(meant.map(one => [keyOf(program, one), one]));
  const judged: JudgedPress[] = [];
  const places = new Map<number, number>();
  for (const one of [...meant].sort((a, b) => a.frame - b.frame || a.place - b.place)) {
    const key = keyOf(program, one);
    const step = steps.get(key);
    const base = { control: one.control, press: one.press };
    if (step && byKey.has(step.before)) {
      const frames = one.frame - keyFrame(program, step.before);
      const offsetMs = (frames * 1000) / program.rateHz;
      places.set(key, judged.length);
      judged.push({ ...base, like: step.like, by: "step", offsetMs, after: places.get(step.before) });
      continue;
    }
    const offset = offsetOf(program, fates.get(key), moments);
    if (!offset) continue;
    places.set(key, judged.length);
    judged.push({ ...base, ...offset, after: undefined });
  }
  return judged;
}

/**
 * Returns by how much each meant press of a take came after the turn of a gate, or the target of a prompt, that judged it, in
 * ms in order of their frames; negative before it. Presses that a step before judged are left out: their time is a gap, and
 * neither early nor late.
 */
export function listOnsets(program: Program, run: TakeRun): readonly number[] {
  return listJudgedPresses(program, run).flatMap(({ by, offsetMs }) => (by === "step" ? [] : [offsetMs]));
}
