import fc from "fast-check";
import { expect, test } from "vitest";
import { notes } from "./noteKinds";
import { clearTrace, createTrace, firstNoteAfter, note, put, rewindTrace, type Trace } from "./trace";

/** Returns a trace with a note on each of these frames, in order, each with its index as payload. */
function traceOf(frames: readonly number[]): Trace {
  const trace = createTrace(60, 2);
  frames.forEach((frame, k) => {
    note(trace, frame, k % 2 ? notes.fired.code : notes.lost.code, k);
    put(trace, k);
  });
  trace.frames = (frames.at(-1) ?? -1) + 1;
  return trace;
}

const frameLists = fc
  .array(fc.integer({ min: 0, max: 40 }), { maxLength: 30 })
  .map(list => list.sort((a, b) => a - b));

test("the first note after a frame equals the result of a linear search", () => {
  fc.assert(
    fc.property(frameLists, fc.integer({ min: -1, max: 41 }), (frames, frame) => {
      const walked = frames.findIndex(at => at > frame);
      expect(firstNoteAfter(traceOf(frames), frame)).toBe(walked < 0 ? frames.length : walked);
    }),
  );
});

test("of several notes on one frame all lie before the first one after it; an empty trace has none", () => {
  const trace = traceOf([3, 5, 5, 5, 9]);
  expect([2, 3, 4, 5, 8, 9].map(frame => firstNoteAfter(trace, frame))).toEqual([0, 1, 1, 4, 4, 5]);
  expect(firstNoteAfter(createTrace(60), 0)).toBe(0);
});

test("rewinding drops the notes of that frame and after with their payload; writing continues from there", () => {
  fc.assert(
    fc.property(frameLists, fc.integer({ min: 0, max: 41 }), (frames, frame) => {
      const trace = traceOf(frames);
      rewindTrace(trace, frame);
      const kept = traceOf(frames.filter(at => at < frame));
      note(trace, frame, notes.fired.code, 99);
      put(trace, 7);
      note(kept, frame, notes.fired.code, 99);
      put(kept, 7);
      const notesOf = ({ count, frame, kind, subject, at, payload }: Trace) =>
        Array.from({ length: count }, (_, i) => [frame[i], kind[i], subject[i], payload[at[i]!]]);
      expect(notesOf(trace)).toEqual(notesOf(kept));
      expect(trace.used).toBe(kept.used);
    }),
  );
});

test("a muted trace records nothing; a cleared one is empty and keeps its columns", () => {
  const trace = traceOf([1, 2, 3]);
  trace.isMuted = true;
  note(trace, 4, notes.fired.code, 0);
  put(trace, 1);
  expect([trace.count, trace.used]).toEqual([3, 3]);
  const room = trace.frame.length;
  clearTrace(trace);
  expect([trace.count, trace.used, trace.frames, trace.frame.length]).toEqual([0, 0, 0, room]);
});
