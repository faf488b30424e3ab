import { goToFrame, playhead } from "../../document/playhead";
import { arrangeTape, workbench } from "../../document/workbench";
import { foldRows, moveRow } from "../model/arrangeRows";
import {
  actOnStretch,
  applyStroke,
  evaluatedNow,
  findEvent,
  stepBy,
  toggleReplay,
  type StretchAct,
} from "./tapeActions";
import { isPaintable } from "./stroke";
import type { TapeController } from "./tapeController";
import type { TapeModel } from "../model/tapeRows";
import { SPEEDS, tapeLook } from "../tapeLook";

/** What a stretch can be told by key. */
const STRETCH_KEYS: Readonly<Record<string, StretchAct>> = {
  x: "cut",
  c: "copy",
  v: "paste",
  "<": "earlier",
  ",": "earlier",
  ">": "later",
  ".": "later",
  r: "repeat",
  delete: "wipe",
};

/** What the tape's keys act on. */
export interface TapeKeysTarget {
  /** The rows as they are shown, and all there are. */
  readonly model: TapeModel;
  readonly whole: TapeModel;
  readonly controller: TapeController;
  readonly row: number;
  readonly chooseRow: (row: number) => void;
  readonly openFate: (row: number, frame: number) => void;
  readonly openSheet: () => void;
}

function jump(target: TapeKeysTarget, direction: 1 | -1, isOwnRow: boolean): void {
  const now = evaluatedNow();
  const row = isOwnRow ? target.model.rows[target.row] : undefined;
  const frame = now && findEvent(now.trace, playhead.getState().frame, direction, row);
  if (frame !== undefined) goToFrame(frame, target.model.frames);
}

/** One key for three turns: begin a stretch, end it, let it go. */
function turnStretch(): void {
  const { frame } = playhead.getState();
  const { stretch } = tapeLook.getState();
  if (!stretch) tapeLook.setState({ stretch: { from: frame, to: frame } });
  else if (stretch.from === stretch.to && frame !== stretch.from) {
    tapeLook.setState({
      stretch: { from: Math.min(frame, stretch.from), to: Math.max(frame, stretch.from) },
    });
  } else tapeLook.setState({ stretch: undefined, isLooping: false });
}

function zoomToStretch({ controller, model }: TapeKeysTarget): void {
  const { stretch } = tapeLook.getState();
  const { from, to } = stretch ?? { from: 0, to: model.frames - 1 };
  controller.showFrames(from, to);
}

/** Paints or wipes one frame's press on the chosen row. */
function paintHere({ model, row }: TapeKeysTarget, isDown: boolean): void {
  const found = model.rows[row];
  const { frame } = playhead.getState();
  if (!found || !isPaintable(found)) return;
  const span = found.spanFrom.findLastIndex(
    (from, k) => from <= frame && frame < found.spanTo[k]! && found.spanLook[k] !== "forgiven",
  );
  if (isDown) applyStroke(found, { wipeFrom: frame, wipeTo: frame, fillFrom: frame, fillTo: frame + 1 });
  else if (span >= 0)
    applyStroke(found, {
      wipeFrom: found.spanFrom[span]!,
      wipeTo: found.spanTo[span]!,
      fillFrom: 0,
      fillTo: 0,
    });
}

function moveChosenRow({ whole, model, row, chooseRow }: TapeKeysTarget, by: 1 | -1): void {
  chooseRow(row);
  arrangeTape(was => moveRow(was, whole.rows, model.rows, row, by));
}

function foldGroupOf({ model, row, chooseRow }: TapeKeysTarget): void {
  const group = model.rows[row]?.group;
  if (!group || group === "time") return;
  arrangeTape(was => foldRows(was, group));
  chooseRow(model.rows.findIndex(item => item.group === group));
}

/** The next variant laid over the take; after the last, none. */
function layNextVariantOver(): void {
  const { variants } = workbench.getState();
  const at = variants.findIndex(variant => variant.id === tapeLook.getState().laidOver);
  tapeLook.setState({ laidOver: variants[at + 1]?.id });
}

/** Does what a key of the tape does; false when the key is none of them. */
export function pressTapeKey(
  { key, shiftKey: isShift, altKey: isAlt }: Pick<KeyboardEvent, "key" | "shiftKey" | "altKey">,
  target: TapeKeysTarget,
): boolean {
  const { controller, model } = target;
  const { frame } = playhead.getState();
  const act = STRETCH_KEYS[key.toLowerCase()];
  const isPainting = tapeLook.getState().tool === "paint";
  const speed = /^[1-5]$/.test(key) ? SPEEDS[Number(key) - 1] : undefined;
  if (act) actOnStretch(act);
  else if (speed !== undefined) tapeLook.setState({ speed });
  else if (key === "ArrowLeft" || key === "ArrowRight")
    stepBy((key === "ArrowRight" ? 1 : -1) * (isShift ? 10 : 1));
  else if (key === "[" || key === "]") jump(target, key === "]" ? 1 : -1, false);
  else if (key === "{" || key === "}") jump(target, key === "}" ? 1 : -1, true);
  else if (isAlt && (key === "ArrowUp" || key === "ArrowDown"))
    moveChosenRow(target, key === "ArrowUp" ? -1 : 1);
  else if (key === "g" || key === "G") foldGroupOf(target);
  else if (key === "o" || key === "O") layNextVariantOver();
  else if (key === "t" || key === "T") tapeLook.setState(look => ({ showsStrips: !look.showsStrips }));
  else if (key === "ArrowUp") target.chooseRow(Math.max(0, target.row - 1));
  else if (key === "ArrowDown") target.chooseRow(Math.min(model.rows.length - 1, target.row + 1));
  else if (key === "Enter") target.openFate(target.row, playhead.getState().frame);
  else if (key === "Home") goToFrame(0, model.frames);
  else if (key === "End") goToFrame(model.frames - 1, model.frames);
  else if (key === " ") toggleReplay();
  else if (key === "s" || key === "S") turnStretch();
  else if (key === "z" || key === "Z") zoomToStretch(target);
  else if (key === "l" || key === "L")
    tapeLook.setState(look => ({ isLooping: !look.isLooping && look.stretch !== undefined }));
  else if (key === "+" || key === "=") controller.zoom(1.25);
  else if (key === "-") controller.zoom(0.8);
  else if (key === "p" || key === "P") tapeLook.setState({ tool: isPainting ? "look" : "paint" });
  else if ((key === "f" || key === "F") && isPainting) paintHere(target, true);
  else if (key === "Backspace" && isPainting) paintHere(target, false);
  else if (key === "?") target.openSheet();
  else return false;
  if (playhead.getState().frame !== frame) controller.reveal(playhead.getState().frame);
  return true;
}
