import type { Kit, Program, State } from "#core";
import type * as v from "valibot";

/** A path inside a stage document. */
export type StagePath = readonly (string | number)[];

/** A reference of a stage document to a part of the kit. */
export interface StageRef {
  readonly what: "control" | "gate" | "pattern" | "prompt";
  readonly id: string;
  readonly path: StagePath;
}

/** A number of an effect: its field, the words around it in a sentence, and its bounds. */
export interface EffectAmount {
  readonly field: string;
  readonly before: string;
  readonly after: string;
  readonly least?: number;
  readonly most?: number;
}

/**
 * An effect a move can have on a stage of one kind: its part of the kit's `effect` field, and its wording in
 * a sentence.
 */
export interface EffectKind {
  readonly schema: v.GenericSchema;
  /** The word in the sentence "On the stage it …", and its meaning. */
  readonly label: string;
  readonly hint: string;
  /** The initial effect when it is chosen. */
  readonly begins: Readonly<Record<string, unknown>>;
  /** The number shown in the sentence, with its words and bounds; absent if it has none. */
  readonly amount?: EffectAmount;
  /** A second number behind it. */
  readonly more?: EffectAmount;
  /**
   * Durations that it may have, with their words; where one is absent, the stage's own of the same name is in force, or none.
   */
  readonly lengths?: readonly { readonly field: string; readonly before: string }[];
  /** Numbers that it may have besides; where one is absent, the stage's own of the same name is in force. */
  readonly others?: readonly EffectAmount[];
  /** The field with its duration. */
  readonly lasts?: string;
  /** Returns whether an effect written in the kit is this one. */
  readonly isThis: (effect: Readonly<Record<string, unknown>>) => boolean;
}

/** A performed move, as passed to the bodies. */
export interface Performed {
  /** Its index in the program. */
  readonly move: number;
  /** The output of the fire it was performed for, 0 if it has none. */
  readonly output: number;
  /** The controls whose presses made it, the latest last, without those that had to be released for it. */
  readonly held: readonly number[];
}

/** The direct use of a control by a body, besides the rules. */
export interface BodyUse {
  /** As after the control's name: "walks left". */
  readonly words: string;
  /** Whether it does so only while some active pattern sees the control. */
  readonly isByRules: boolean;
  /** The gates that keep it from the body while one is open. */
  readonly halts: readonly string[];
}

/** A row of the tape for what a body of the stage does, read from its track. */
export interface StageRow {
  readonly id: string;
  readonly name: string;
  /** Its possible actions, and the look of a stretch of each: a part of a move, something open, or a box with its words. */
  readonly states: readonly {
    readonly words: string;
    readonly look: "startup" | "active" | "recovery" | "open" | "named";
  }[];
  /**
   * Returns the index into its states on the frame whose values begin at a place of a track, −1 for none. `before` is the
   * place of the frame before, negative on the first.
   */
  readonly stateAt: (track: ArrayLike<number>, at: number, before: number) => number;
}

/** The indices of controls and moves of one program in another, −1 for those that it lacks. */
export interface MovedIndices {
  readonly control: (index: number) => number;
  readonly move: (index: number) => number;
}

/**
 * The registry record of a kind of stage, apart from its drawing: `D` is its document, `P` its program (plain
 * data that can be sent to a worker), `B` its bodies after a frame.
 */
export interface StageKind<D, P, B> {
  readonly schema: v.GenericSchema<unknown, D>;
  /** Every control, gate, pattern and prompt the document names. */
  readonly refs: (document: D) => readonly StageRef[];
  /** The gates the stage opens. */
  readonly gates: (document: D) => readonly string[];
  /** The effects of moves on it, by name. */
  readonly effects: Readonly<Record<string, EffectKind>>;
  /** Returns the numbers and durations in force for effects that have none of their own, by field. */
  readonly effectDefaults?: (document: D) => Readonly<Record<string, number | string>>;
  /** The control that runs forward and the gate of the ground, on a stage that is run through. */
  readonly course?: (document: D) => { readonly control: string; readonly ground: string | undefined };
  /** How a body uses a control directly; undefined if it does not. */
  readonly usesControl?: (document: D, controlId: string) => BodyUse | undefined;
  /** The prompts for which the stage draws an answer. */
  readonly draws?: (document: D) => readonly StageRef[];
  /** Returns the factor by which the stage stretches a prompt's window and grades; absent means 1. */
  readonly easeOf?: (document: D, promptId: string) => number;
  /** Returns the kit to run, if the stage changes it. */
  readonly prepare?: (kit: Kit, document: D) => Kit;
  /**
   * `effects`: the effects of each move of the program, in their order. Ids the program lacks are ignored.
   */
  readonly compile: (
    document: D,
    kit: Kit,
    program: Program,
    effects: readonly (readonly Readonly<Record<string, unknown>>[])[],
  ) => P;
  readonly create: (program: P) => B;
  readonly copy: (bodies: B) => B;
  /**
   * Returns the same bodies for other rules of this kind of stage: where they are, and what they do. Their indices into the
   * lists of a program are moved to those of the new one. Absent: they hold no index.
   */
  readonly carry?: (bodies: B, moved: MovedIndices) => B;
  /** Opens and closes the gates of the bodies in the core, effective on the next frame. */
  readonly report: (program: P, bodies: B, state: State) => void;
  /** Returns the speed of the game clock on the next frame, in percent, if the stage changes the take's. */
  readonly speed?: (bodies: B, speedPercent: number) => number;
  /** Applies a performed move to the bodies. */
  readonly act: (program: P, bodies: B, performed: Performed) => void;
  /** Moves the bodies by one frame. `rules`: the program of the kit, whose state it is. */
  readonly step: (program: P, bodies: B, state: State, rateHz: number, rules: Program) => void;
  /**
   * Returns whether the next frame leaves the bodies unchanged if no control, gate, rule or speed changes.
   * Absent means it is never certain.
   */
  readonly isStill?: (bodies: B) => boolean;
  /** The rows of the tape for what its bodies do by themselves. */
  readonly rows?: readonly StageRow[];
  /** The number of values per frame in a track, and the function that writes them at an offset. */
  readonly trackStride: number;
  readonly writeTrack: (bodies: B, track: { [place: number]: number }, at: number) => void;
}

/** Returns a reference for each id that is written. */
export function refsOf(
  what: StageRef["what"],
  ids: Readonly<Record<string, string | undefined>>,
  path: StagePath,
): StageRef[] {
  return Object.entries(ids).flatMap(([field, id]) =>
    id === undefined ? [] : [{ what, id, path: [...path, field] }],
  );
}
