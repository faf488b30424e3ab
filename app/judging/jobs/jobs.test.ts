import { expect, test } from "vitest";
import { readOutcomes, readTake, type Take } from "#core";
import { compileRules, runRules } from "#stage";
import { readKitAndTake } from "../../tests/evaluated";
import { createTimers, startTestWorker, until } from "../../tests/testWorld";
import { createJobs, type JobsWorld } from "./jobs";

const { kit, take } = readKitAndTake("e2e/belfry", "clean-climb");
const rules = (() => {
  const compiled = compileRules(kit);
  if (!compiled.ok) throw new Error("the test's kit must compile");
  return compiled.value;
})();
const LONG: Take = { ...take, frames: 60_000 };

type TestWorker = ReturnType<JobsWorld["startWorker"]>;

/** Opens jobs whose workers can be made unresponsive. */
function openJobs(threads = 2) {
  const timers = createTimers();
  const workers: { hears: number }[] = [];
  let hears = Infinity;
  const jobs = createJobs({
    threads,
    setTimer: timers.setTimer,
    startWorker() {
      const real = startTestWorker();
      const state = { hears };
      workers.push(state);
      const post = real.postMessage.bind(real);
      const silent: Partial<TestWorker> = {
        postMessage(message: unknown, options?: StructuredSerializeOptions | Transferable[]) {
          if (state.hears-- > 0) post(message, options as StructuredSerializeOptions);
        },
      };
      return new Proxy(real, {
        get(target, key) {
          const value: unknown = Reflect.get(key in silent ? silent : target, key);
          return typeof value === "function" ? (value as () => void).bind(target) : value;
        },
        set: (target, key, value) => Reflect.set(target, key, value),
      });
    },
  });
  return {
    jobs,
    timers,
    workers,
    /** Makes present workers unresponsive, and future ones after so many messages: at once, or never. */
    hush(messages: number) {
      hears = messages;
      for (const worker of workers) worker.hears = 0;
    },
  };
}

const evaluateLong = (jobs: ReturnType<typeof createJobs>, lane?: string) =>
  jobs.ask({
    job: "evaluate",
    question: { rules },
    takes: [LONG],
    ...(lane === undefined ? {} : { lane }),
  });

test("a question gets its answer, with progress on the way, and the take is sent once", async () => {
  const { jobs } = openJobs();
  const reported: number[] = [];
  const asked = jobs.ask({
    job: "evaluate",
    question: { rules },
    takes: [LONG],
    onProgress: ({ done }) => reported.push(done),
  });
  const outcome = await asked.outcome;
  expect(outcome.state === "done" && outcome.value.trace.frames).toBe(60_000);
  expect(reported).toEqual([12_000, 24_000, 36_000, 48_000]);
  jobs.end();
});

test("fifty workers die silently during a job, and fifty answers arrive", async () => {
  const { jobs, timers, workers, hush } = openJobs(1);
  let answers = 0;
  for (let n = 0; n < 50; n++) {
    const asked = evaluateLong(jobs);
    hush(Infinity);
    await new Promise(resolve => setTimeout(resolve, 0));
    timers.pass(4000);
    const outcome = await asked.outcome;
    if (outcome.state === "done") answers++;
  }
  expect(answers).toBe(50);
  expect(workers.length).toBeGreaterThan(25);
  jobs.end();
});

test("work that kills every worker fails with a reason, and the queue continues", async () => {
  const { jobs, timers, hush } = openJobs(1);
  hush(0);
  const lost = evaluateLong(jobs);
  let end: unknown;
  void lost.outcome.then(outcome => (end = outcome));
  await until(() => {
    timers.pass(4000);
    return end !== undefined;
  });
  expect(end).toEqual({ state: "failed", reason: "the worker fell silent" });
  hush(Infinity);
  expect((await evaluateLong(jobs).outcome).state).toBe("done");
  jobs.end();
});

test("work that cannot yield gets the time it requests before its worker counts as dead", async () => {
  const { jobs, timers, workers, hush } = openJobs(1);
  // It answers the greeting and takes the take, and is silent over its work.
  hush(2);
  const ask = { job: "evaluate", question: { rules }, takes: [LONG], quietMs: 20_000 } as const;
  const asked = jobs.ask(ask);
  await until(() => workers.length === 1 && workers[0]!.hears < 0);
  timers.pass(19_999);
  await new Promise(resolve => setTimeout(resolve));
  expect(workers).toHaveLength(1);
  hush(Infinity);
  timers.pass(1);
  expect((await asked.outcome).state).toBe("done");
  expect(workers).toHaveLength(2);
  jobs.end();
});

