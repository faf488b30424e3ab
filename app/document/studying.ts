import { createStore, type StoreApi } from "zustand/vanilla";
import type { Check, Kit, Take } from "#core";
import type { JobHandle, Jobs, Outcome } from "../judging/jobs/jobs";
import type { AnswerOf, JobName, QuestionOf } from "../judging/jobs/protocol";
import {
  DEFAULT_STUDY_SETTINGS,
  type StudyName,
  type StudyResults,
  type StudySettings,
} from "./studySettings";
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

/** A study without its progress: everything that its results are drawn from. */
export type FoundStudy<V = unknown> = Omit<Study<V>, "share" | "leftMs">;

/** Returns a study without its progress, of which reports come many times a second. */
export function foundOf<V>(study: Study<V> | undefined): FoundStudy<V> | undefined {
  if (!study) return undefined;
  const { share: _share, leftMs: _leftMs, ...found } = study;
  return found;
}

/** A study to run: one question per worker, all on the same takes, and how to merge their answers. */
export interface StudyAsk<N extends JobName, V> {
  readonly job: N;
  readonly questions: readonly QuestionOf<N>[];
  readonly takes: readonly Take[];
  /** `undefined` for a question without an answer yet. */
  readonly merge: (answers: readonly (AnswerOf<N> | undefined)[]) => V;
}

/** The studies of the open kit, by name; one that was never started is absent. */
export type Studies = { readonly [N in StudyName]?: Study<StudyResults[N]> };

/**
 * The studies of the open kit. They continue while other views are shown, and their results remain until the
 * kit is closed.
 */
export interface Studying extends Pick<StoreApi<Studies>, "getState" | "getInitialState" | "subscribe"> {
  readonly begin: <N extends StudyName, J extends JobName>(
    name: N,
    ask: StudyAsk<J, StudyResults[N]>,
  ) => void;
  readonly stop: (name: StudyName) => void;
  readonly settings: StoreApi<StudySettings>;
}

/** The completed share below which no remaining time is estimated. */
const MIN_SHARE = 0.02;

const UNSTARTED = { state: "working", share: 0, leftMs: undefined, value: undefined, reason: "" } as const;

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

/** The progress of the questions of one study: the share of each, 0 to 1. */
function progressOf(shares: readonly number[], passedMs: number): Pick<Study, "share" | "leftMs"> {
  const share = shares.reduce((sum, own) => sum + own, 0) / shares.length;
  return { share, leftMs: share > MIN_SHARE ? (passedMs / share) * (1 - share) : undefined };
}

/** Creates the studies of one page. */
export function createStudying({ workbench, jobs, nowMs }: StudyingWorld): Studying {
  const store = createStore<Studies>(() => ({}));
  const settings = createStore<StudySettings>(() => DEFAULT_STUDY_SETTINGS);
  const asking = new Map<StudyName, readonly JobHandle<JobName>[]>();
  let kitId = workbench.getState().kit?.id;

  function show<N extends StudyName>(name: N, change: Partial<Study<StudyResults[N]>>): void {
    const known = store.getState()[name];
    if (known) store.setState({ [name]: { ...known, ...change } });
  }

  function callOff(name: StudyName): void {
    asking.get(name)?.forEach(asked => asked.stop());
    asking.delete(name);
  }

  workbench.subscribe(({ kit }) => {
    if (kit?.id === kitId) return;
    kitId = kit?.id;
    [...asking.keys()].forEach(callOff);
    store.setState({}, true);
    settings.setState(DEFAULT_STUDY_SETTINGS, true);
  });

  /** Asks the questions of a study and shows its progress; answers of an earlier start are dropped. */
  function ask<N extends StudyName, J extends JobName>(
    name: N,
    { job, questions, takes, merge }: StudyAsk<J, StudyResults[N]>,
  ): void {
    const beganMs = nowMs();
    const answers: (AnswerOf<J> | undefined)[] = questions.map(() => undefined);
    const shares = questions.map(() => 0);
    const progress = () => progressOf(shares, nowMs() - beganMs);
    // A list of its own each time, by which its readers see that there is more.
    const found = () => merge([...answers]);
    let left = questions.length;
    const finish = (q: number, outcome: Outcome<J>) => {
      if (asking.get(name) !== own) return;
      if (outcome.state === "failed") {
        callOff(name);
        return show(name, { state: "failed", reason: outcome.reason });
      }
      left--;
      shares[q] = 1;
      if (outcome.state === "done") answers[q] = outcome.value;
      if (left === 0) asking.delete(name);
      show(name, { ...progress(), value: found(), ...(left === 0 ? { state: "done" } : {}) });
    };
    const own = questions.map((question, q) => {
      const asked = jobs.ask<J>({
        job,
        question,
        takes,
        lane: `${name} ${q}`,
        onProgress({ done, of, partial }) {
          if (asking.get(name) !== own) return;
          shares[q] = of > 0 ? done / of : 0;
          if (partial !== undefined) answers[q] = partial as AnswerOf<J>;
          show(name, { ...progress(), ...(partial === undefined ? {} : { value: found() }) });
        },
      });
      void asked.outcome.then(outcome => finish(q, outcome));
      return asked as unknown as JobHandle<JobName>;
    });
    asking.set(name, own);
  }

  return {
    getState: store.getState,
    getInitialState: store.getInitialState,
    subscribe: store.subscribe,
    settings,
    begin(name, question) {
      const { kit, checks } = workbench.getState();
      if (!kit) return;
      callOff(name);
      store.setState({ [name]: { ...UNSTARTED, kit, takes: question.takes, checks } });
      ask(name, question);
    },
    stop(name) {
      callOff(name);
      if (store.getState()[name]?.state === "working") show(name, { state: "stopped", leftMs: undefined });
    },
  };
}
