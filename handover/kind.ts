import type { Check, Kit, Layout, Take } from "#core";
import type { OutFile } from "./outFile";
import type { PlayerParts } from "./page/page";

/** Rules of the kit as they once were, under a name. */
export interface NamedRules {
  readonly name: string;
  readonly kit: Kit;
}

/** What is asked of the timing sheet. */
export interface SheetWishes {
  /** It tells what changed since these rules. */
  readonly since?: NamedRules;
  /** Rates besides the kit's own at which lengths are told, frames a second. */
  readonly rates?: readonly number[];
}

/** What is handed over: a kit with what is kept beside it. */
export interface Handover {
  readonly kit: Kit;
  readonly takes: readonly Take[];
  readonly layouts: readonly Layout[];
  readonly checks: readonly Check[];
  /** Rules as they once were, which were kept. */
  readonly variants?: readonly NamedRules[];
  readonly sheet?: SheetWishes;
}

/** What is not made of the kit but goes with it: built with the application, or drawn on a screen. */
export interface HandoverParts {
  /** The parts of a playable page; undefined where they are not to be had. */
  readonly player: PlayerParts | undefined;
  /** The runtime with its types, example and script. */
  readonly runtime: readonly OutFile[];
  /** Rules of CSS with our faces in them, for pages of their own; empty where they are not to be had. */
  readonly faces: string;
  /** Pictures of the tape and the maps; none on a command line. */
  readonly pictures: readonly OutFile[];
}

/** Nothing that goes with a kit. */
export const NO_PARTS: HandoverParts = { player: undefined, runtime: [], faces: "", pictures: [] };

/** One form in which a kit leaves. It is the same in the page and on a command line. */
export interface ExportFormat {
  readonly id: string;
  /** What it is called, and what it is for, in a sentence or two. */
  readonly word: string;
  readonly hint: string;
  /** Are takes run for it? Then its files cost as much as the takes are long. */
  readonly runsTakes?: true;
  /** Does it heed what is asked of the sheet? */
  readonly heedsWishes?: true;
  /** Is it made of parts besides the kit? Then those are waited for. */
  readonly needsParts?: true;
  /** Does it show text on a page of its own? Then it has our faces in it where they are to be had. */
  readonly showsFaces?: true;
  /** Does it hold pictures? Then those are drawn first, where there is a screen. */
  readonly needsPictures?: true;
  /** Is it made of everything, and so only when it is asked for? */
  readonly isLarge?: true;
  /** The files it makes, in the order in which they are shown; `tell` hears how many takes of how many were run for them. */
  readonly files: (
    handover: Handover,
    parts: HandoverParts,
    tell?: (done: number, of: number) => void,
  ) => readonly OutFile[];
}
