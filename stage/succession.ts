import { step, stageGate, type FrameInput, type Trace } from "#core";
import { stageKind, type StageState } from "./kinds";
import type { Rules } from "./rules";
import { gatesOfStage } from "./stage";
import { createStaging, type Staging } from "./staging";

/** Gates that the bodies of a stage opened and closed: [frame after which they did, gate, 1 for open]. */
export type GateReports = [frame: number, gateId: string, isOpen: 0 | 1][];

/** Returns the indices of the gates that the bodies of a stage report. */
export function listStageGates({ kit, program }: Rules): number[] {
  const ids = gatesOfStage(kit);
  return program.gates.flatMap(({ id }, gate) => (ids.has(id) ? [gate] : []));
}

/**
 * Appends the gates that the bodies reported after a frame, where they changed. `open`: those that were open before.
 * `gates`: the indices of those that can have changed.
 */
export function noteReports(
  { program }: Rules,
  state: Staging["state"],
  gates: Iterable<number>,
  open: Set<string>,
  into: GateReports,
): void {
  for (const gate of gates) {
    const { id } = program.gates[gate]!;
    const isOpen = state.staged[gate] === 1;
    if (isOpen === open.has(id)) continue;
    if (isOpen) open.add(id);
    else open.delete(id);
    into.push([state.frame, id, isOpen ? 1 : 0]);
  }
}

/** A state of rules before frame 0 whose gates follow reports of other rules' bodies; it has no bodies of its own. */
export interface Replay {
  readonly state: Staging["state"];
  /** Steps a frame at the speed in `input`, and applies the reports after it. */
  readonly step: (input: FrameInput, trace: Trace) => void;
}

/**
 * Creates the replay of rules on a stage: gates open and close as they did while other rules were in force, so that only
 * what the rules make of the input differs. `reports` may grow while it runs, beyond its frame.
 */
export function createReplay(rules: Rules, reports: GateReports): Replay {
  const { state } = createStaging(rules);
  const places = new Map(rules.program.gates.map(({ id }, gate) => [id, gate]));
  let next = 0;
  const apply = () => {
    for (; next < reports.length && reports[next]![0] <= state.frame; next++) {
      const [, id, isOpen] = reports[next]!;
      const gate = places.get(id);
      if (gate !== undefined) stageGate(state, gate, isOpen === 1);
    }
  };
  closeStaged(rules, state);
  apply();
  return {
    state,
    step(input, trace) {
      step(rules.program, state, input, trace);
      apply();
    },
  };
}

function closeStaged({ program }: Rules, state: Staging["state"]): void {
  for (let gate = 0; gate < program.gates.length; gate++)
    if (state.staged[gate] === 1) stageGate(state, gate, false);
}

/** Returns a copy of bodies. */
export const copyBodies = (bodies: StageState): StageState => stageKind(bodies.kind).copy(bodies);

/** Returns whether the bodies of some rules can go on under others: both have the same kind of stage. */
export function canCarry(from: Rules, to: Rules): boolean {
  return from.stage !== undefined && from.stage.kind === to.stage?.kind;
}

/**
 * Returns bodies as they are, under other rules of the same kind of stage (see `canCarry`); they report their gates to
 * `state`, which is the new rules' after the same frame.
 */
export function carryBodies(from: Rules, bodies: StageState, to: Rules, state: Staging["state"]): StageState {
  const stage = to.stage!;
  const kind = stageKind(stage.kind);
  const mover = (list: "controls" | "moves") => {
    const places = new Map(to.program[list].map(({ id }, place) => [id, place]));
    return (index: number) => places.get(from.program[list][index]?.id ?? "") ?? -1;
  };
  const copy = kind.copy(bodies);
  const carried = kind.carry?.(copy, { control: mover("controls"), move: mover("moves") }) ?? copy;
  closeStaged(to, state);
  kind.report(stage, carried, state);
  return carried;
}
