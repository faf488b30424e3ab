import { readTake, type InputColumns, type Trace } from "#core";
import { beginRun, type Rules } from "#stage";
import type { EvaluatedParts } from "../judge";
import type { Job } from "./job";

/** The number of frames run between two yields. */
const SLICE_FRAMES = 12_000;

/** Trims a trace to its content, each column in a buffer of its own for transfer. */
function trim(trace: Trace): Trace {
  const { count, used } = trace;
  return {
    ...trace,
    frame: trace.frame.slice(0, count),
    kind: trace.kind.slice(0, count),
    subject: trace.subject.slice(0, count),
    at: trace.at.slice(0, count + 1),
    payload: trace.payload.slice(0, used),
  };
}

function buffersOf(columns: InputColumns, trace: Trace, track: Float32Array): ArrayBufferLike[] {
  const { frame, kind, subject, at, payload } = trace;
  const { controlFrame, controlChange, gateFrame, gateChange, speedFrame, speedPercent } = columns;
  const lanes = [controlFrame, controlChange, gateFrame, gateChange, speedFrame, speedPercent];
  return [frame, kind, subject, at, payload, track, ...lanes].map(column => column.buffer);
}

/** Evaluates one long take under rules on their stage, in slices. */
export const evaluateJob: Job<{ readonly rules: Rules }, EvaluatedParts> = async (
  { rules },
  [take],
  tools,
) => {
  const columns = readTake(rules.program, take!);
  await tools.yieldNow();
  const course = beginRun(rules, columns);
  for (let frame = SLICE_FRAMES; frame < columns.frames; frame += SLICE_FRAMES) {
    course.runTo(frame);
    tools.reportProgress(frame, columns.frames);
    await tools.yieldNow();
  }
  course.runTo(columns.frames);
  const trace = trim(course.trace);
  const { track } = course;
  return { value: { columns, trace, track }, transfer: buffersOf(columns, trace, track) };
};
