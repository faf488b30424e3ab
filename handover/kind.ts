import type { Check, Kit, Layout, Take } from "#core";
import type { OutFile } from "./outFile";
import type { PlayerParts } from "./page/page";

/** A named earlier version of the kit's rules. */
export interface NamedRules {
  readonly name: string;
  readonly kit: Kit;
}

/** Options of the timing sheet. */
export interface SheetOptions {
  /** Lists the changes since these rules. */
  readonly since?: NamedRules;
  /** Rates at which lengths are listed in addition to the kit's own, in Hz. */
  readonly rates?: readonly number[];
}

/** A kit with everything stored beside it, ready for export. */
export interface Handover {
  readonly kit: Kit;
  readonly takes: readonly Take[];
  readonly layouts: readonly Layout[];
  readonly checks: readonly Check[];
  /** Stored earlier versions of the rules. */
  readonly variants?: readonly NamedRules[];
  readonly sheet?: SheetOptions;
}

/**
 * The parts of an export that are not made from the kit: built with the application, or drawn on a screen.
 */
export interface HandoverParts {
  /** The parts of a playable page; undefined if unavailable. */
  readonly player: PlayerParts | undefined;
  /** The runtime with its types, example and script. */
  readonly runtime: readonly OutFile[];
  /** CSS rules with our embedded fonts, for standalone pages; empty if unavailable. */
  readonly faces: string;
  /** Pictures of the tape and the maps; none on a command line. */
  readonly pictures: readonly OutFile[];
}

/** No parts. */
export const NO_PARTS: HandoverParts = { player: undefined, runtime: [], faces: "", pictures: [] };

/** One export form, used by both the page and the command line. */
export interface ExportFormat {
  readonly id: string;
  /** Its name, and its purpose in one or two sentences. */
  readonly word: string;
  readonly hint: string;
  /** Are takes run for it? Then its files cost as much as the takes are long. */
  readonly runsTakes?: true;
  /** Does it heed what is asked of the sheet? */
  readonly takesSheetOptions?: true;
  /** Is it made of parts besides the kit? Then those are waited for. */
  readonly needsParts?: true;
  /** Does it show text on a page of its own? Then it has our faces in it where they are to be had. */
  readonly showsFaces?: true;
  /** Does it hold pictures? Then those are drawn first, where there is a screen. */
  readonly needsPictures?: true;
  /** Is it made of everything, and so only when it is asked for? */
  readonly isLarge?: true;
  /**
   * Returns the files it makes, in display order. `onProgress` receives the number of takes run and their
   * total.
   */
  readonly files: (
    handover: Handover,
    parts: HandoverParts,
    onProgress?: (done: number, of: number) => void,
  ) => readonly OutFile[];
}
