import type * as v from "valibot";
import type { Issue, PathStep } from "../../formats/issue";
import type { DeepReadonly } from "../../formats/readonly";
import type { Kit } from "../../kit/schema";
import { words, type Offer, type SentencePart } from "../../kit/sentence";
import type { Program } from "../../program/program";
import type { Trace } from "../../trace/trace";
import type { AskedEvent, KeptEvent } from "../askedEvent";
import type { Matcher } from "../matchEvents";
import type { TraceIndex } from "../traceIndex";

/** The document of an expectation, from the schemas of its fields. */
export type FieldsOf<Fields extends v.ObjectEntries> = DeepReadonly<
  v.InferOutput<v.StrictObjectSchema<Fields, undefined>>
>;

/** The result of judging a check on one take. Frames are those of the judged rate. */
export interface VerdictOf<Why extends string> {
  readonly ok: boolean;
  /** The reason why the check fails. */
  readonly why?: Why;
  readonly f?: number;
  readonly slip?: number;
  readonly count?: number;
  readonly reached?: number;
  /** Whether it holds because nothing in its stretch could have made it fail. */
  readonly vacuous?: true;
}

/** Judges an indexed trace; the trace must be complete. */
export type Judge<Why extends string> = (index: TraceIndex) => VerdictOf<Why>;

/** Returns a range of frames of a trace, both ends included. */
export type StretchOf = (trace: Trace) => { readonly from: number; readonly to: number };

/** The tools with which an expectation is compiled against a program. */
export interface CompileTools {
  readonly program: Program;
  readonly kitRateHz: number;
  /** The frames that the check looks at. */
  readonly stretch: StretchOf;
  /** Converts a written time to a frame of the judged rate. */
  readonly land: (written: string) => number;
  /** Converts a written leeway to frames of the judged rate; `otherwise` if it is absent. */
  readonly leeway: (written: string | undefined, otherwise: number) => number;
  /** Returns the matcher of an event; adds an issue if the kit lacks its subject. */
  readonly match: (event: AskedEvent, path: readonly PathStep[]) => Matcher;
  /** Returns the test of whether nothing in the check's stretch could have made an event happen. */
  readonly idle: (event: AskedEvent) => (index: TraceIndex) => boolean;
  /** Returns the index of an id in a list; adds an issue if it is missing. */
  readonly indexOf: (list: "controls" | "moves" | "prompts", id: string, path: readonly PathStep[]) => number;
}

/** The tools with which an expectation is described. */
export interface DescribeTools {
  /** Formats an event as words with its subject and fields. */
  readonly event: (event: AskedEvent, path: readonly PathStep[]) => SentencePart[];
}

/** Ends the words of an event with a comma if its fields began with one, so that more of the sentence can follow. */
export function closeEvent(parts: readonly SentencePart[]): readonly SentencePart[] {
  const hasComma = parts.some(part => part.kind === "words" && part.text.startsWith(","));
  return hasComma ? [...parts, words(",")] : parts;
}

/** The tools with which the ids of an expectation are replaced after an item of the kit was renamed. */
export interface RenameTools {
  readonly event: (event: AskedEvent) => AskedEvent;
  readonly kept: (event: KeptEvent) => KeptEvent;
  /** Returns the new id of an item of a list. */
  readonly id: (list: "controls" | "moves", id: string) => string;
}

/**
 * The registry record of one kind of expectation, apart from the schemas of its fields. `E` is its document,
 * `Why` its reasons to fail.
 */
export interface ExpectationRecord<E, Why extends string> {
  /** Whether events that make it fail are unwanted ones, which studies of players count; no by default. */
  readonly namesUnwanted?: true;
  /** Hints for fields that must be there besides the first: "write a time, like 36f". */
  readonly requires?: Readonly<Record<string, string>>;
  /** Returns further issues of the fields; paths are relative to the check. */
  readonly verify?: (expectation: E, path: readonly PathStep[]) => Issue[];
  readonly compile: (expectation: E, tools: CompileTools) => Judge<Why>;
  /** Describes the expectation as part of a sentence. */
  readonly describe: (expectation: E, tools: DescribeTools) => SentencePart[];
  /** Returns the clauses that could be added, each with the resulting expectation. */
  readonly offers: (expectation: E, kit: Kit) => readonly (Offer<E> | false)[];
  /** The words of each reason to fail, following "it fails: ". */
  readonly failures: Readonly<Record<Why, (verdict: VerdictOf<Why>) => string>>;
  /** Returns the change that makes a failing verdict pass, with its words; undefined if there is none. */
  readonly accept: (
    expectation: E,
    verdict: VerdictOf<Why>,
    story: readonly KeptEvent[],
  ) => { readonly words: string; readonly becomes: E } | undefined;
  readonly rename: (expectation: E, tools: RenameTools) => E;
  /** The fields with written times, which follow a change of the kit's rate. */
  readonly times: readonly (keyof E & string)[];
  /** Converts further frames after a change of the kit's rate. */
  readonly changeRate?: (expectation: E, inFrames: (frame: number) => number) => E;
}
