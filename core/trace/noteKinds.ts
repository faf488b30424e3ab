import {
  EDGE,
  FAILED,
  FIRE,
  GATE,
  GRADED,
  LAPSE,
  LOSS_REASONS,
  LOST,
  MODE,
  OK,
  OPENED,
  PERFORMED,
  PHASE,
  PROMPT,
  REQUEST,
  SHOWN,
} from "./trace";

/** The kinds of note in a trace and the codes of a prompt's outcomes, by name, for who reads notes from outside. */
export const notes = {
  MODE,
  GATE,
  FIRE,
  LAPSE,
  PROMPT,
  PERFORMED,
  LOST,
  EDGE,
  PHASE,
  REQUEST,
  SHOWN,
  OPENED,
  OK,
  FAILED,
  GRADED,
  /** The code of a loss to another move that used the same press: no press was lost by it. */
  BEATEN: LOSS_REASONS.indexOf("beaten"),
  /** The code of a loss to a gate that was not open; the gate follows it. */
  LOST_TO_GATE: LOSS_REASONS.indexOf("gate"),
} as const;
