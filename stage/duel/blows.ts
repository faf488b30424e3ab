import {
  parseFrames,
  readTake,
  type InputColumns,
  type Kit,
  type Rounding,
  type Take,
  traitsOf,
} from "#core";
import { compileRules, type Rules } from "../rules";
import { stageOf } from "../stage";
import type { DuelDocument } from "./schema";

/** The first frame on which a tried move is pressed, and the frames that a trial lasts. */
export const PRESSED_AT = 5;
export const TRIAL_FRAMES = 600;

/** One action of the opponent, from the first frame on for a number of frames. */
export type OpponentDoes = { readonly does: "guard" | "away"; readonly frames: number } | "waits";

/**
 * Returns a press and release of every control that fires a pattern; undefined for kinds that need more than a press, and for
 * one that is off.
 */
function pressesFor(kit: Kit, patternId: string): Take["lanes"] | undefined {
  const pattern = kit.patterns.find(item => item.id === patternId);
  if (!pattern || pattern.off) return undefined;
  const lengthOf = (written: string, rounding: Rounding) => parseFrames(written, kit.rate, rounding) ?? 0;
  const { pressFrames, playedOn } = traitsOf(pattern.kind);
  if (!pressFrames) return undefined;
  const press: [number, number][] = [
    [PRESSED_AT, 1],
    [PRESSED_AT + pressFrames(pattern, lengthOf), 0],
  ];
  return Object.fromEntries(playedOn(pattern, kit).map(control => [control, press]));
}

/** A move to be tried alone: its rules, and the input that sets it off. */
export interface Trial {
  readonly rules: Rules;
  readonly columns: InputColumns;
  /** The index of the move in the program. */
  readonly move: number;
}

/**
 * Prepares the trial of a move: every other move is off, an opponent, if there is one, does one thing only, and the gates that
 * the move needs are held open, up to a frame (exclusive) or for good. Undefined for a kit with faults, and for moves that need
 * more than a press.
 */
export function prepareTrial(
  kit: Kit,
  move: number,
  does: OpponentDoes,
  openUntil = Infinity,
): Trial | undefined {
  const own = kit.moves?.[move];
  const lanes = own && pressesFor(kit, own.pattern);
  if (!lanes) return undefined;
  const stage = stageOf(kit);
  const script = does === "waits" ? [] : [{ at: "1f", does: does.does, for: `${does.frames}f` }];
  const compiled = compileRules({
    ...kit,
    moves: kit.moves!.map((item, m) => (m === move ? item : { ...item, off: true })),
    ...(stage?.kind === "duel" && { stage: { ...stage, script, every: `${9 * TRIAL_FRAMES}f` } }),
  });
  if (!compiled.ok) return undefined;
  const needed = [...new Set((own.needs ?? []).map(({ gate }) => gate))];
  const open: [number, 0 | 1][] =
    openUntil < TRIAL_FRAMES
      ? [
          [0, 1],
          [openUntil, 0],
        ]
      : [[0, 1]];
  const take: Take = {
    ...{ format: "moss-tap/take", version: 1, id: "t", name: "T", rate: kit.rate, frames: TRIAL_FRAMES },
    lanes,
    gates: Object.fromEntries(needed.map(id => [id, open])),
  };
  const rules = compiled.value;
  const place = rules.program.moves.findIndex(({ id }) => id === own.id);
  return { rules, columns: readTake(rules.program, take), move: place };
}

/** Returns the duel of a kit; undefined for a kit without a stage, or with another one. */
export function duelOf(kit: Kit): DuelDocument | undefined {
  const stage = stageOf(kit);
  return stage?.kind === "duel" ? stage : undefined;
}
