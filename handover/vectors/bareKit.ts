import { notes, type Kit, type Take } from "#core";
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
  const written = new Set<string>();
  for (let i = 0; i < trace.count; i++) {
    const x = trace.frame[i]! * scale;
    if (trace.kind[i] === notes.speed.code) speed.push([x, notes.speed.percent(trace, i)]);
    if (trace.kind[i] !== notes.gate.code) continue;
    const { id } = program.gates[trace.subject[i]!]!;
    if (!held.has(id)) continue;
    if (!written.has(id)) gates.set(id, []);
    written.add(id);
    gates.get(id)!.push([x, notes.gate.isOpen(trace, i) === 1 ? 1 : 0]);
  }
  const { speed: _speed, ...rest } = take;
  return {
    ...rest,
    ...(gates.size > 0 ? { gates: Object.fromEntries(gates) } : {}),
    ...(speed.length > 0 ? { speed } : {}),
  };
}
