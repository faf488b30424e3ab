import type { StoreApi } from "zustand/vanilla";
import { firstNoteAfter, formatMs, parseFrames, readAt, writeAt, type Take, type Trace } from "#core";
import type { Evaluation } from "../../document/evaluation";
import type { CloseListener, UndoStep } from "../../document/history";
import type { Playback } from "../../document/playback";
import type { Workbench } from "../../document/workbench";
import { copyStretch, pasteClip, shiftStretch, wipeStretch, type TakeClip } from "../../edits/takeClips";
import { moveMarks } from "../../edits/pressMarks";
import { snapToFrames } from "../../edits/snapToFrames";
import { paintControl, paintGate, paintSpeed } from "../../edits/takeEdits";
import { stepLength } from "../../ui/lengthText";
import type { TapeHandle } from "../model/handles";
import { isEvent } from "../model/mostInformativeNote";
import type { TapeRow } from "../model/tapeRows";
import type { TapeLook } from "./tapeLook";
import type { StrokeResult } from "../model/stroke";

/** The operations on a stretch of the open take. */
export type StretchAct = "cut" | "copy" | "paste" | "earlier" | "later" | "repeat" | "wipe";

/** The edits that pointer and keys make on the tape. */
export interface TapeActions {
  /**
   * Begins a pull of a window's end; the current tape is kept for marking changes. `onClosed` is called if
   * the pull is ended from outside, by an undo or another edit.
   */
  readonly beginPull: (onClosed: () => void) => void;
  /**
   * Begins a stroke of the brush; `onClosed` as for any step of undo. Returns a function that ends the step.
   */
  readonly beginStroke: (onClosed: CloseListener) => () => void;
  /**
   * Pulls a window to a number of frames: changes the number in the rule and evaluates the take. Returns the
   * words beside the pointer.
   */
  readonly pullTo: (handle: TapeHandle, frames: number) => string;
  /** Ends a pull; if cancelled, everything is restored. */
  readonly endPull: (isCancelled: boolean) => void;
  /** Paints the result of a stroke onto the open take. */
  readonly applyStroke: (row: TapeRow, result: StrokeResult) => void;
  /**
   * Applies an operation to the selected stretch; pasting inserts the clip at the playhead. Each is one step
   * of undo.
   */
  readonly actOnStretch: (act: StretchAct) => void;
}

interface TapeActionsWorld {
  readonly workbench: Workbench;
  readonly evaluation: StoreApi<Evaluation>;
  readonly playback: Playback;
  readonly look: StoreApi<TapeLook>;
}

