import type { PathStep } from "../formats/issue";
import type { Kit, PatternKind, PatternOf } from "../kit/schema";
import type { Starter } from "../kit/starter";
import type { PatternBase } from "../run/program";
import type { State } from "../run/state";
import type { Rounding } from "../time/duration";
import type { LapseReason } from "../trace/trace";
import type { CompileKind } from "./compileParts";
import type { DescribeKind, OfferKind } from "./describeParts";
import type { PatternStepper } from "./fire";
import type { Growth } from "./growth";

/** A number that made an attempt lapse: where it stands inside the pattern, and which way it would have to go. */
export interface PatternLever {
  readonly path: readonly PathStep[];
  /** The length in force where none is written there. */
  readonly base?: string;
  readonly rounding: Rounding;
  readonly direction: 1 | -1;
}

/** The end of a forming stretch that a hand may pull on the tape: the number in `field` follows. */
export interface PatternPull {
  readonly field: string;
  readonly rounding: Rounding;
  /** From where the frames are counted: the beginning of the attempt, or its last press. */
  readonly since: "start" | "last-press";
  /** Frames from the last that counts to the edge that is pulled: 1 where the number is the last frame that still counts. */
  readonly extra: 0 | 1;
  /** What the number means, for the words beside the hand: "held for". */
  readonly words: string;
}

/** A length inside a pattern that stands as an edge on the map of press lengths, and can be dragged there. */
export interface LengthEdge {
  readonly path: readonly PathStep[];
  readonly written: string;
  readonly rounding: Rounding;
  /** What it is: "longest tap". */
  readonly label: string;
}

/** Lengths of press, in frames at full speed, that end in a fire: both ends included; `to` may be without end. */
export interface AnsweredLengths {
  readonly from: number;
  readonly to: number;
}

/** What a kind says of itself to those who show, tune and study patterns. `P` its document, `G` its program. */
export interface PatternTraits<P, G> {
  /** Names of the numbers a fire carries, in the order of the payload. */
  readonly carries: readonly string[];
  /** The controls it is played with, by id; a direction stands for its stick's four. */
  readonly playedOn: (pattern: P, kit: Kit) => readonly string[];
  /** The maps of time that show and edit it, in their order. */
  readonly maps: readonly ("press-length" | "curve" | "taps" | "sequence")[];
  /** How an attempt grows; left out where it has no length to grow to. */
  readonly growth?: (pattern: G) => Growth;
  /** The lengths of press it answers; left out where length is not what it judges. */
  readonly answers?: (pattern: G) => AnsweredLengths;
  /** Can it fire because a control was let go, or after it was? Left out: never, what made a fire is held when it comes. */
  readonly firesLetGo?: (pattern: G) => boolean;
  /** The lengths that stand as edges on the map of press lengths, those that are written. */
  readonly edges?: (pattern: P) => readonly LengthEdge[];
  /** The fields that end and begin the lengths it answers. */
  readonly limits?: (pattern: P) => { readonly upper?: string; readonly lower?: string };
  /** The numbers that stood in the way when it lapsed for a reason. */
  readonly levers?: (pattern: P, why: LapseReason) => readonly PatternLever[];
  readonly pulls?: readonly PatternPull[];
  /** Taps or steps, one word each; and how many of them the attempt under way has made. */
  readonly rungs?: (pattern: P, kit: Kit) => readonly string[];
  readonly made?: (pattern: G, state: State) => number;
}

/** All there is to say of a kind of pattern besides its schema. `K` its name, `G` its program. */
export interface PatternKindRecord<K extends PatternKind, G extends PatternBase> extends PatternTraits<
  PatternOf<K>,
  G
> {
  readonly compile: CompileKind<K, G>;
  readonly stepper: PatternStepper<G>;
  readonly describe: DescribeKind<K>;
  readonly offer: OfferKind<K>;
  /** Ways to begin a rule of this kind. */
  readonly starters: readonly Starter[];
}

/** A field's length as an edge, where it is written. */
export function writtenEdge(
  field: string,
  written: string | undefined,
  rounding: Rounding,
  label: string,
): LengthEdge[] {
  return written === undefined ? [] : [{ path: [field], written, rounding, label }];
}
