import type * as v from "valibot";
import type { Kit } from "../../kit/schema";
import type { Program } from "../../program/program";
import type { Trace } from "../trace";
import type { AskedKind } from "./asked";

/** The lists of a program that a note's subject can index; `none` for notes without a subject. */
export type NoteList = "modes" | "gates" | "patterns" | "moves" | "prompts" | "controls" | "none";

/** Reads one number of a note's payload. The note must be of the kind that the column belongs to. */
export type ReadColumn = (trace: Trace, note: number) => number;

/** The record of one kind of note: its code, its subject, and how its payload is read. */
export interface NoteKind<
  Name extends string = string,
  Column extends string = string,
  List extends NoteList = NoteList,
> {
  readonly name: Name;
  /** The number that `trace.kind` holds for it. */
  readonly code: number;
  /** The list of the program that `trace.subject` indexes. */
  readonly list: List;
  /** The numbers of its payload, in order. Notes whose payload is a list of edges have none (see edgeList). */
  readonly columns: readonly Column[];
}

/** A kind of note that is an event of trace files. `Asked` is the event as checks ask for it. */
export interface EventKind<
  Schema extends v.GenericSchema = v.GenericSchema,
  Asked extends v.GenericSchema = v.GenericSchema,
> {
  /** The event as it is in a file. */
  readonly schema: Schema;
  /** Returns a note as its event in a file. */
  readonly format: (program: Program, trace: Trace, note: number) => v.InferOutput<Schema>;
  /** Formats the event as words that follow the name of its subject. */
  readonly words: (event: v.InferOutput<Schema>, kit: Kit) => string;
  readonly asked: AskedKind<Asked>;
}

/** A record of a note kind with a reader for each of its columns. */
export type NoteRecord<Name extends string, Column extends string, List extends NoteList> = NoteKind<
  Name,
  Column,
  List
> &
  Readonly<Record<Column, ReadColumn>>;

/**
 * Returns the record of a kind of note, with one reader for each column:
 * `defineNote("lapsed", LAPSE, "patterns", ["reason", "reached"]).reason(trace, note)`.
 */
export function defineNote<
  const Name extends string,
  const List extends NoteList,
  const Column extends string = never,
>(name: Name, code: number, list: List, columns: readonly Column[] = []): NoteRecord<Name, Column, List> {
  const readers = columns.map((column, place): [Column, ReadColumn] => [
    column,
    (trace, note) => trace.payload[trace.at[note]! + place]!,
  ]);
  const read = Object.fromEntries(readers) as Record<Column, ReadColumn>;
  return { ...read, name, code, list, columns };
}
