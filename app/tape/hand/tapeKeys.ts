import { notes } from "#core";
import { SPEEDS } from "../../document/playback";
import type { StoreApi } from "zustand/vanilla";
import type { Checking } from "../../document/checking";
import type { Evaluation } from "../../document/evaluation";
import type { Playback } from "../../document/playback";
import type { Workbench } from "../../document/workbench";
import type { PageTape } from "./context";
import { foldRows, moveRow } from "../model/arrangeRows";
import { mostInformativeNote } from "../model/mostInformativeNote";
import { isPaintable } from "../model/stroke";
import type { TapeModel } from "../model/tapeRows";
import { findEvent, type StretchAct } from "./tapeActions";
import type { TapeController } from "./tapeController";

/** The objects the tape's keys act on. */
export interface TapeKeysTarget {
  readonly desk: {
    readonly workbench: Workbench;
    readonly evaluation: StoreApi<Evaluation>;
    readonly playback: Playback;
    readonly checking: Checking;
  };
  readonly tape: PageTape;
  /** The rows as shown, and all rows. */
  readonly model: TapeModel;
  readonly whole: TapeModel;
  readonly controller: TapeController;
  readonly row: number;
  readonly chooseRow: (row: number) => void;
  readonly openFate: (row: number, frame: number) => void;
  readonly openSheet: () => void;
}

type Pressed = Pick<KeyboardEvent, "key" | "shiftKey" | "altKey">;

/** One action of the tape: its keys as shown in the list of keys, its description, and its function. */
interface TapeKey {
  readonly shown: string;
  readonly words: string;
  /** Keys as events name them; letters in either case. */
  readonly keys: readonly string[];
  readonly needsAlt?: boolean;
  readonly whilePainting?: boolean;
  readonly act: (target: TapeKeysTarget, pressed: Pressed) => void;
}

function jump({ desk, model, row }: TapeKeysTarget, direction: 1 | -1, isOwnRow: boolean): void {
  const { evaluated } = desk.evaluation.getState();
  const { frame } = desk.playback.getState();
  const found =
    evaluated && findEvent(evaluated.trace, frame, direction, isOwnRow ? model.rows[row] : undefined);
  if (found !== undefined) desk.playback.goTo(found);
}

/** Starts, ends or clears a stretch, in turn. */
function turnStretch({ desk: { playback } }: TapeKeysTarget): void {
  const { frame, stretch } = playback.getState();
  if (!stretch) playback.setState({ stretch: { from: frame, to: frame } });
  else if (stretch.from === stretch.to && frame !== stretch.from) {
    const [from, to] = [Math.min(frame, stretch.from), Math.max(frame, stretch.from)];
    playback.setState({ stretch: { from, to } });
  } else playback.setState({ stretch: undefined, isLooping: false });
}

function zoomToStretch({ desk, controller, model }: TapeKeysTarget): void {
  const { from, to } = desk.playback.getState().stretch ?? { from: 0, to: model.frames - 1 };
  controller.showFrames(from, to);
}

/** Paints or clears one frame of the selected row. */
function paintHere({ desk, tape, model, row }: TapeKeysTarget, isDown: boolean): void {
  const found = model.rows[row];
  const { frame } = desk.playback.getState();
  if (!found || !isPaintable(found)) return;
  const fill = { wipeFrom: frame, wipeTo: frame, fillFrom: frame, fillTo: frame + 1 };
  if (isDown) return tape.actions.applyStroke(found, fill);
  const span = found.spanFrom.findLastIndex(
    (from, k) => from <= frame && frame < found.spanTo[k]! && found.spanLook[k] !== "forgiven",
  );
  if (span < 0) return;
  const [wipeFrom, wipeTo] = [found.spanFrom[span]!, found.spanTo[span]!];
  tape.actions.applyStroke(found, { wipeFrom, wipeTo, fillFrom: 0, fillTo: 0 });
}

function moveChosenRow(target: TapeKeysTarget, by: 1 | -1): void {
  const { desk, whole, model, row, controller } = target;
  target.chooseRow(row);
  desk.workbench.updateKitSettings(settings => moveRow(settings, whole.rows, model.rows, row, by));
  controller.revealRow(row + by);
}

function foldGroupOf({ desk, model, row, chooseRow }: TapeKeysTarget): void {
  const group = model.rows[row]?.group;
  if (!group || group === "time") return;
  desk.workbench.updateKitSettings(settings => foldRows(settings, group));
  chooseRow(model.rows.findIndex(item => item.group === group));
}

