import {
  CHARACTERS,
  type Character,
  type FittedCharacter,
  type GoalCell,
  type Kit,
  type Overlaps,
  type PressShare,
  type Swept,
  type SweepPoint,
  type Take,
  type TakeFeel,
} from "#core";
import type { PlayedHands } from "../judging/jobs/hands";
import type { SpreadPoint } from "../judging/jobs/spread";
import type { Stories } from "../judging/jobs/stories";

/** The studies of a kit by name, with the types of their results. */
export interface StudyResults {
  readonly feel: readonly TakeFeel[];
  /** The points of each question, group by group; undefined until it has an answer. */
  readonly sweep: readonly (readonly SweepPoint[] | undefined)[];
  /** One result for each column: each group of takes, by each compared character. */
  readonly hands: readonly (PlayedHands | undefined)[];
  /** The cells of each row of the field, group by group; undefined until it has an answer. */
  readonly goal: readonly (readonly GoalCell[] | undefined)[];
  readonly fit: FittedCharacter | undefined;
  readonly spread: readonly SpreadPoint[];
  readonly rates: Stories;
  readonly overlaps: Overlaps;
  readonly variants: Stories;
}

export type StudyName = keyof StudyResults;

/** A text that a take may have about its recording. */
export type TakeLabel = "player" | "device" | "session";

/** The groups of takes that a study shows side by side; "none" for all takes together. */
export type TakeGroups = "none" | TakeLabel | "take";

/** The takes a study applies to. */
export type TakeSelection =
  | { readonly kind: "all" }
  | { readonly kind: "open" }
  | { readonly kind: TakeLabel; readonly name: string }
  | { readonly kind: "chosen"; readonly ids: readonly string[] };

/**
 * A filter of takes: all, those of one player or device, or those with a note; optionally containing some
 * words.
 */
export interface TakeFilter {
  readonly by: string;
  readonly words: string;
}

/** A number or a group of the kit that can be swept, in words. */
export interface SweptChoice {
  readonly key: string;
  readonly words: string;
  /** Its rule and its role; for a group its name. */
  readonly name: string;
  readonly swept: Swept;
  readonly present: number;
  readonly least: number;
}

/** The range of a sweep, both ends included. */
export interface SweepRange {
  readonly from: number;
  readonly to: number;
}

/** A sweep as it was started, for the labels of its results. */
export interface DrawnSweep {
  readonly choice: SweptChoice;
  readonly two: SweptChoice | undefined;
  /** The values of the number, and of the second one. */
  readonly values: readonly number[];
  readonly rows: readonly number[];
  /** The name of the character that repeated the takes; empty for takes as recorded. */
  readonly hand: string;
  /** The repetitions of each take, and the seed of the first. */
  readonly plays: number;
  readonly seed: number;
  /** The names of the groups of takes; none for all takes together. */
  readonly groups: readonly string[];
}

/** A simulated player: a character that plays under a version of the kit. */
export interface SimulatedHand {
  readonly character: Character;
  /** A version of the kit, by its value in `listVersions`. */
  readonly version: string;
}

/** The value of the present rules among the versions of a kit. */
export const PRESENT_VERSION = "now";
/** The value for takes as recorded among the characters of a sweep. */
export const AS_RECORDED = "none";

/** The choice that each group of takes is played by the character fitted to it, among the names of characters. */
export const OWN_HANDS = "own";

/** A character fitted to takes, with these takes: it has the aims of their presses. */
export interface FittedHand extends FittedCharacter {
  readonly takes: readonly Take[];
}

/** A column of the result of Hands: a group of takes, empty for all, and the hand that plays them. */
export interface HandsColumn {
  readonly group: string;
  readonly hand: string;
}

/** The question that a result of Hands answers. */
export interface HandsAsked {
  readonly groups: TakeGroups;
  readonly isOwnHand: boolean;
  readonly one: SimulatedHand;
  readonly two: SimulatedHand | undefined;
  readonly seed: number;
  readonly count: number;
  readonly control: string;
}

