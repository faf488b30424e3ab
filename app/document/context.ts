import { createContext, use } from "react";
import { useStore, type StoreApi } from "zustand";
import type { Kit } from "#core";
import type { Evaluated, Judge } from "../judging/judge";
import type { Jobs } from "../judging/jobs/jobs";
import type { Shelf } from "../storage/shelf";
import type { StorageStatus } from "../storage/status";
import type { Evaluation } from "./evaluation";
import type { Checking } from "./checking";
import type { Proof } from "./proving";
import type { Playback, PlaybackState } from "./playback";
import type { OpenDocument } from "./openDocument";
import type { Studies, Studying } from "./studying";
import type { StudyName, StudySettings } from "./studySettings";
import type { Workbench } from "./workbench";

/** The open document and its derived state on one page. */
export interface Desk {
  readonly workbench: Workbench;
  readonly evaluation: StoreApi<Evaluation>;
  readonly playback: Playback;
  /** The results of the open kit's checks. */
  readonly proving: StoreApi<Proof>;
  readonly checking: Checking;
  readonly studying: Studying;
  readonly judge: Judge;
  readonly jobs: Jobs;
  readonly shelf: Shelf;
  readonly storage: StoreApi<StorageStatus>;
  /** Yields between two slices of long work. */
  readonly yieldToUi: () => Promise<void>;
  /** Returns whether anything is held in memory because the browser could not store it. */
  readonly hasHeld: () => boolean;
}

export const DeskContext = createContext<Desk | undefined>(undefined);

/** Returns the desk of this page: its owners. Components that display state use the hooks below. */
export function useDesk(): Desk {
  const desk = use(DeskContext);
  if (!desk) throw new Error("a component is rendered outside the desk");
  return desk;
}

/** Returns a part of the open document; re-renders only when that part changes. */
export function useDocument<T>(select: (state: OpenDocument) => T): T {
  return useStore(useDesk().workbench, select);
}

/** Returns a part of the evaluation of the open take. */
export function useEvaluation<T>(select: (state: Evaluation) => T): T {
  return useStore(useDesk().evaluation, select);
}

/** Returns a part of the results of the open kit's checks. */
export function useProof<T>(select: (state: Proof) => T): T {
  return useStore(useDesk().proving, select);
}

/** Returns a study of the open kit by its name; undefined until it is started. */
export function useStudy<N extends StudyName>(name: N): Studies[N] {
  return useStore(useDesk().studying, studies => studies[name]);
}

/** Returns the settings of a study, and a setter that changes some of them. */
export function useStudySettings<N extends keyof StudySettings>(
  name: N,
): readonly [StudySettings[N], (change: Partial<StudySettings[N]>) => void] {
  const { settings } = useDesk().studying;
  const own = useStore(settings, all => all[name]);
  return [own, change => settings.setState(all => ({ [name]: { ...all[name], ...change } }))];
}

/** Returns the evaluated open take; undefined without one, or while a long one is first evaluated. */
export function useEvaluated(): Evaluated | undefined {
  return useEvaluation(state => state.evaluated);
}

/** Returns a part of the playback state. */
export function usePlayback<T>(select: (state: PlaybackState) => T): T {
  return useStore(useDesk().playback, select);
}

/** Returns the open kit if it has no faults; undefined while the last valid rules are used in its place. */
export function useSoundKit(): Kit | undefined {
  return useEvaluation(({ isSound, rules }) => (isSound ? rules?.kit : undefined));
}

/** Returns whether there is anything to undo and to redo. */
export function useHistory(): { canUndo: boolean; canRedo: boolean } {
  const { history } = useDesk().workbench;
  const canUndo = useStore(history, state => state.pastStates.length > 0);
  const canRedo = useStore(history, state => state.futureStates.length > 0);
  return { canUndo, canRedo };
}
