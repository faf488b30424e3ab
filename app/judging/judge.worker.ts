import { expose, transfer } from "comlink";
import { readTake, type Take, type Trace } from "#core";
import { runStaged } from "#stage";
import type { JudgeService } from "./judgeProtocol";

let held: Take | undefined;

/** The columns of a trace cut to what they hold, each in a buffer of its own, so that they can be handed over. */
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

const service: JudgeService = {
  hold(take) {
    held = take;
  },
  judge(program, stage) {
    if (!held) throw new Error("hold a take before judging");
    const columns = readTake(program, held);
    const staged = runStaged(program, columns, stage);
    const trace = trim(staged.trace);
    const { track } = staged;
    const { frame, kind, subject, at, payload } = trace;
    const lanes = [
      columns.controlFrame,
      columns.controlChange,
      columns.gateFrame,
      columns.gateChange,
      columns.speedFrame,
      columns.speedPercent,
      track,
    ];
    return transfer(
      { columns, trace, track },
      [frame, kind, subject, at, payload, ...lanes].map(column => column.buffer),
    );
  },
};

expose(service);
