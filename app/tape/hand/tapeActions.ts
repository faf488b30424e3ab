import { formatMs, parseFrames, readAt, writeAt, type Take, type Trace } from "#core";
import { judgeTake } from "../../judging/judged";
import { goToFrame, playFrom, playhead } from "../../document/playhead";
import { copyStretch, pasteClip, shiftStretch, wipeStretch, type TakeClip } from "../../edits/takeClips";
import { paintControl, paintGate, paintSpeed } from "../../edits/takeEdits";
import {
  beginGesture,
  compileOnce,
  editKit,
  editTake,
  workbench,
  type Evaluated,
  type Gesture,
} from "../../document/workbench";
import { stepLength } from "../../ui/lengthText";
import type { TapeHandle } from "../model/handles";
import type { StrokeResult } from "./stroke";
import type { TapeRow } from "../model/tapeRows";
import { tapeLook } from "../tapeLook";

/** The open take as the kit now stands judges it, outside React. */
export function evaluatedNow(): Evaluated | undefined {
  const { kit, takes, openTakeId } = workbench.getState();
  const { program } = compileOnce(kit);
  const take = takes.find(item => item.id === openTakeId);
  return program && take ? judgeTake(program, take) : undefined;
}

let gesture: Gesture | undefined;

/** Begins to pull the end of a window: what the tape shows now is kept, to mark changes against. */
export function beginPull(): void {
  const now = evaluatedNow();
  if (!now) return;
  gesture = beginGesture();
  tapeLook.setState({ before: { takeId: now.take.id, trace: now.trace, program: now.program } });
}

/** Pulls a window to so many frames: the number in the rule follows, and the take is run again. Gives the words beside the hand. */
export function pullTo(handle: TapeHandle, frames: number): string {
  const { kit } = workbench.getState();
  if (!kit || !gesture) return "";
  const found = readAt(kit, handle.path);
  const current = typeof found === "string" ? found : "0f";
  const by = frames - (parseFrames(current, kit.rate, handle.rounding) ?? 0);
  if (by !== 0) {
    const next = stepLength(current, by, kit.rate, handle.rounding, handle.least);
    editKit(`pulled to ${next}`, now => writeAt(now, handle.path, next));
    gesture.edited();
  }
  return `${handle.words} ${frames}f · ${formatMs(frames, kit.rate)}`;
}

/** Ends a pull; broken off, everything is as it was. */
export function endPull(isCancelled: boolean): void {
  if (!gesture) return;
  if (isCancelled) {
    gesture.cancel();
    tapeLook.setState({ before: undefined });
  } else gesture.end();
  gesture = undefined;
}

/** Any edit that is not part of a pull takes the marks of the last one away. */
workbench.subscribe((now, before) => {
  if (gesture || (now.kit === before.kit && now.takes === before.takes)) return;
  tapeLook.setState({ before: undefined });
});

/** Paints what a stroke came to onto the open take. */
export function applyStroke(row: TapeRow, result: StrokeResult): void {
  const now = evaluatedNow();
  if (!now) return;
  const { take, program } = now;
  const toX = (frame: number) => (frame * take.rate) / program.rateHz;
  if (row.group === "time") {
    const percent = tapeLook.getState().brushPercent;
    editTake("painted the speed", take.id, was => {
      const wiped =
        result.wipeTo > result.wipeFrom
          ? paintSpeed(was, toX(result.wipeFrom), toX(result.wipeTo), 100)
          : was;
      return result.fillTo > result.fillFrom
        ? paintSpeed(wiped, toX(result.fillFrom), toX(result.fillTo), percent)
        : wiped;
    });
    return;
  }
  const paint = row.group === "gates" ? paintGate : paintControl;
  editTake(`painted ${row.name}`, take.id, was => {
    const wiped =
      result.wipeTo > result.wipeFrom
        ? paint(was, row.id, toX(result.wipeFrom), toX(result.wipeTo), false)
        : was;
    return result.fillTo > result.fillFrom
      ? paint(wiped, row.id, toX(result.fillFrom), toX(result.fillTo), true)
      : wiped;
  });
}

let clipboard: TakeClip | undefined;

/** What can be done with a stretch of the open take. */
export type StretchAct = "cut" | "copy" | "paste" | "earlier" | "later" | "repeat" | "wipe";

/** Does one of these with the stretch that is set; pasting lays the clip from the playhead on. Each is one step of undo. */
export function actOnStretch(act: StretchAct): void {
  const now = evaluatedNow();
  const { stretch } = tapeLook.getState();
  if (!now || (act === "paste" ? !clipboard : !stretch)) return;
  const { take, program } = now;
  const toX = (frame: number) => (frame * take.rate) / program.rateHz;
  const fromX = toX(stretch?.from ?? 0);
  const endX = toX((stretch?.to ?? 0) + 1);
  const clip = act === "paste" ? clipboard! : copyStretch(take, fromX, endX);
  const edit = (what: string, change: (was: Take) => Take) => editTake(what, take.id, change);
  const shift = (by: number) => {
    const { from, to } = stretch!;
    if (from + by < 0) return;
    edit("shifted a stretch", was => shiftStretch(was, fromX, endX, toX(by)));
    tapeLook.setState({ stretch: { from: from + by, to: to + by } });
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
      edit("pasted a stretch", was => pasteClip(was, clip, toX(playhead.getState().frame)));
      break;
    case "repeat":
      edit("repeated a stretch", was => pasteClip(was, clip, endX));
      break;
    case "earlier":
      return shift(-1);
    case "later":
      return shift(1);
  }
}

/** The frame of the next or last event after or before a frame; of one row's marks, or of the whole trace. */
export function findEvent(trace: Trace, frame: number, direction: 1 | -1, row?: TapeRow): number | undefined {
  const frames = row
    ? [...row.markFrame, ...row.spanFrom].sort((a, b) => a - b)
    : [...trace.frame.subarray(0, trace.count)];
  return direction > 0 ? frames.find(at => at > frame) : frames.findLast(at => at < frame);
}

let stop: (() => void) | undefined;

/** Starts or stops the replay, at the speed and over the stretch that are set. */
export function toggleReplay(): void {
  const now = evaluatedNow();
  if (playhead.getState().isPlaying) return stop?.();
  if (!now || now.trace.frames === 0) return;
  const { speed, stretch, isLooping } = tapeLook.getState();
  stop = playFrom(now.program.rateHz, now.trace.frames, { speed, loop: isLooping ? stretch : undefined });
}

/** Moves the playhead by frames. */
export function stepBy(frames: number): void {
  const now = evaluatedNow();
  if (now) goToFrame(playhead.getState().frame + frames, now.trace.frames);
}
