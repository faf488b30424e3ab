import type { TemporalState } from "zundo";
import type { StoreApi } from "zustand/vanilla";

/** A movement of the hand that may make many edits and is one step of undo. */
export interface UndoStep {
  readonly end: () => void;
  /** Ends it with everything as it was before: nothing to undo, and what could be redone still can. */
  readonly cancel: () => void;
}

/** Undo and redo over a store's document, in steps. */
export interface History<D> {
  /** To be called after each edit: within a step only the first is remembered. */
  readonly edited: () => void;
  readonly begin: (put: (document: D) => void) => UndoStep;
  readonly clear: () => void;
}

/** Steps over a store that remembers its past; `read` gives the part of it that is remembered. */
export function createHistory<D>(temporal: StoreApi<TemporalState<D>>, read: () => D): History<D> {
  let open: { hasEdits: boolean } | undefined;
  return {
    edited() {
      if (!open || open.hasEdits) return;
      open.hasEdits = true;
      temporal.getState().pause();
    },
    begin(put) {
      const { pastStates, futureStates } = temporal.getState();
      const before = read();
      const step = (open = { hasEdits: false });
      const close = () => {
        if (open === step) open = undefined;
        temporal.getState().resume();
      };
      return {
        end: close,
        cancel() {
          if (step.hasEdits) {
            put(before);
            temporal.setState({ pastStates, futureStates });
          }
          close();
        },
      };
    },
    clear() {
      open = undefined;
      temporal.getState().resume();
      temporal.getState().clear();
    },
  };
}
