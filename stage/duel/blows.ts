import {
  notes,
  parseFrames,
  readTake,
  type InputColumns,
  type Kit,
  type Program,
  type Rounding,
  type Take,
  traitsOf,
} from "#core";
import { compileRules, type Rules } from "../rules";
import { runRules } from "../staging";
import { stageOf } from "../stage";
import type { DuelDocument } from "./schema";

/** The first frame on which a tried move is pressed, and the frames that a trial lasts. */
export const PRESSED_AT = 5;
export const TRIAL_FRAMES = 600;

/** One action of the opponent, from the first frame on for a number of frames. */
export type OpponentDoes = { readonly does: "guard" | "away"; readonly frames: number } | "waits";

/** Returns inputs that are meant to fire a pattern, the simplest first; none for a pattern that is off. */
function inputsFor(kit: Kit, patternId: string): readonly Take["lanes"][] {
  const pattern = kit.patterns.find(item => item.id === patternId);
  if (!pattern || pattern.off) return [];
  const lengthOf = (written: string, rounding: Rounding) => parseFrames(written, kit.rate, rounding) ?? 0;
  const { pressFrames, playedOn, scripts } = traitsOf(pattern.kind);
  if (pressFrames) {
    const to = PRESSED_AT + pressFrames(pattern, lengthOf);
    const press: [number, number][] = [
      [PRESSED_AT, 1],
      [to, 0],
    ];
    return [Object.fromEntries(playedOn(pattern, kit).map(control => [control, press]))];
  }
  return scripts(pattern, kit, lengthOf).map(script => {
    const lanes = new Map<string, [number, number][]>();
    for (const { control, from, to } of [...script].sort((x, y) => x.from - y.from))
      lanes.set(control, [...(lanes.get(control) ?? []), [PRESSED_AT + from, 1], [PRESSED_AT + to, 0]]);
    return Object.fromEntries(lanes);
  });
}

/** A move to be tried alone: its rules, and the input that sets it off. */
export interface Trial {
  readonly rules: Rules;
  readonly columns: InputColumns;
  /** The index of the move in the kit and in the program. */
  readonly move: number;
}

/** The gates that are held open in the trial of a move, by their ids. */
interface TrialGates {
  /** The first frame on which the gates that the move needs are closed; they stay open by default. */
  readonly openUntil?: number;
  /** Gates that are open throughout, needed or not. */
  readonly throughout: readonly string[];
}

const AS_NEEDED: TrialGates = { throughout: [] };

/** Prepares trials of the moves of one kit, which is compiled once for each action of the opponent. */
export interface Trials {
  /** Returns the rules under which an opponent, if there is one, does one thing only; undefined for a kit with faults. */
  readonly rulesFor: (does: OpponentDoes) => Rules | undefined;
  /**
   * Prepares the trial of a move: every other move is off, and the gates that it needs are held open, for good or up to a frame of
   * `gates`. Undefined for a kit with faults, and for moves that none of the inputs made for their patterns performs.
   */
  readonly prepare: (move: number, does: OpponentDoes, gates?: TrialGates) => Trial | undefined;
}

/** Returns rules in which every move but one is off, with a stage and without. */
function withMoveAlone(rules: Rules, move: number): Rules {
  const alone = (program: Program): Program => ({
    ...program,
    moves: program.moves.map((item, m) => (m === move ? item : { ...item, isOff: true })),
  });
  return { ...rules, program: alone(rules.program), unstaged: alone(rules.unstaged) };
}

/** Returns whether a trial performs its move. */
function isPerformed({ rules, columns, move }: Trial): boolean {
  const { trace } = runRules(rules, columns);
  for (let i = 0; i < trace.count; i++)
    if (trace.kind[i] === notes.performed.code && trace.subject[i] === move) return true;
  return false;
}

/** Creates the trials of a kit. */
export function createTrials(kit: Kit): Trials {
  const known = new Map<string, Rules | undefined>();
  /** By move, the input that performs it; undefined if none does. */
  const chosen = new Map<number, Take["lanes"] | undefined>();
  function rulesFor(does: OpponentDoes): Rules | undefined {
    const key = does === "waits" ? does : `${does.does} ${does.frames}`;
    if (!known.has(key)) {
      const duel = duelOf(kit);
      const script = does === "waits" ? [] : [{ at: "1f", does: does.does, for: `${does.frames}f` }];
      const stage = duel && { stage: { ...duel, script, every: `${9 * TRIAL_FRAMES}f` } };
      const compiled = compileRules({ ...kit, ...stage });
      known.set(key, compiled.ok ? compiled.value : undefined);
    }
    return known.get(key);
  }
  return {
    rulesFor,
    prepare(move, does, gates = AS_NEEDED) {
      const own = kit.moves?.[move];
      const rules = own && !own.off ? rulesFor(does) : undefined;
      if (!rules) return undefined;
      const alone = withMoveAlone(rules, move);
      const needed = [...new Set((own!.needs ?? []).map(({ gate }) => gate))];
      const trialOf = (lanes: Take["lanes"], { openUntil = TRIAL_FRAMES, throughout }: TrialGates): Trial => {
        const laneOf = (until: number): [number, 0 | 1][] => [
          [0, 1],
          [until, 0],
        ];
        const take: Take = {
          ...{
            format: "moss-tap/take",
            version: 1,
            id: "t",
            name: "T",
            rate: kit.rate,
            frames: TRIAL_FRAMES,
          },
          lanes,
          gates: Object.fromEntries([
            ...needed.map(id => [id, laneOf(openUntil)] as const),
            ...throughout.map(id => [id, laneOf(TRIAL_FRAMES)] as const),
          ]),
        };
        return { rules: alone, columns: readTake(alone.program, take), move };
      };
      // The choice among several inputs does not depend on the opponent.
      if (!chosen.has(move)) {
        const inputs = inputsFor(kit, own!.pattern);
        const isOnly = inputs.length === 1;
        chosen.set(move, isOnly ? inputs[0] : inputs.find(lanes => isPerformed(trialOf(lanes, AS_NEEDED))));
      }
      const lanes = chosen.get(move);
      return lanes && trialOf(lanes, gates);
    },
  };
}

/** Returns the duel of a kit; undefined for a kit without a stage, or with another one. */
export function duelOf(kit: Kit): DuelDocument | undefined {
  const stage = stageOf(kit);
  return stage?.kind === "duel" ? stage : undefined;
}
