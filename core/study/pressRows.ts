import type { Take } from "../input/takeSchema";
import type { Program } from "../program/program";
import { listGateTurns } from "../trace/gateTurns";
import { notes } from "../trace/noteKinds";
import { formatLoss } from "../trace/notes/lost";
import { firstAbove } from "../time/rising";
import { FAILURES, LAPSE_REASONS, LOSS_REASONS, PERFORMED_BY, type Trace } from "../trace/trace";
import { isOfGate, explainingLoss } from "./outcomes/fate";
import { readOutcomes } from "./outcomes/readOutcomes";

/** The type of a column's values: text, whole numbers, or any numbers. Values may be missing. */
export type ColumnSort = "text" | "whole" | "number";

/** The columns of a table of presses, in order, with their types. */
export const PRESS_COLUMNS = [
  ["take", "text", "id of the take"],
  ["player", "text", "who played it, if the take names them"],
  ["control", "text", "id of the control that was pressed"],
  ["frame", "whole", "frame of the press, at the kit's rate"],
  ["ms", "number", "the same in milliseconds from the take's start"],
  ["held_frames", "whole", "how long it was held; up to the end of the take where it was not let go"],
  [
    "outcome",
    "text",
    "used, lost, fired (nothing waited for it), ended (it ended something else), lapsed or unheard",
  ],
  ["mode", "text", "id of the mode on that frame, where the kit has modes"],
  ["rule", "text", "id of the pattern that fired with it, or else lapsed"],
  ["used_by", "text", "id of the move or prompt that it became"],
  ["used_kind", "text", "move or prompt"],
  ["used_frame", "whole", "frame on which the move was performed, or the prompt answered"],
  ["waited", "whole", "frames from the request to the performance"],
  ["by", "text", "direct, buffer, coyote or both"],
  ["lost_move", "text", "id of the move it was lost to"],
  ["lost_why", "text", "why, as in a trace file: gate:footing, cooldown, busy …"],
  [
    "missed_by",
    "whole",
    "frames from the loss until what it lacked came: its gate opened, or the one that kept it away closed",
  ],
  ["lapsed_why", "text", "why the pattern lapsed"],
  ["kept_by", "text", "id of the pattern or prompt that kept it from other rules"],
  ["ended", "text", "id of the pattern whose attempt it cancelled or broke, or of the prompt it failed"],
  ["ended_why", "text", "why that ended, as in a trace file: cancelled, broken, wrong, too-early"],
] as const satisfies readonly (readonly [string, ColumnSort, string])[];

export type PressColumn = (typeof PRESS_COLUMNS)[number][0];

/** One press edge with its fate: a value per column, null if it has none. */
export type PressRow = Readonly<Record<PressColumn, string | number | null>>;

/** Returns the first of ascending frames after a frame, or undefined. */
function firstAfter(frames: readonly number[], frame: number): number | undefined {
  return frames[firstAbove(frames, frame)];
}

/**
 * Returns every press edge of a take as a row, ordered by frame and then by control; `trace` must be the
 * program's complete trace. Linear in the trace apart from frame lookups. A used press shows its first use, a
 * lost one its most informative loss.
 */
export function listPressRows(program: Program, trace: Trace, take: Pick<Take, "id" | "player">): PressRow[] {
  const modes: { readonly frame: number; readonly id: string }[] = [];
  for (let i = 0; i < trace.count; i++) {
    const frame = trace.frame[i]!;
    if (trace.kind[i] === notes.mode.code) modes.push({ frame, id: program.modes[trace.subject[i]!]!.id });
  }
  const turns = listGateTurns(program.gates.length, trace);
  let m = -1;
  return readOutcomes(program, trace).presses.map((fate): PressRow => {
    while (m + 1 < modes.length && modes[m + 1]!.frame <= fate.frame) m++;
    const use = fate.uses[0];
    const isMove = use?.kind === "move";
    const loss = use ? undefined : explainingLoss(fate);
    const lapse = fate.lapses[0];
    const fired = fate.fires[0];
    const rule = fired ?? lapse;
    const ending = fate.endings[0];
    const isPattern = ending?.kind === "pattern";
    const came =
      loss && isOfGate(loss) && loss.spentAt < 0
        ? firstAfter(
            turns[loss.because]![LOSS_REASONS[loss.reason] === "gate" ? "opened" : "closed"],
            loss.frame,
          )
        : undefined;
    const keeper =
      fate.kept && (fate.kept.kind === "prompt" ? program.prompts : program.patterns)[fate.kept.index];
    return {
      take: take.id,
      player: take.player ?? null,
      control: program.controls[fate.control]!.id,
      frame: fate.frame,
      ms: Math.round((fate.frame * 1e6) / program.rateHz) / 1000,
      held_frames: (fate.released ?? trace.frames) - fate.frame,
      outcome: fate.outcome,
      mode: modes[m]?.id ?? null,
      rule: rule ? program.patterns[rule.pattern]!.id : null,
      used_by: use ? (isMove ? program.moves : program.prompts)[use.index]!.id : null,
      used_kind: use?.kind ?? null,
      used_frame: use?.frame ?? null,
      waited: use ? use.frame - use.made : null,
      by: isMove ? PERFORMED_BY[use.by]! : null,
      lost_move: loss ? program.moves[loss.move]!.id : null,
      lost_why: loss ? formatLoss(program, loss.reason, loss.because) : null,
      missed_by: loss && came !== undefined ? came - loss.frame : null,
      lapsed_why: !fired && lapse ? LAPSE_REASONS[lapse.reason]! : null,
      kept_by: keeper ? keeper.id : null,
      ended: ending ? (isPattern ? program.patterns : program.prompts)[ending.index]!.id : null,
      ended_why: ending ? (isPattern ? LAPSE_REASONS : FAILURES)[ending.reason]! : null,
    };
  });
}
