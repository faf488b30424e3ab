import type { InputColumns, Program, Take, Trace } from "#core";
import type { StageProgram } from "#stage";

/** What came of a take: its columns, its trace, and the track of a runner's body. */
export interface Judged {
  readonly columns: InputColumns;
  readonly trace: Trace;
  readonly track: Float32Array;
}

/** What the judging worker can be asked: to hold a long take, and to run programs on it. Types only. */
export interface JudgeService {
  readonly hold: (take: Take) => void;
  readonly judge: (program: Program, stage: StageProgram | undefined) => Judged;
}
