import { proxy, releaseProxy, wrap, type Remote } from "comlink";
import { packTake, type PackedTake, type Take } from "#core";
import type { AnswerOf, JobEnd, JobName, JobProgress, JobService, QuestionOf } from "./protocol";

/** What the jobs stand on. */
export interface JobsWorld {
  readonly startWorker: () => Pick<
    Worker,
    "terminate" | "postMessage" | "addEventListener" | "removeEventListener"
  >;
  readonly later: (ms: number, run: () => void) => () => void;
  /** How many workers work at a time. */
  readonly threads: number;
}

/** How a question ends: with its answer, called off (by its asker, or by a newer question on its lane), or in trouble. */
export type Outcome<N extends JobName> =
  | { readonly state: "done"; readonly value: AnswerOf<N> }
  | { readonly state: "stopped" }
  | { readonly state: "failed"; readonly reason: string };

/** A question under way. */
export interface Asked<N extends JobName> {
  readonly outcome: Promise<Outcome<N>>;
  readonly stop: () => void;
}

/** Something to be worked out, with the takes it is about. */
export interface Ask<N extends JobName> {
  readonly job: N;
  readonly question: QuestionOf<N>;
  readonly takes: readonly Take[];
  /** A newer question on a lane takes the place of an older one: a waiting one at once, one under way if it is slow. */
  readonly lane?: string;
  readonly told?: (progress: JobProgress) => void;
  /** So long it may say nothing before its worker is taken for dead, ms; for work that cannot rest. It can be called off all the same. */
  readonly quietMs?: number;
}

/** Long work, done in workers. Every question ends: a worker that dies, silently too, is started again with it. */
export interface Jobs {
  readonly ask: <N extends JobName>(ask: Ask<N>) => Asked<N>;
  /** Ends every worker; what is asked later starts new ones. */
  readonly end: () => void;
}

/** A worker that has said nothing for so long is taken for dead: it says that it lives several times a second. */
const SILENT_MS = 4000;
/** One under way that a newer question waits for has so long to end by itself. */
const PATIENCE_MS = 350;
/** One that was called off has so long to stop by itself. */
const STOP_MS = 150;
const MOST_TRIES = 3;
/** A worker holds so many changes of controls in its takes, some 100 bytes each; those of the question under way whatever they are. */
const MOST_HELD = 1_000_000;
/** It is sent so many at a time: it says that it lives in between. */
const MOST_SENT = 50_000;

/** How much a take weighs: its changes, and something for the rest. */
const changesOf = ({ lanes }: Take) => Object.values(lanes).reduce((sum, lane) => sum + lane.length, 20);

interface Work {
  readonly id: number;
  readonly ask: Ask<JobName>;
  readonly settle: (outcome: Outcome<JobName>) => void;
  tries: number;
  isStopped: boolean;
}

/** A worker with what it holds and works on. */
class Desk {
  work: Work | undefined;
  private worker: ReturnType<JobsWorld["startWorker"]> | undefined;
  private service: Remote<JobService> | undefined;
  private readonly held = new Map<Take, number>();
  private nextKey = 0;
  private callOff: (() => void) | undefined;
  private died: ((reason: string) => void) | undefined;

  constructor(private readonly world: JobsWorld) {}

  /** Works on a question to its end; rejects when the worker dies under it. */
  async run(work: Work): Promise<JobEnd> {
    this.work = work;
    const service = this.start();
    const death = new Promise<never>((_, reject) => {
      this.died = reason => reject(new Error(reason));
    });
    try {
      this.watch();
      const keys = await Promise.race([this.hold(service, work.ask.takes), death]);
      const told = (progress: JobProgress | undefined) => {
        // What was told on the way can come after the answer: it is older then, and not passed on.
        if (this.work !== work) return;
        this.watch();
        if (progress && !work.isStopped) work.ask.told?.(progress);
      };
      const { job, question } = work.ask;
      return (await Promise.race([service.run(work.id, job, question, keys, proxy(told)), death])) as JobEnd;
    } finally {
      this.work = undefined;
      this.callOff?.();
      this.died = undefined;
    }
  }

  /** Asks the work to stop; one that does not hear is ended with its worker. */
  stop(work: Work, withinMs: number): void {
    void this.service?.stop(work.id);
    this.world.later(withinMs, () => {
      if (this.work === work) this.die("stopped");
    });
  }

