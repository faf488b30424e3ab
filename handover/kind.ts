import type { Check, Kit, Layout, Take } from "#core";
import type { OutFile } from "./outFile";

/** What is handed over: a kit with what is kept beside it. */
export interface Handover {
  readonly kit: Kit;
  readonly takes: readonly Take[];
  readonly layouts: readonly Layout[];
  readonly checks: readonly Check[];
}

/** One form in which a kit leaves. It is the same in the page and on a command line. */
export interface ExportFormat {
  readonly id: string;
  /** What it is called, and what it is for, in a sentence or two. */
  readonly word: string;
  readonly hint: string;
  /** Are takes run for it? Then its files cost as much as the takes are long. */
  readonly runsTakes?: true;
  /** The files it makes, in the order in which they are shown. */
  readonly files: (handover: Handover) => readonly OutFile[];
}
