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
import type { Study, Studying } from "./studying";
import type { Workbench } from "./workbench";

/** The open document and all that follows from it, as one page has it. */
export interface Desk {
  readonly workbench: Workbench;
  readonly evaluation: StoreApi<Evaluation>;
  readonly playback: Playback;
  /** How the open kit stands by its checks. */
  readonly proving: StoreApi<Proof>;
  readonly checking: Checking;
  readonly studying: Studying;
  readonly judge: Judge;
  readonly jobs: Jobs;
  readonly shelf: Shelf;
  readonly storage: StoreApi<StorageStatus>;
  /** Lets the page do what waits, between two pieces of long work. */
  readonly rest: () => Promise<void>;
  /** Is anything held in memory because the browser would not keep it? */
  readonly hasHeld: () => boolean;
}

export const DeskContext = createContext<Desk | undefined>(undefined);

/** The desk of this page. Owners are reached through it; a component that shows something uses the hooks below. */
export function useDesk(): Desk {
  const desk = use(DeskContext);
  if (!desk) throw new Error("a component stands outside the desk");
  return desk;
}

/** A part of the open document; the component hears of it only when that part changes. */
export function useDocument<T>(select: (state: OpenDocument) => T): T {
  return useStore(useDesk().workbench, select);
}

/** A part of what the rules make of the open take. */
export function useEvaluation<T>(select: (state: Evaluation) => T): T {
  return useStore(useDesk().evaluation, select);
}

/** A part of how the open kit stands by its checks. */
export function useProof<T>(select: (state: Proof) => T): T {
  return useStore(useDesk().proving, select);
}

/** A study of the open kit by its name; undefined until it was begun. `V`: what such a study finds. */
export function useStudy<V>(name: string): Study<V> | undefined {
  return useStore(useDesk().studying, studies => studies.get(name)) as Study<V> | undefined;
}

/** What a study is set to, and how it is set; as given until it is. */
export function useSetting<T>(name: string, initial: T): readonly [T, (value: T) => void] {
  const { settings } = useDesk().studying;
  const value = useStore(settings, all => (all.has(name) ? (all.get(name) as T) : initial));
  return [value, next => settings.setState(new Map(settings.getState()).set(name, next), true)];
}

/** The open take as the rules understand it; undefined when there is none, or while a long one is first worked on. */
export function useEvaluated(): Evaluated | undefined {
  return useEvaluation(state => state.evaluated);
}

/** A part of where one stands in the open take. */
export function usePlayback<T>(select: (state: PlaybackState) => T): T {
  return useStore(useDesk().playback, select);
}

/** The open kit, if it is without faults; undefined while the last sound rules stand in for it. */
export function useSoundKit(): Kit | undefined {
  return useEvaluation(({ isSound, rules }) => (isSound ? rules?.kit : undefined));
}

/** Is there anything to undo, and to redo? */
export function useHistory(): { canUndo: boolean; canRedo: boolean } {
  const { history } = useDesk().workbench;
  const canUndo = useStore(history, state => state.pastStates.length > 0);
  const canRedo = useStore(history, state => state.futureStates.length > 0);
  return { canUndo, canRedo };
}