  end(): void {
    this.service?.[releaseProxy]();
    this.worker?.terminate();
    this.worker = this.service = undefined;
    this.held.clear();
  }

  private die(reason: string): void {
    const { died } = this;
    this.end();
    died?.(reason);
  }

  private start(): Remote<JobService> {
    if (this.service) return this.service;
    this.worker = this.world.startWorker();
    this.worker.addEventListener("error", event => {
      this.die(event instanceof ErrorEvent && event.message ? event.message : "the worker died");
    });
    this.service = wrap<JobService>(this.worker as Worker);
    return this.service;
  }

  /** Takes the worker for dead when nothing is heard of it in time. */
  private watch(): void {
    this.callOff?.();
    const quietMs = this.work?.ask.quietMs ?? SILENT_MS;
    this.callOff = this.world.later(quietMs, () => this.die("the worker fell silent"));
  }

  /** Has the worker hold takes; those it was not asked about for longest are let go when it holds much. */
  private async hold(service: Remote<JobService>, takes: readonly Take[]): Promise<number[]> {
    const lacking: [number, Take][] = [];
    const keys = takes.map(take => {
      const key = this.held.get(take) ?? this.nextKey++;
      if (!this.held.delete(take)) lacking.push([key, take]);
      this.held.set(take, key);
      return key;
    });
    const gone: number[] = [];
    let size = [...this.held.keys()].reduce((sum, take) => sum + changesOf(take), 0);
    for (const [take, key] of this.held) {
      if (size <= MOST_HELD || takes.includes(take)) break;
      this.held.delete(take);
      gone.push(key);
      size -= changesOf(take);
    }
    if (gone.length > 0) void service.letGo(gone);
    for (let at = 0; at < lacking.length;) {
      const packed: [number, PackedTake][] = [];
      for (let sent = 0; at < lacking.length && sent < MOST_SENT; at++) {
        const [key, take] = lacking[at]!;
        packed.push([key, packTake(take)]);
        sent += changesOf(take);
      }
      await service.hold(packed);
      this.watch();
    }
    return keys;
  }
}

/** Makes the jobs; the first question starts the first worker. */
export function createJobs(world: JobsWorld): Jobs {
  const desks = Array.from({ length: world.threads }, () => new Desk(world));
  const waiting: Work[] = [];
  let nextId = 0;

  function settle(work: Work, outcome: Outcome<JobName>): void {
    work.settle(work.isStopped ? { state: "stopped" } : outcome);
  }

  function goOn(): void {
    for (const desk of desks) {
      if (desk.work) continue;
      const work = waiting.shift();
      if (!work) return;
      void desk.run(work).then(
        end => {
          settle(work, end as Outcome<JobName>);
          goOn();
        },
        (error: unknown) => {
          desk.end();
          work.tries++;
          if (work.isStopped) settle(work, { state: "stopped" });
          else if (work.tries < MOST_TRIES) waiting.unshift(work);
          else
            settle(work, { state: "failed", reason: error instanceof Error ? error.message : String(error) });
          goOn();
        },
      );
    }
  }

  function stop(work: Work, withinMs: number): void {
    if (work.isStopped) return;
    work.isStopped = true;
    const place = waiting.indexOf(work);
    if (place >= 0) {
      waiting.splice(place, 1);
      settle(work, { state: "stopped" });
      return;
    }
    desks.find(desk => desk.work === work)?.stop(work, withinMs);
  }

  /** Makes way on a lane: what waits there is dropped; what is under way may end by itself if it is quick. */
  function makeWay(lane: string): void {
    for (const work of waiting.filter(item => item.ask.lane === lane)) stop(work, 0);
    for (const { work } of desks) {
      if (!work || work.isStopped || work.ask.lane !== lane) continue;
      world.later(PATIENCE_MS, () => {
        if (waiting.some(item => item.ask.lane === lane)) stop(work, STOP_MS);
      });
    }
  }

  return {
    ask(ask) {
      if (ask.lane !== undefined) makeWay(ask.lane);
      let work!: Work;
      const outcome = new Promise<Outcome<JobName>>(resolve => {
        work = { id: nextId++, ask, settle: resolve, tries: 0, isStopped: false };
      });
      waiting.push(work);
      goOn();
      return { outcome: outcome as Promise<never>, stop: () => stop(work, STOP_MS) };
    },
    end() {
      for (const desk of desks) {
        if (desk.work) stop(desk.work, 0);
        desk.end();
      }
    },
  };
}