test("a worker that answers no greeting is dead after four seconds, however long its work may take", async () => {
  const { jobs, timers, workers, hush } = openJobs(1);
  hush(0);
  const ask = { job: "evaluate", question: { rules }, takes: [LONG], quietMs: 20_000 } as const;
  const asked = jobs.ask(ask);
  await until(() => workers.length === 1);
  hush(Infinity);
  timers.pass(4000);
  expect((await asked.outcome).state).toBe("done");
  jobs.end();
});

test("a worker that cannot be started is a failure with its reason, for every question", async () => {
  const timers = createTimers();
  const jobs = createJobs({
    threads: 1,
    setTimer: timers.setTimer,
    startWorker() {
      throw new Error("workers are forbidden here");
    },
  });
  for (let k = 0; k < 3; k++)
    expect(await evaluateLong(jobs).outcome).toEqual({
      state: "failed",
      reason: "workers are forbidden here",
    });
});

test("a newer question on a lane replaces the queued one; an older answer is never returned for it", async () => {
  const { jobs, timers } = openJobs(1);
  const first = evaluateLong(jobs, "x");
  const second = evaluateLong(jobs, "x");
  const third = evaluateLong(jobs, "x");
  expect((await second.outcome).state).toBe("stopped");
  timers.pass(350);
  timers.pass(150);
  expect((await first.outcome).state).toBe("stopped");
  expect((await third.outcome).state).toBe("done");
  jobs.end();
});

test("a cancelled question ends at once, even if its worker does not respond", async () => {
  const { jobs, timers, hush } = openJobs(1);
  const asked = evaluateLong(jobs);
  const waiting = evaluateLong(jobs);
  waiting.stop();
  expect((await waiting.outcome).state).toBe("stopped");
  hush(Infinity);
  asked.stop();
  timers.pass(150);
  expect((await asked.outcome).state).toBe("stopped");
  expect((await evaluateLong(jobs).outcome).state).toBe("done");
  jobs.end();
});

type Ask = Parameters<ReturnType<typeof createJobs>["ask"]>[0];

test("jobs with partial answers report from their first step to the end", async () => {
  const { jobs } = openJobs(1);
  const { presses } = readOutcomes(rules.program, runRules(rules, readTake(rules.program, take)).trace);
  const fates = presses.slice(0, 2);
  const questions = [
    { job: "stories", question: { kit, versions: [{ ...kit, rate: 30 }] } },
    { job: "repairs", question: { kit, fates, isNearestOnly: true } },
    { job: "feel", question: { kit } },
    { job: "prices", question: { kit, changes: [kit] } },
  ] as const;
  for (const question of questions) {
    const asked = jobs.ask({ ...question, takes: [take], onProgress: () => undefined } as Ask);
    expect(await asked.outcome, question.job).toMatchObject({ state: "done" });
  }
  jobs.end();
});

test("a job that throws is a failure with its reason, not a dead worker", async () => {
  const { jobs, workers } = openJobs(1);
  const asked = jobs.ask({ job: "evaluate", question: { rules }, takes: [] });
  expect((await asked.outcome).state).toBe("failed");
  expect((await evaluateLong(jobs).outcome).state).toBe("done");
  expect(workers.length).toBe(1);
  jobs.end();
});

test("an answer that cannot be read ends its worker, and a new one answers", async () => {
  const ports: TestWorker[] = [];
  const timers = createTimers();
  const jobs = createJobs({
    threads: 1,
    setTimer: timers.setTimer,
    startWorker() {
      const worker = startTestWorker();
      ports.push(worker);
      return worker;
    },
  });
  const asked = evaluateLong(jobs);
  await until(() => ports.length === 1);
  (ports[0] as unknown as EventTarget).dispatchEvent(new Event("messageerror"));
  const outcome = await asked.outcome;
  expect(outcome.state).toBe("done");
  expect(ports.length).toBe(2);
  jobs.end();
});