/** Creates the actions of one page's tape. */
export function createTapeActions({ workbench, evaluation, playback, look }: TapeActionsWorld): TapeActions {
  let pull: UndoStep | undefined;
  let clipboard: TakeClip | undefined;
  const evaluatedNow = () => evaluation.getState().evaluated;

  // Any edit outside a pull removes the marks of the last pull.
  workbench.subscribe((now, before) => {
    if (pull || (now.kit === before.kit && now.takes === before.takes)) return;
    if (look.getState().before) look.setState({ before: undefined });
  });

  function paintSpeedStroke(
    take: Take,
    result: StrokeResult,
    rateHz: number,
    toX: (frame: number) => number,
  ): void {
    const percent = look.getState().brushPercent;
    const { wipeFrom, wipeTo, fillFrom, fillTo } = result;
    workbench.editTake("painted the speed", take.id, before => {
      const was = snapToFrames(before, Object.values(result), rateHz, "speed");
      const wiped = wipeTo > wipeFrom ? paintSpeed(was, toX(wipeFrom), toX(wipeTo), 100) : was;
      return fillTo > fillFrom ? paintSpeed(wiped, toX(fillFrom), toX(fillTo), percent) : wiped;
    });
  }

  return {
    beginPull(onClosed) {
      const now = evaluatedNow();
      if (!now) return;
      pull = workbench.beginStep(() => {
        pull = undefined;
        onClosed();
      });
      look.setState({ before: { trace: now.trace, rules: now.rules } });
    },
    pullTo(handle, frames) {
      const { kit } = workbench.getState();
      if (!kit || !pull) return "";
      const found = readAt(kit, handle.path);
      const current = typeof found === "string" ? found : "0f";
      const by = frames - (parseFrames(current, kit.rate, handle.rounding) ?? 0);
      if (by !== 0) {
        const next = stepLength(current, by, kit.rate, handle.rounding, handle.least);
        pull.run(() => workbench.editKit(`pulled to ${next}`, now => writeAt(now, handle.path, next)));
      }
      return `${handle.words} ${frames}f · ${formatMs(frames, kit.rate)}`;
    },
    endPull(isCancelled) {
      if (!pull) return;
      if (isCancelled) pull.cancel();
      else pull.end();
      pull = undefined;
      if (isCancelled) look.setState({ before: undefined });
    },
    beginStroke: onClosed => workbench.beginStep(onClosed).end,
    applyStroke(row, result) {
      const now = evaluatedNow();
      if (!now) return;
      const { take, program } = now;
      const toX = (frame: number) => (frame * take.rate) / program.rateHz;
      if (row.group === "time") return paintSpeedStroke(take, result, program.rateHz, toX);
      const list = row.group === "gates" ? "gates" : "lanes";
      const paint = list === "gates" ? paintGate : paintControl;
      const { wipeFrom, wipeTo, fillFrom, fillTo } = result;
      workbench.editTake(`painted ${row.name}`, take.id, before => {
        const was = snapToFrames(before, Object.values(result), program.rateHz, { list, id: row.id });
        const wiped = wipeTo > wipeFrom ? paint(was, row.id, toX(wipeFrom), toX(wipeTo), false) : was;
        const painted = fillTo > fillFrom ? paint(wiped, row.id, toX(fillFrom), toX(fillTo), true) : wiped;
        if (list === "gates") return painted;
        const filledX = fillTo > fillFrom ? toX(fillFrom) : undefined;
        return moveMarks(painted, row.id, toX(wipeFrom), toX(wipeTo), filledX);
      });
    },
    actOnStretch(act) {
      const now = evaluatedNow();
      const { stretch, frame } = playback.getState();
      if (!now || (act === "paste" ? !clipboard : !stretch)) return;
      const { take, program } = now;
      const toX = (at: number) => (at * take.rate) / program.rateHz;
      const fromX = toX(stretch?.from ?? 0);
      const endX = toX((stretch?.to ?? 0) + 1);
      /** Returns a take whose changes at the ends of frames of the kit are at their places. */
      const snapped = (was: Take, ...ends: readonly number[]) =>
        snapToFrames(was, ends, program.rateHz, "all");
      const ends = stretch ? [stretch.from, stretch.to + 1] : [];
      const clip = act === "paste" ? clipboard! : copyStretch(snapped(take, ...ends), fromX, endX);
      /** Edits the take, with the ends of what is pasted from a frame on. */
      const edit = (what: string, change: (was: Take) => Take, pasted?: number) => {
        const length = Math.round((clip.lengthX * program.rateHz) / take.rate);
        const more = pasted === undefined ? [] : [pasted, pasted + length];
        workbench.editTake(what, take.id, was => change(snapped(was, ...ends, ...more)));
      };
      const shift = (by: number) => {
        const { from, to } = stretch!;
        if (from + by < 0) return;
        edit("shifted a stretch", was => shiftStretch(was, fromX, endX, toX(by)), from + by);
        playback.setState({ stretch: { from: from + by, to: to + by } });
      };
      switch (act) {
        case "copy":
          clipboard = clip;
          break;
        case "cut":
          clipboard = clip;
          edit("cut a stretch", was => wipeStretch(was, fromX, endX));
          break;
        case "wipe":
          edit("wiped a stretch", was => wipeStretch(was, fromX, endX));
          break;
        case "paste":
          edit("pasted a stretch", was => pasteClip(was, clip, toX(frame)), frame);
          break;
        case "repeat":
          edit("repeated a stretch", was => pasteClip(was, clip, endX), stretch!.to + 1);
          break;
        case "earlier":
          return shift(-1);
        case "later":
          return shift(1);
      }
    },
  };
}

/** Returns the frame of the next or previous event: of one row's marks, or of the whole trace. */
export function findEvent(trace: Trace, frame: number, direction: 1 | -1, row?: TapeRow): number | undefined {
  if (row) {
    const frames = [...row.markFrame, ...row.spanFrom].sort((a, b) => a - b);
    return direction > 0 ? frames.find(at => at > frame) : frames.findLast(at => at < frame);
  }
  const first = direction > 0 ? firstNoteAfter(trace, frame) : firstNoteAfter(trace, frame - 1) - 1;
  for (let i = first; i >= 0 && i < trace.count; i += direction) if (isEvent(trace, i)) return trace.frame[i];
  return undefined;
}