/** Shows the next variant for comparison; after the last one, none. */
function layNextVariantOver({ desk, tape: { look } }: TapeKeysTarget): void {
  const { variants } = desk.workbench.getState();
  const at = variants.findIndex(variant => variant.id === look.getState().laidOver);
  look.setState({ laidOver: variants[at + 1]?.id });
}

const stepBy =
  (by: number) =>
  ({ desk: { playback } }: TapeKeysTarget, { shiftKey }: Pressed) =>
    playback.goTo(playback.getState().frame + by * (shiftKey ? 10 : 1));

/**
 * Creates a check from the event on this frame: that of the selected row, or else the most informative one.
 */
function checkHere({ desk, model, row }: TapeKeysTarget, way: "mustHappen" | "mustNever"): void {
  const { frame } = desk.playback.getState();
  const { evaluated } = desk.evaluation.getState();
  const here = model.rows[row];
  if (!evaluated) return desk.checking[way](undefined);
  const { trace } = evaluated;
  const own = here?.markNote.find(
    (note, k) => note >= 0 && here.markFrame[k] === frame && trace.kind[note] !== notes.edge.code,
  );
  desk.checking[way](own ?? mostInformativeNote(trace, frame));
}

/**
 * Creates the check that every press is answered, for the control of the selected row or of the selected
 * press.
 */
function checkAnswers({ desk, tape, model, row }: TapeKeysTarget): void {
  const controls = desk.evaluation.getState().evaluated?.program.controls ?? [];
  const place = tape.look.getState().fate?.control;
  const here = model.rows[row];
  const control = place === undefined ? controls.find(item => item.id === here?.id) : controls[place];
  if (control) desk.checking.mustAnswer(control.id);
}

const onStretch =
  (act: StretchAct) =>
  ({ tape }: TapeKeysTarget) =>
    tape.actions.actOnStretch(act);

