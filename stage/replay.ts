import {
  clearTrace,
  copyState,
  createInputCursor,
  createState,
  createTrace,
  loadInput,
  seekInput,
  step,
  type InputColumns,
  type Program,
  type State,
} from "#core";
import {
  copyStage,
  createStage,
  reportStage,
  stageSpeed,
  stepStage,
  type StageProgram,
  type StageState,
} from "./stage";

/** How far apart the moments lie that are kept to go back to. Frames. */
const MARK_EVERY = 600;

/** A take that can be looked into: how rules stood after any of its frames, for meters and prompts in a replay. */
export interface Replay {
  /**
   * The state after a frame, or undefined where more than `mostFrames` would have to be stepped to come there: those
   * were stepped, ask again. The same object every time; it is to be read, not kept. The frame must lie in the take.
   */
  readonly stateAt: (frame: number, mostFrames: number) => State | undefined;
}

interface Moment {
  readonly state: State;
  readonly stage: StageState | undefined;
}

/** Opens a take, read into columns, for a program and its stage if it has one. Nothing is stepped yet. */
export function createReplay(
  rules: Program,
  columns: InputColumns,
  program: StageProgram | undefined,
): Replay {
  const state = createState(rules);
  const stage = program && createStage(program);
  const scratch = createTrace(rules.rateHz);
  const cursor = createInputCursor(rules, columns);
  const marks: Moment[] = [];
  if (program && stage) reportStage(program, stage, state);

  function keepMark(): void {
    const kept = createState(rules);
    copyState(rules, state, kept);
    marks.push({ state: kept, stage: stage && copyStage(stage) });
  }

  function stepOnce(): void {
    const frame = state.frame + 1;
    if (frame === marks.length * MARK_EVERY) keepMark();
    clearTrace(scratch);
    const input = loadInput(cursor, frame);
    const takeSpeed = input.speedPercent;
    if (stage) input.speedPercent = stageSpeed(stage, takeSpeed);
    step(rules, state, input, scratch);
    input.speedPercent = takeSpeed;
    if (program && stage) stepStage(program, stage, rules, state, scratch, 0);
  }

  function goBackTo(mark: Moment): void {
    copyState(rules, mark.state, state);
    if (stage && mark.stage) Object.assign(stage, copyStage(mark.stage));
    seekInput(cursor, state.frame + 1);
  }

  return {
    stateAt(frame, mostFrames) {
      const mark = marks[Math.floor(frame / MARK_EVERY)] ?? marks.at(-1);
      if (mark && (state.frame > frame || mark.state.frame > state.frame)) goBackTo(mark);
      for (let stepped = 0; state.frame < frame; stepped++) {
        if (stepped === mostFrames) return undefined;
        stepOnce();
      }
      return state;
    },
  };
}
