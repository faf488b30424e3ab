import type { TemporalState } from "zundo";
import type { StoreApi } from "zustand/vanilla";

/** Why a step was closed before its own end: an undo or redo, or another edit, take, view or tab. */
export type CloseReason = "travel" | "other";

/**
 * Called when a step is closed from outside. Returns true if closing it used up the undo, because the step
 * held something that is not an edit yet (a brush in the middle of its stroke).
 */
export type CloseListener = (why: CloseReason) => boolean | void;

/**
 * A gesture that may make many edits and is one step of undo. Its methods have no effect after it has ended
 * or was closed.
 */
export interface UndoStep {
  /** Makes edits that belong to the step. Any other edit closes it. */
  readonly run: (edits: () => void) => void;
  readonly end: () => void;
  /** Cancels the step and restores the document; redo remains available. */
  readonly cancel: () => void;
}

/** Undo and redo over a store's document, in steps. At most one step is open. */
export interface History<D> {
  /** Call before each edit: closes a step that the edit does not belong to. */
  readonly editing: () => void;
  /** Call after each edit: within a step only the first one is recorded. */
  readonly edited: () => void;
  /**
   * Opens a step and closes the previous one. `put` sets the document; `onClosed` is called if the step is
   * closed from outside.
   */
  readonly begin: (put: (document: D) => void, onClosed?: CloseListener) => UndoStep;
  /**
   * Closes the open step; its edits stay as one step. Returns whether that used up an undo (see
   * CloseListener).
   */
  readonly close: (why: CloseReason) => boolean;
  readonly clear: () => void;
}

interface OpenStep {
  hasEdits: boolean;
  isRunning: boolean;
  readonly onClosed: CloseListener | undefined;
}

/** Creates the steps over a store that records its past; `read` returns the recorded part. */
export function createHistory<D>(temporal: StoreApi<TemporalState<D>>, read: () => D): History<D> {
  let open: OpenStep | undefined;

  function end(): void {
    open = undefined;
    temporal.getState().resume();
  }

  function close(why: CloseReason): boolean {
    const closed = open;
    if (!closed) return false;
    end();
    return closed.onClosed?.(why) === true;
  }

  return {
    editing() {
      if (open && !open.isRunning) close("other");
    },
    edited() {
      if (!open || open.hasEdits) return;
      open.hasEdits = true;
      temporal.getState().pause();
    },
    begin(put, onClosed) {
      close("other");
      const { pastStates, futureStates } = temporal.getState();
      const before = read();
      const step: OpenStep = (open = { hasEdits: false, isRunning: false, onClosed });
      return {
        run(edits) {
          if (open !== step) return;
          step.isRunning = true;
          try {
            edits();
          } finally {
            step.isRunning = false;
          }
        },
        end() {
          if (open === step) end();
        },
        cancel() {
          if (open !== step) return;
          if (step.hasEdits) {
            put(before);
            temporal.setState({ pastStates, futureStates });
          }
          end();
        },
      };
    },
    close,
    clear() {
      close("other");
      temporal.getState().resume();
      temporal.getState().clear();
    },
  };
}