/** Every action of the tape with its keys, from which the key handling and the list of keys are derived. */
export const TAPE_KEYS: readonly TapeKey[] = [
  { shown: "←", words: "one frame back; with Shift ten", keys: ["ArrowLeft"], act: stepBy(-1) },
  { shown: "→", words: "one frame on; with Shift ten", keys: ["ArrowRight"], act: stepBy(1) },
  { shown: "[", words: "last event of any row", keys: ["["], act: target => jump(target, -1, false) },
  { shown: "]", words: "next event of any row", keys: ["]"], act: target => jump(target, 1, false) },
  { shown: "{", words: "last event of the chosen row", keys: ["{"], act: target => jump(target, -1, true) },
  { shown: "}", words: "next event of the chosen row", keys: ["}"], act: target => jump(target, 1, true) },
  {
    shown: "Alt ↑",
    words: "move the chosen row up in its group",
    keys: ["ArrowUp"],
    needsAlt: true,
    act: target => moveChosenRow(target, -1),
  },
  {
    shown: "Alt ↓",
    words: "move the chosen row down in its group",
    keys: ["ArrowDown"],
    needsAlt: true,
    act: target => moveChosenRow(target, 1),
  },
  {
    shown: "↑",
    words: "choose the row above",
    keys: ["ArrowUp"],
    act: ({ chooseRow, row }) => chooseRow(Math.max(0, row - 1)),
  },
  {
    shown: "↓",
    words: "choose the row below",
    keys: ["ArrowDown"],
    act: ({ chooseRow, row, model }) => chooseRow(Math.min(model.rows.length - 1, row + 1)),
  },
  { shown: "G", words: "fold the group of the chosen row, or unfold it", keys: ["g"], act: foldGroupOf },
  {
    shown: "O",
    words: "lay the next variant of the rules over the take, or none",
    keys: ["o"],
    act: layNextVariantOver,
  },
  {
    shown: "T",
    words: "the other takes as strips beside this one, or not",
    keys: ["t"],
    act: ({ tape: { look } }) => look.setState({ showsStrips: !look.getState().showsStrips }),
  },
  {
    shown: "Enter",
    words: "what became of the press on this frame in the chosen row",
    keys: ["Enter"],
    act: ({ openFate, row, desk }) => openFate(row, desk.playback.getState().frame),
  },
  { shown: "Home", words: "first frame", keys: ["Home"], act: ({ desk }) => desk.playback.goTo(0) },
  {
    shown: "End",
    words: "last frame",
    keys: ["End"],
    act: ({ desk, model }) => desk.playback.goTo(model.frames - 1),
  },
  { shown: "Space", words: "replay, or stop", keys: [" "], act: ({ desk }) => desk.playback.toggle() },
  {
    shown: "1 … 5",
    words: "replay at 1/8, 1/4, 1/2, 1 or 2 times",
    keys: ["1", "2", "3", "4", "5"],
    act: ({ desk }, { key }) => desk.playback.setState({ speed: SPEEDS[Number(key) - 1]! }),
  },
  {
    shown: "S",
    words: "begin a stretch here; again: end it here; again: let it go",
    keys: ["s"],
    act: turnStretch,
  },
  { shown: "Z", words: "zoom to the stretch, or to the whole take", keys: ["z"], act: zoomToStretch },
  {
    shown: "L",
    words: "loop the stretch",
    keys: ["l"],
    act: ({ desk: { playback } }) => {
      const { isLooping, stretch } = playback.getState();
      playback.setState({ isLooping: !isLooping && stretch !== undefined });
    },
  },
  { shown: "X", words: "cut the stretch", keys: ["x"], act: onStretch("cut") },
  { shown: "C", words: "copy the stretch", keys: ["c"], act: onStretch("copy") },
  { shown: "V", words: "paste it from this frame on", keys: ["v"], act: onStretch("paste") },
  { shown: ",", words: "shift the stretch a frame earlier", keys: [",", "<"], act: onStretch("earlier") },
  { shown: ".", words: "shift the stretch a frame later", keys: [".", ">"], act: onStretch("later") },
  { shown: "R", words: "repeat the stretch after itself", keys: ["r"], act: onStretch("repeat") },
  { shown: "Delete", words: "erase the stretch", keys: ["Delete"], act: onStretch("wipe") },
  { shown: "+", words: "nearer", keys: ["+", "="], act: ({ controller }) => controller.zoom(1.25) },
  { shown: "−", words: "farther", keys: ["-"], act: ({ controller }) => controller.zoom(0.8) },
  {
    shown: "P",
    words: "paint, or look again",
    keys: ["p"],
    act: ({ tape: { look } }) => look.setState({ tool: look.getState().tool === "paint" ? "look" : "paint" }),
  },
  {
    shown: "F",
    words: "press here for one frame in the chosen row (painting)",
    keys: ["f"],
    whilePainting: true,
    act: target => paintHere(target, true),
  },
  {
    shown: "Backspace",
    words: "erase the press on this frame in the chosen row (painting)",
    keys: ["Backspace"],
    whilePainting: true,
    act: target => paintHere(target, false),
  },
  {
    shown: "M",
    words: "a check: what happens on this frame must happen here",
    keys: ["m"],
    act: target => checkHere(target, "mustHappen"),
  },
  {
    shown: "N",
    words: "a check: what happens on this frame must never happen",
    keys: ["n"],
    act: target => checkHere(target, "mustNever"),
  },
  {
    shown: "A",
    words: "a check: every press of this control is answered",
    keys: ["a"],
    act: checkAnswers,
  },
  {
    shown: "K",
    words: "a check: this take stays as it is",
    keys: ["k"],
    act: ({ desk }) => desk.checking.mustStay(),
  },
  { shown: "?", words: "this sheet", keys: ["?"], act: ({ openSheet }) => openSheet() },
];

/** Returns the action of a pressed key, or undefined. */
function findKey(pressed: Pressed, isPainting: boolean): TapeKey | undefined {
  const key = pressed.key.length === 1 ? pressed.key.toLowerCase() : pressed.key;
  return TAPE_KEYS.find(
    item =>
      item.keys.includes(key) && (!item.needsAlt || pressed.altKey) && (!item.whilePainting || isPainting),
  );
}

/** Runs the action of a pressed key; false if it has none. */
export function pressTapeKey(pressed: Pressed, target: TapeKeysTarget): boolean {
  const { playback } = target.desk;
  const { frame } = playback.getState();
  const found = findKey(pressed, target.tape.look.getState().tool === "paint");
  if (!found) return false;
  found.act(target, pressed);
  if (playback.getState().frame !== frame) target.controller.reveal(playback.getState().frame);
  return true;
}
