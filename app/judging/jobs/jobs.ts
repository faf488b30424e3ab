import { proxy, releaseProxy, wrap, type Remote } from "comlink";
import { packTake, type PackedTake, type Take } from "#core";
import type { AnswerOf, JobEnd, JobName, JobProgress, JobService, QuestionOf } from "./protocol";

/** The dependencies of the jobs. */
export interface JobsWorld {
  readonly startWorker: () => Pick<
    Worker,
    "terminate" | "postMessage" | "addEventListener" | "removeEventListener"
  >;
  readonly setTimer: (ms: number, run: () => void) => () => void;
  /** The number of concurrent workers. */
  readonly threads: number;
}

/**
 * The end of a question: answered, cancelled (by its asker, or by a newer question on its lane), or failed.
 */
export type Outcome<N extends JobName> =
  | { readonly state: "done"; readonly value: AnswerOf<N> }
  | { readonly state: "stopped" }
  | { readonly state: "failed"; readonly reason: string };

/** The handle of a running question. */
export interface JobHandle<N extends JobName> {
  readonly outcome: Promise<Outcome<N>>;
  readonly stop: () => void;
}

/** A question with the takes it concerns. */
export interface JobRequest<N extends JobName> {
  readonly job: N;
  readonly question: QuestionOf<N>;
  readonly takes: readonly Take[];
  /** A newer question on a lane replaces an older one: a queued one at once, a running one if it is slow. */
  readonly lane?: string;
  readonly onProgress?: (progress: JobProgress) => void;
  /**
   * The time without a sign of life after which its worker counts as dead, in ms; for work that cannot yield.
   * Before its work begins, every worker must answer within four seconds. It can still be cancelled.
   */
  readonly quietMs?: number;
}

/**
 * Runs long work in workers. Every question ends: a worker that dies, even silently, is restarted with it.
 */
export interface Jobs {
  readonly ask: <N extends JobName>(ask: JobRequest<N>) => JobHandle<N>;
  /** Terminates every worker; later questions start new ones. */
  readonly end: () => void;
}

/** The time without a sign of life after which a worker counts as dead; it sends several per second. */
const SILENT_MS = 4000;
/** The grace period of a running question that a newer one waits for. */
const PATIENCE_MS = 350;
/** The grace period of a cancelled question. */
const STOP_MS = 150;
const MAX_RESTARTS = 3;
/**
 * The maximum number of control changes a worker keeps in its takes, about 100 bytes each; those of the
 * running question are always kept.
 */
const MAX_CHANGES_HELD = 1_000_000;
/** The number of changes sent at a time; the worker signals that it is alive in between. */
const MAX_CHANGES_SENT = 50_000;

/** Returns the weight of a take: its changes, plus a constant. */
const changesOf = ({ lanes }: Take) => Object.values(lanes).reduce((sum, lane) => sum + lane.length, 20);

interface Work {
  readonly id: number;
  readonly ask: JobRequest<JobName>;
  readonly resolve: (outcome: Outcome<JobName>) => void;
  tries: number;
  isStopped: boolean;
}

/** A worker with its takes and its current question. */
class WorkerSlot {
  work: Work | undefined;
  private worker: ReturnType<JobsWorld["startWorker"]> | undefined;
  private service: Remote<JobService> | undefined;
  private readonly held = new Map<Take, number>();
  private nextKey = 0;
  private callOff: (() => void) | undefined;
  private died: ((reason: string) => void) | undefined;

  constructor(private readonly world: JobsWorld) {}

