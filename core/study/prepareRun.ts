import type { InputColumns } from "../input/inputColumns";
import { compile } from "../kit/compile";
import type { Kit } from "../kit/schema";
import type { Program } from "../program/program";
import { run } from "../run/run";
import type { Trace } from "../trace/trace";

/**
 * Prepares a kit for running; the caller provides it so that kits with a stage run on it. Returns undefined
 * if the kit has faults.
 */
export type PrepareRun = (kit: Kit) => PreparedKit | undefined;

/** A kit ready to run. */
export interface PreparedKit {
  readonly program: Program;
  /** Runs a take's columns to the end. `waits`: a list that the run fills, see Trace. */
  readonly run: (columns: InputColumns, waits?: number[]) => Trace;
  /** Judges a complete run by the checks of its take at the kit's own rate; absent if there are none. */
  readonly judge?: (trace: Trace, takeId: string) => readonly JudgedCheck[];
}

/** The verdict of one check, by its index, on a run. */
export interface JudgedCheck {
  readonly check: number;
  readonly ok: boolean;
}

/** Prepares a kit for running without a stage. */
export const prepareBare: PrepareRun = kit => {
  const compiled = compile(kit);
  if (!compiled.ok) return undefined;
  const program = compiled.value;
  return { program, run: (columns, waits) => run(program, columns, waits) };
};