/** The question that a result of Goal answers. Shares are in percent. */
export interface GoalAsked {
  readonly groups: readonly string[];
  readonly isOwnHand: boolean;
  readonly one: SweptChoice;
  readonly two: SweptChoice | undefined;
  readonly rows: readonly number[];
  /** The range of each number. */
  readonly ranges: readonly SweepRange[];
  readonly character: Character;
  readonly seed: number;
  readonly count: number;
  readonly control: string;
  readonly pressPercent: number;
}

/** The settings of studies: kept while other views are shown, until the kit is closed. */
export interface StudySettings {
  readonly takes: { readonly selection: TakeSelection; readonly groups: TakeGroups };
  readonly takeList: TakeFilter;
  readonly hands: {
    readonly one: SimulatedHand;
    /** The character it is compared with. */
    readonly two: SimulatedHand | undefined;
    readonly seed: number;
    /** The repetitions of each take. */
    readonly count: number;
    /** The control whose presses are counted; empty for all. */
    readonly control: string;
    /** Whether each group of takes is played by the character fitted to it. */
    readonly isOwnHand: boolean;
    readonly fitted: FittedHand | undefined;
    /** The press whose spread is shown. */
    readonly press: PressShare | undefined;
    /** The columns of the shown result, and the question it answers. */
    readonly drawn: readonly HandsColumn[];
    readonly asked: HandsAsked | undefined;
  };
  readonly goal: {
    /** The share of plays, and of the meant presses of a play, in percent. */
    readonly playPercent: number;
    readonly pressPercent: number;
    /** The keys of the numbers; empty for the first that fits, and for no second one. */
    readonly one: string;
    readonly two: string;
    readonly ranges: Readonly<Record<string, SweepRange>>;
    /** The name of the character. */
    readonly hand: string;
    readonly seed: number;
    readonly count: number;
    /** The control whose presses are counted; empty for all, undefined for that of the first number's rule. */
    readonly control: string | undefined;
    readonly asked: GoalAsked | undefined;
  };
  readonly sweep: {
    readonly one: string;
    /** The key of the second number; empty for none. */
    readonly two: string;
    readonly ranges: Readonly<Record<string, SweepRange>>;
    readonly hand: string;
    readonly seed: number;
    readonly count: number;
    readonly drawn: DrawnSweep | undefined;
  };
  readonly rates: {
    /** The rates to judge at, and those of the shown result, in frames per second. */
    readonly rates: readonly number[];
    readonly drawn: readonly number[];
    /** The rate and the rule of which the differences are listed. */
    readonly chosen:
      | { readonly rate: number; readonly kind: "performed" | "prompt"; readonly id: string }
      | undefined;
  };
  readonly versions: {
    readonly pair: { readonly one: string; readonly two: string } | undefined;
    readonly drawn: readonly [Kit, Kit] | undefined;
  };
}

export const DEFAULT_STUDY_SETTINGS: StudySettings = {
  takes: { selection: { kind: "all" }, groups: "none" },
  takeList: { by: "all", words: "" },
  hands: {
    one: { character: CHARACTERS[1]!, version: PRESENT_VERSION },
    two: undefined,
    seed: 1,
    count: 200,
    control: "",
    isOwnHand: false,
    fitted: undefined,
    press: undefined,
    drawn: [],
    asked: undefined,
  },
  goal: {
    playPercent: 95,
    pressPercent: 99,
    one: "",
    two: "",
    ranges: {},
    hand: CHARACTERS[1]!.name,
    seed: 1,
    count: 50,
    control: undefined,
    asked: undefined,
  },
  sweep: { one: "", two: "", ranges: {}, hand: AS_RECORDED, seed: 1, count: 200, drawn: undefined },
  rates: { rates: [30, 60, 120, 144], drawn: [], chosen: undefined },
  versions: { pair: undefined, drawn: undefined },
};
