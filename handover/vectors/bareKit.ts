import { notes, type Kit, type Take, type Trace } from "#core";
import { gatesOfStage, prepareKit } from "#stage";
import type { Runs } from "../runs";

/**
 * Returns a kit without its stage, for games that move their own bodies: effects of moves are removed,
 * changes to prompts are applied.
 */
export function withoutStage(kit: Kit): Kit {
  const { stage: _stage, ...rest } = prepareKit(kit);
  return {
    ...rest,
    ...(rest.moves ? { moves: rest.moves.map(({ effect: _effect, ...move }) => move) } : {}),
  };
}

/** Returns the time of the game clock at each frame of a trace, in hundredths of a frame. */
function ticksOf(trace: Trace): Float64Array {
  const ticks = new Float64Array(trace.frames);
  let percent = 100;
  let i = 0;
  for (let f = 0; f < trace.frames; f++) {
    for (; i < trace.count && trace.frame[i]! <= f; i++)
      if (trace.kind[i] === notes.speed.code) percent = notes.speed.percent(trace, i);
    ticks[f] = f === 0 ? 0 : ticks[f - 1]! + percent;
  }
  return ticks;
}

/**
 * Returns the frame from which a gate that closes on frame `closes` had no source, as its linger kept it open until
 * then. Every frame from which it closes there gives the same trace; this is the first.
 */
function sourceEnds(ticks: Float64Array, opened: number, closes: number, lingerTicks: number): number {
  let last = opened;
  while (ticks[closes - 1]! - ticks[last]! > lingerTicks) last++;
  return last + 1;
}

/**
 * Returns a take that records the stage's influence on the rules: the gates its bodies held open as lanes,
 * and the speed it gave the clock. Without the stage it produces the same trace. Lanes are in the kit's
 * frames.
 */
export function withStageWritten(kit: Kit, take: Take, { rules: { program }, traceOf }: Runs): Take {
  const trace = traceOf(take);
  const held = new Set(gatesOfStage(kit));
  const scale = take.rate / kit.rate;
  const gates = new Map<string, [number, 0 | 1][]>(
    Object.entries(take.gates ?? {}).map(([id, lane]) => [id, lane.map(([x, value]) => [x, value])]),
  );
  const speed: [number, number][] = [];
  const opened = new Map<string, number>();
  let ticks: Float64Array | undefined;
  for (let i = 0; i < trace.count; i++) {
    const frame = trace.frame[i]!;
    if (trace.kind[i] === notes.speed.code) speed.push([frame * scale, notes.speed.percent(trace, i)]);
    if (trace.kind[i] !== notes.gate.code) continue;
    const { id, lingerTicks } = program.gates[trace.subject[i]!]!;
    if (!held.has(id)) continue;
    if (!opened.has(id)) gates.set(id, []);
    const isOpen = notes.gate.isOpen(trace, i) === 1;
    let at = frame;
    if (!isOpen && lingerTicks >= 0)
      at = sourceEnds((ticks ??= ticksOf(trace)), opened.get(id)!, frame, lingerTicks);
    opened.set(id, frame);
    gates.get(id)!.push([at * scale, isOpen ? 1 : 0]);
  }
  const { speed: _speed, ...rest } = take;
  return {
    ...rest,
    ...(gates.size > 0 ? { gates: Object.fromEntries(gates) } : {}),
    ...(speed.length > 0 ? { speed } : {}),
  };
}
