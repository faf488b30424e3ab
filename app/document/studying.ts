import { createStore, type StoreApi } from "zustand/vanilla";
import type { Check, Kit, Take } from "#core";
import type { JobHandle, Jobs } from "../judging/jobs/jobs";
import type { AnswerOf, JobName, QuestionOf } from "../judging/jobs/protocol";
import type { Workbench } from "./workbench";

/** A study of the open kit: its question, its progress and its result. */
export interface Study<V = unknown> {
  readonly state: "working" | "done" | "stopped" | "failed";
  /** The completed share, 0 to 1, and the estimated remaining time; undefined before any progress. */
  readonly share: number;
  readonly leftMs: number | undefined;
  /** The result; while running and after cancellation, the partial result. */
  readonly value: V | undefined;
  readonly reason: string;
  /** Its inputs: if they differ from the open ones, the study is out of date. */
  readonly kit: Kit;
  readonly takes: readonly Take[];
  readonly checks: readonly Check[];
}

/** A study to run: one question per worker, all on the same takes, and how to merge their answers. */
export interface StudyAsk<N extends JobName, V> {
  readonly job: N;
  readonly questions: readonly QuestionOf<N>[];
  readonly takes: readonly Take[];
  /** `undefined` for a question without an answer yet. */
  readonly merge: (answers: readonly (AnswerOf<N> | undefined)[]) => V;
}

/**
 * The studies of the open kit, by name. They continue while other views are shown, and their results remain
 * until the kit is closed.
 */
export interface Studying extends Pick<
  StoreApi<ReadonlyMap<string, Study>>,
  "getState" | "getInitialState" | "subscribe"
> {
  readonly begin: <N extends JobName, V>(name: string, ask: StudyAsk<N, V>) => void;
  readonly stop: (name: string) => void;
  /** Settings of studies, by name: kept while other views are shown, until the kit is closed. */
  readonly settings: StoreApi<ReadonlyMap<string, unknown>>;
}

interface StudyingWorld {
  readonly workbench: Pick<Workbench, "getState" | "subscribe">;
  readonly jobs: Pick<Jobs, "ask">;
  readonly nowMs: () => number;
}

/** Returns whether a study has other rules, takes or checks than the open ones. */
export function isOld(
  study: Pick<Study, "kit" | "takes" | "checks">,
  open: { readonly kit: Kit | undefined; readonly takes: readonly Take[]; readonly checks: readonly Check[] },
): boolean {
  return (
    study.kit !== open.kit ||
    study.checks !== open.checks ||
    study.takes.some(take => !open.takes.includes(take))
  );
}

/** Creates the studies of one page. */
export function createStudying({ workbench, jobs, nowMs }: StudyingWorld): Studying {
  const store = createStore<ReadonlyMap<string, Study>>(() => new Map());
  const settings = createStore<ReadonlyMap<string, unknown>>(() => new Map());
  const asking = new Map<string, readonly JobHandle<JobName>[]>();
  let kitId = workbench.getState().kit?.id;

  const show = (name: string, change: Partial<Study>) => {
    const known = store.getState().get(name);
    if (known) store.setState(new Map(store.getState()).set(name, { ...known, ...change }), true);
  };

  function callOff(name: string): void {
    asking.get(name)?.forEach(asked => asked.stop());
    asking.delete(name);
  }

  workbench.subscribe(({ kit }) => {
    if (kit?.id === kitId) return;
    kitId = kit?.id;
    [...asking.keys()].forEach(callOff);
    store.setState(new Map(), true);
    settings.setState(new Map(), true);
  });

  function begin<N extends JobName, V>(name: string, { job, questions, takes, merge }: StudyAsk<N, V>): void {
    const { kit, checks } = workbench.getState();
    if (!kit) return;
    callOff(name);
    const beganMs = nowMs();
    const answers: (AnswerOf<N> | undefined)[] = questions.map(() => undefined);
    const shares = questions.map(() => 0);
    const first: Study = {
      state: "working",
      share: 0,
      leftMs: undefined,
      value: undefined,
      reason: "",
      kit,
      takes,
      checks,
    };
    store.setState(new Map(store.getState()).set(name, first), true);
    const progress = () => {
      const share = shares.reduce((sum, own) => sum + own, 0) / shares.length;
      return { share, leftMs: share > 0.02 ? ((nowMs() - beganMs) / share) * (1 - share) : undefined };
    };
    let left = questions.length;
    const own = questions.map((question, q) => {
      const asked = jobs.ask<N>({
        job,
        question,
        takes,
        lane: `${name} ${q}`,
        onProgress({ done, of, partial }) {
          if (asking.get(name) !== own) return;
          shares[q] = of > 0 ? done / of : 0;
          if (partial !== undefined) answers[q] = partial as AnswerOf<N>;
          show(name, { ...progress(), ...(partial === undefined ? {} : { value: merge(answers) }) });
        },
      });
      void asked.outcome.then(outcome => {
        if (asking.get(name) !== own) return;
        left--;
        shares[q] = 1;
        if (outcome.state === "done") answers[q] = outcome.value;
        if (outcome.state === "failed") {
          callOff(name);
          return show(name, { state: "failed", reason: outcome.reason });
        }
        if (left === 0) asking.delete(name);
        show(name, { ...progress(), value: merge(answers), ...(left === 0 ? { state: "done" } : {}) });
      });
      return asked as unknown as JobHandle<JobName>;
    });
    asking.set(name, own);
  }

  return {
    getState: store.getState,
    getInitialState: store.getInitialState,
    subscribe: store.subscribe,
    settings,
    begin,
    stop(name) {
      callOff(name);
      if (store.getState().get(name)?.state === "working")
        show(name, { state: "stopped", leftMs: undefined });
    },
  };
}
