import type { PathStep } from "../formats/issue";
import type { Kit, PatternKind, PatternOf } from "../kit/schema";
import type { Starter } from "../kit/starter";
import type { PatternBase } from "../program/program";
import type { State } from "../program/state";
import type { Rounding } from "../time/duration";
import type { LapseReason } from "../trace/trace";
import type { CompileKind } from "./compileParts";
import type { DescribeKind, OfferKind } from "./describeParts";
import type { PatternStepper } from "./fire";
import type { Growth } from "./growth";
import type { LengthOf, Script } from "./scripts";

/** The numbers that a fire's payload can have, by name. */
export type PayloadName = "repeat" | "held" | "age" | "ratio" | "level" | "value" | "count";

/** A fire's payload, as in a trace file. */
export type Payload = Readonly<Partial<Record<PayloadName, number>>>;

/** A pattern that runs but can never do its work: it never fires, or a charge is never full. */
export type PatternWarning =
  | { readonly code: "never-fires"; readonly reason: string }
  | { readonly code: "never-full"; readonly field: string; readonly limit: number; readonly full: number };

/**
 * A number that caused a lapse: its path inside the pattern, and the direction in which it would have to
 * change.
 */
export interface PatternLever {
  readonly path: readonly PathStep[];
  /** The default length if none is written. */
  readonly base?: string;
  readonly rounding: Rounding;
  readonly direction: 1 | -1;
}

/** The end of a forming stretch that can be dragged on the tape; the number in `field` follows. */
export interface PatternPull {
  readonly field: string;
  readonly rounding: Rounding;
  /** The origin of the frame count: the start of the attempt, or its last press. */
  readonly since: "start" | "last-press";
  /**
   * Frames from the last counting frame to the dragged edge: 1 if the number is the last frame that still
   * counts.
   */
  readonly extra: 0 | 1;
  /** A label for the number, shown beside the pointer: "held for". */
  readonly words: string;
}

/** A length of a pattern that appears as a draggable edge on the map of press lengths. */
export interface LengthEdge {
  readonly path: readonly PathStep[];
  readonly written: string;
  readonly rounding: Rounding;
  /** Its label: "longest tap". */
  readonly label: string;
}

/**
 * The press lengths that end in a fire, in frames at full speed, both ends included; `to` may be Infinity.
 */
export interface AnsweredLengths {
  readonly from: number;
  readonly to: number;
}

/**
 * The traits of a kind for code that draws, tries and studies patterns; a game that runs the core without
 * screens does without them. `P` is its document, `G` its program.
 */
export interface PatternStudy<P, G> {
  /** Formats a fire's payload as words that follow "fired"; absent if there is nothing to add. */
  readonly firedWords?: (payload: Payload) => string;
  /** Whether an attempt grows with input, so that it has a meter; `body`: also over the body on a stage. */
  readonly meter: "body" | "own" | "none";
  /** The action in a prompt that asks for it: "hold". */
  readonly promptWord: string;
  /** The controls in a prompt that asks for it, in order and as often as required, by index. */
  readonly wanted: (pattern: G) => readonly number[];
  /** Inputs intended to set it off, made of its own boundaries. Only a run shows whether they do. */
  readonly scripts: (pattern: P, kit: Kit, lengthOf: LengthOf) => readonly Script[];
  /** How long all of its controls must be held together to fire it, in frames; absent if that is not enough. */
  readonly pressFrames?: (pattern: P, lengthOf: LengthOf) => number;
  /** Whether its presses are made one after the other, or meant together. */
  readonly presses?: "apart" | "together";
  /** The controls that must be held down, by id. */
  readonly held?: (pattern: P) => readonly string[];
  /** Fields with windows, in addition to those that every kind may have. */
  readonly windowFields?: readonly string[];
  /** The field with the gap between taps of one control. */
  readonly tapGapField?: string;
  /** Returns the hold that an assist puts in its place. */
  readonly toHold?: (pattern: P) => PatternOf<"hold">;
  /** Returns a warning if it can never do its work. */
  readonly warn?: (pattern: G) => PatternWarning | undefined;
  /** Returns why a fire can never meet a move's condition, following the pattern's name; −1 is no condition. */
  readonly whyNever?: (pattern: G, count: number, level: number) => string | undefined;
}

/**
 * The traits of a kind, for code that shows, tunes and studies patterns. `P` is its document, `G` its
 * program.
 */
export interface PatternTraits<P, G> extends PatternStudy<P, G> {
  /** The names of the numbers in a fire's payload, in order. */
  readonly carries: readonly PayloadName[];
  /** The controls that play it, by id; a direction contributes its stick's four. */
  readonly playedOn: (pattern: P, kit: Kit) => readonly string[];
  /** The maps of time that show and edit it, in order. */
  readonly maps: readonly ("press-length" | "curve" | "taps" | "sequence")[];
  /** The growth of an attempt; absent if it has no length to grow to. */
  readonly growth?: (pattern: G) => Growth;
  /** The press lengths it answers; absent if it does not judge length. */
  readonly answers?: (pattern: G) => AnsweredLengths;
  /** Whether it can fire on or after a release. Absent means never: every fire's controls are held. */
  readonly firesLetGo?: (pattern: G) => boolean;
  /** The written lengths that appear as edges on the map of press lengths. */
  readonly edges?: (pattern: P) => readonly LengthEdge[];
  /** The fields that bound the lengths it answers. */
  readonly limits?: (pattern: P) => { readonly upper?: string; readonly lower?: string };
  /** The numbers that caused a lapse for a reason. */
  readonly levers?: (pattern: P, why: LapseReason) => readonly PatternLever[];
  readonly pulls?: readonly PatternPull[];
  /** The labels of its taps or steps. */
  readonly rungs?: (pattern: P, kit: Kit) => readonly string[];
  /** The taps, steps, presses or controls that an attempt has made, and their total. */
  readonly made?: (pattern: G, state: State) => number;
  readonly total?: (pattern: G) => number;
  /** The share of a held attempt that its control's age does not give, 0 to 1; undefined while not held. */
  readonly heldRatio?: (pattern: G, state: State) => number | undefined;
}

/** The registry record of a kind of pattern, apart from its schema. `K` is its name, `G` its program. */
export interface PatternKindRecord<K extends PatternKind, G extends PatternBase> extends PatternTraits<
  PatternOf<K>,
  G
> {
  readonly compile: CompileKind<K, G>;
  readonly stepper: PatternStepper<G>;
  readonly describe: DescribeKind<K>;
  readonly offer: OfferKind<K>;
  /** Starting points for a new rule of this kind. */
  readonly starters: readonly Starter[];
}

/** Returns a field's length as an edge, if it is written. */
export function writtenEdge(
  field: string,
  written: string | undefined,
  rounding: Rounding,
  label: string,
): LengthEdge[] {
  return written === undefined ? [] : [{ path: [field], written, rounding, label }];
}
