import type { Kit, Program, State } from "#core";
import type * as v from "valibot";

/** A place inside a stage document. */
export type StagePath = readonly (string | number)[];

/** Something of the kit that a stage document names. */
export interface StageRef {
  readonly what: "control" | "gate" | "pattern" | "prompt";
  readonly id: string;
  readonly path: StagePath;
}

/** What a move can do on a stage of one kind: its part of the kit's `effect` field, and how a sentence says it. */
export interface EffectKind {
  readonly schema: v.GenericSchema;
  /** The word in the sentence "On the stage it …", and what it means. */
  readonly label: string;
  readonly hint: string;
  /** The effect as it begins when it is chosen. */
  readonly begins: Readonly<Record<string, unknown>>;
  /** The number a sentence shows, with the words before and after it and its bounds; undefined where it has none. */
  readonly amount?: {
    readonly field: string;
    readonly before: string;
    readonly after: string;
    readonly least?: number;
    readonly most?: number;
  };
  /** The field that says how long it lasts. */
  readonly lasts?: string;
  /** Is an effect written in the kit this one? */
  readonly isThis: (effect: Readonly<Record<string, unknown>>) => boolean;
}

/** A move that was performed, as bodies hear of it. */
export interface Performed {
  /** Its place in the program. */
  readonly move: number;
  /** The value of the fire it was performed for, 0 where that carries none. */
  readonly output: number;
  /** The controls whose presses made it, the youngest last; without those that had to be let go for it. */
  readonly held: readonly number[];
}

/**
 * All there is to say of a kind of stage but how it is drawn: `D` its document, `P` its program (plain data, so that it
 * can be sent to a worker), `B` its bodies as they stand after a frame.
 */
export interface StageKind<D, P, B> {
  readonly schema: v.GenericSchema<unknown, D>;
  /** Every control, gate, pattern and prompt the document names. */
  readonly refs: (document: D) => readonly StageRef[];
  /** The gates it opens by itself. */
  readonly gates: (document: D) => readonly string[];
  /** What moves can do on it, by name. */
  readonly effects: Readonly<Record<string, EffectKind>>;
  /** The kit whose rules are run, where the stage has a say in them. */
  readonly prepare?: (kit: Kit, document: D) => Kit;
  /** `effects`: what each move of the program does, undefined for nothing. Ids the program lacks are passed over. */
  readonly compile: (
    document: D,
    kit: Kit,
    program: Program,
    effects: readonly (Readonly<Record<string, unknown>> | undefined)[],
  ) => P;
  readonly create: (program: P) => B;
  readonly copy: (bodies: B) => B;
  /** Tells the core which gates the bodies hold open, from the next frame on. */
  readonly report: (program: P, bodies: B, state: State) => void;
  /** The speed of the game clock on the coming frame, percent, where the stage changes the take's. */
  readonly speed?: (bodies: B, speedPercent: number) => number;
  /** Acts on the bodies as a performed move says. */
  readonly act: (program: P, bodies: B, performed: Performed) => void;
  /** Moves the bodies by one frame. */
  readonly step: (program: P, bodies: B, state: State, rateHz: number) => void;
  /** Will the next frame leave the bodies as they are, if no control, gate, rule or speed changes? Left out: never sure. */
  readonly isStill?: (bodies: B) => boolean;
  /** How many numbers a track has for each frame, and what writes them from a place on. */
  readonly trackStride: number;
  readonly writeTrack: (bodies: B, track: { [place: number]: number }, at: number) => void;
}

/** Ids that are written, each as a reference; those left out are passed over. */
export function refsOf(
  what: StageRef["what"],
  ids: Readonly<Record<string, string | undefined>>,
  path: StagePath,
): StageRef[] {
  return Object.entries(ids).flatMap(([field, id]) =>
    id === undefined ? [] : [{ what, id, path: [...path, field] }],
  );
}