  /** Runs a question to its end; rejects if the worker dies. */
  async run(work: Work): Promise<JobEnd> {
    this.work = work;
    const death = new Promise<never>((_, reject) => {
      this.died = reason => reject(new Error(reason));
    });
    try {
      // A browser may refuse to start a worker: it throws.
      const service = this.start();
      this.watch(SILENT_MS);
      await Promise.race([service.greet(), death]);
      const keys = await Promise.race([this.hold(service, work.ask.takes), death]);
      const { job, question, quietMs = SILENT_MS } = work.ask;
      const reportProgress = (progress: JobProgress | undefined) => {
        // Progress can arrive after the answer; it is then dropped.
        if (this.work !== work) return;
        this.watch(quietMs);
        if (progress && !work.isStopped) work.ask.onProgress?.(progress);
      };
      this.watch(quietMs);
      return (await Promise.race([
        service.run(work.id, job, question, keys, proxy(reportProgress)),
        death,
      ])) as JobEnd;
    } finally {
      this.work = undefined;
      this.callOff?.();
      this.died = undefined;
    }
  }

  /** Asks the work to stop; terminates its worker if it does not respond. */
  stop(work: Work, withinMs: number): void {
    void this.service?.stop(work.id);
    this.world.setTimer(withinMs, () => {
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
    // An answer that this browser cannot read never arrives.
    this.worker.addEventListener("messageerror", () => this.die("an answer of the worker could not be read"));
    this.service = wrap<JobService>(this.worker as Worker);
    return this.service;
  }

  /** Treats the worker as dead when it gives no sign of life in time. */
  private watch(quietMs: number): void {
    this.callOff?.();
    this.callOff = this.world.setTimer(quietMs, () => this.die("the worker fell silent"));
  }

  /** Sends takes to the worker; drops the least recently used ones when it holds too much. */
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
      if (size <= MAX_CHANGES_HELD || takes.includes(take)) break;
      this.held.delete(take);
      gone.push(key);
      size -= changesOf(take);
    }
    if (gone.length > 0) void service.letGo(gone);
    for (let at = 0; at < lacking.length;) {
      const packed: [number, PackedTake][] = [];
      for (let sent = 0; at < lacking.length && sent < MAX_CHANGES_SENT; at++) {
        const [key, take] = lacking[at]!;
        packed.push([key, packTake(take)]);
        sent += changesOf(take);
      }
      await service.hold(packed);
      this.watch(SILENT_MS);
    }
    return keys;
  }
}

/** Creates the jobs; the first question starts the first worker. */
export function createJobs(world: JobsWorld): Jobs {
  const desks = Array.from({ length: world.threads }, () => new WorkerSlot(world));
  const waiting: Work[] = [];
  let nextId = 0;

  function endWork(work: Work, outcome: Outcome<JobName>): void {
    work.resolve(work.isStopped ? { state: "stopped" } : outcome);
  }

  function goOn(): void {
    for (const desk of desks) {
      if (desk.work) continue;
      const work = waiting.shift();
      if (!work) return;
      void desk.run(work).then(
        end => {
          endWork(work, end as Outcome<JobName>);
          goOn();
        },
        (error: unknown) => {
          desk.end();
          work.tries++;
          if (work.isStopped) endWork(work, { state: "stopped" });
          else if (work.tries < MAX_RESTARTS) waiting.unshift(work);
          else
            endWork(work, {
              state: "failed",
              reason: error instanceof Error ? error.message : String(error),
            });
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
      endWork(work, { state: "stopped" });
      return;
    }
    desks.find(desk => desk.work === work)?.stop(work, withinMs);
  }

  /** Frees a lane: drops its queued question; a running one may finish if it is quick. */
  function makeWay(lane: string): void {
    for (const work of waiting.filter(item => item.ask.lane === lane)) stop(work, 0);
    for (const { work } of desks) {
      if (!work || work.isStopped || work.ask.lane !== lane) continue;
      world.setTimer(PATIENCE_MS, () => {
        if (waiting.some(item => item.ask.lane === lane)) stop(work, STOP_MS);
      });
    }
  }

  return {
    ask(ask) {
      if (ask.lane !== undefined) makeWay(ask.lane);
      let work!: Work;
      const outcome = new Promise<Outcome<JobName>>(resolve => {
        work = { id: nextId++, ask, resolve: resolve, tries: 0, isStopped: false };
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
