import { useStore, type StoreApi } from "zustand";
import type { Kit } from "#core";
import type { Evaluated } from "../judging/judge";
import { createOwnerContext } from "../ui/ownerContext";
import type { Evaluation } from "./evaluation";
import type { Playback, PlaybackState } from "./playback";

/** The evaluation of the open take. */
export const [EvaluationContext, useEvaluationStore] =
  createOwnerContext<StoreApi<Evaluation>>("the evaluation");

/** The playback of the open take. */
export const [PlaybackContext, usePlaybackControl] = createOwnerContext<Playback>("the playback");

/** Returns a part of the evaluation of the open take. */
export function useEvaluation<T>(select: (state: Evaluation) => T): T {
  return useStore(useEvaluationStore(), select);
}

/** Returns the evaluated open take; undefined without one, or while a long one is first evaluated. */
export function useEvaluated(): Evaluated | undefined {
  return useEvaluation(state => state.evaluated);
}

/** Returns a part of the playback state. */
export function usePlayback<T>(select: (state: PlaybackState) => T): T {
  return useStore(usePlaybackControl(), select);
}

/** Returns the open kit if it has no faults; undefined while the last valid rules are used in its place. */
export function useSoundKit(): Kit | undefined {
  return useEvaluation(({ isSound, rules }) => (isSound ? rules?.kit : undefined));
}
