import { releaseProxy, wrap, type Remote } from "comlink";
import type { Program, Take } from "#core";
import { stageOfProgram } from "./staged";
import type { Judged, JudgeService } from "./judgeProtocol";

interface Question {
  readonly program: Program;
  readonly take: Take;
}

type Answer = Question & Judged;

let worker: Worker | undefined;
let service: Remote<JudgeService> | undefined;
let heldTake: Take | undefined;
let working: Question | undefined;
let waiting: Question | undefined;
let tries = 0;

const MOST_TRIES = 3;

function start(): Remote<JudgeService> {
  if (service) return service;
  worker = new Worker(new URL("./judge.worker.ts", import.meta.url), { type: "module" });
  service = wrap<JudgeService>(worker);
  return service;
}

/** Ends a worker that died; the next question starts another. */
function end(): void {
  service?.[releaseProxy]();
  worker?.terminate();
  worker = service = undefined;
  heldTake = undefined;
}

/** Resolves with the answer, or rejects when the worker dies under it. */
async function judge({ program, take }: Question): Promise<Judged> {
  const remote = start();
  const died = new Promise<never>((_, reject) => {
    worker!.onerror = event => reject(new Error(event.message || "the worker died"));
  });
  if (heldTake !== take) await Promise.race([remote.hold(take), died]);
  heldTake = take;
  return (await Promise.race([remote.judge(program, stageOfProgram(program)), died])) as Judged;
}

/**
 * Runs a long take through a program in a worker. One question is worked at, the newest waits, those between are
 * dropped; only an answer to the newest question is told. A worker that dies is started again with the question.
 */
export function askToJudge(
  question: Question,
  tell: (answer: Answer) => void,
  fail: (reason: string) => void,
): void {
  waiting = question;
  if (working) return;
  working = waiting;
  waiting = undefined;
  const asked = working;
  const goOn = () => {
    working = undefined;
    if (waiting) askToJudge(waiting, tell, fail);
  };
  judge(asked).then(
    answer => {
      tries = 0;
      if (!waiting) tell({ ...asked, ...answer });
      goOn();
    },
    (error: unknown) => {
      end();
      waiting ??= asked;
      if (++tries < MOST_TRIES) return goOn();
      waiting = working = undefined;
      tries = 0;
      fail(error instanceof Error ? error.message : String(error));
    },
  );
}
