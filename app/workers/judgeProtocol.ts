import type { InputColumns, Program, Take, Trace } from "#core";

/** What the judging worker can be asked: to hold a long take, and to run programs on it. Types only. */
export interface JudgeService {
  readonly hold: (take: Take) => void;
  readonly judge: (program: Program) => { readonly columns: InputColumns; readonly trace: Trace };
}
