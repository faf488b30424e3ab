import type { TemporalState } from "zundo";
import type { StoreApi } from "zustand/vanilla";

/** Why a step was closed before its own end: an undo or redo, or another edit, another take, another view, another tab. */
export type CloseReason = "travel" | "other";

/**
 * Hears that a step was closed from outside. True: the undo that closed it has been used up by that, since the step had
 * something that is not an edit yet (a brush in the middle of its stroke).
 */
export type CloseListener = (why: CloseReason) => boolean | void;

/** A movement of the hand that may make many edits and is one step of undo. Nothing happens after it has ended or was closed. */
export interface UndoStep {
  /** Makes edits that belong to the step. An edit made in any other way closes it. */
  readonly run: (edits: () => void) => void;
  readonly end: () => void;
  /** Ends it with everything as it was before: nothing to undo, and what could be redone still can. */
  readonly cancel: () => void;
}

/** Undo and redo over a store's document, in steps. At most one step is open. */
export interface History<D> {
  /** To be called before each edit: closes a step that the edit is no part of. */
  readonly editing: () => void;
  /** To be called after each edit: within a step only the first is remembered. */
  readonly edited: () => void;
  /** Opens a step, and closes the one before. `put`: sets the document; `onClosed`: hears if it is closed from outside. */
  readonly begin: (put: (document: D) => void, onClosed?: CloseListener) => UndoStep;
  /** Closes the open step; its edits stay as one step. Returns whether that used up an undo (see CloseListener). */
  readonly close: (why: CloseReason) => boolean;
  readonly clear: () => void;
}

interface OpenStep {
  hasEdits: boolean;
  isRunning: boolean;
  readonly onClosed: CloseListener | undefined;
}

/** Creates the steps over a store that remembers its past; `read` returns the part of it that is remembered. */
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
