import type { InputColumns } from "../input/inputColumns";
import { compile } from "../kit/compile";
import type { Kit } from "../kit/schema";
import type { Program } from "../run/program";
import { run } from "../run/run";
import type { Trace } from "../trace/trace";

/** Makes a kit ready to run: one that has a stage is run on it by whoever knows stages. Undefined while it has faults. */
export type PrepareRun = (kit: Kit) => PreparedKit | undefined;

/** A kit ready to run. */
export interface PreparedKit {
  readonly program: Program;
  readonly run: (columns: InputColumns) => Trace;
  /** Judges a whole run by checks, those that are asked of its take at the kit's own rate; left out, none are. */
  readonly judge?: (trace: Trace, takeId: string) => readonly JudgedCheck[];
}

/** The verdict of one check, by its place in the list, on a run. */
export interface JudgedCheck {
  readonly check: number;
  readonly ok: boolean;
}

/** Makes a kit ready to run without any stage. */
export const prepareBare: PrepareRun = kit => {
  const compiled = compile(kit);
  if (!compiled.ok) return undefined;
  const program = compiled.value;
  return { program, run: columns => run(program, columns) };
};
