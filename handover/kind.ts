import type { Runs } from "./runs";
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
  /** Leaves out the inputs made of the boundaries of every number, whose search takes seconds. */
  readonly skipsBoundaries?: boolean;
}

/** A step of making files: takes are run, or the numbers of the kit are searched for inputs at their boundaries. */
export type MakingStep = "takes" | "numbers";

/** Called with how many takes or numbers are done, of how many. */
export type OnProgress = (done: number, of: number, step: MakingStep) => void;

/**
 * The parts of an export that are not made from the kit: built with the application, or drawn on a screen.
 */
export interface HandoverParts {
  /** The parts of a playable page; undefined if unavailable. */
  readonly player: PlayerParts | undefined;
  /** The runtime with its types, example, script and the frame rules. */
  readonly runtime: readonly OutFile[];
  /** CSS rules with our embedded fonts, for standalone pages; empty if unavailable. */
  readonly faces: string;
  /** Pictures of the tape and the maps; none on a command line. */
  readonly pictures: readonly OutFile[];
}

/** No parts. */
export const NO_PARTS: HandoverParts = { player: undefined, runtime: [], faces: "", pictures: [] };

/**
 * The inputs of a form besides the documents. `runs`: the takes are run for it. `options`: the options of the
 * sheet. `parts`: what was built with the application. `faces`: our fonts, if they are available. `pictures`:
 * what only a screen can draw. `frame-rules`: the page of the frame rules, which is among the runtime's files. `boundaries`: inputs are searched for every number, so that it is made on request only.
 * `all`: every other form; made on request, too.
 */
export type Ingredient =
  | "runs"
  | "options"
  | "parts"
  | "frame-rules"
  | "faces"
  | "pictures"
  | "boundaries"
  | "all";

/** One name of a form on the command line, and which of its files it writes. */
export interface FormCommand {
  readonly as: string;
  readonly isIncluded?: (fileName: string) => boolean;
}

/** The files of a form in the pack of everything. */
export interface PackedForm {
  readonly folder: string;
  /** Describes the folder in the pack's README. */
  readonly line: string;
  /** The files, where they differ from those of the form; `runs` are shared by all forms. */
  readonly files?: (
    handover: Handover,
    parts: HandoverParts,
    runs: Runs | undefined,
    onProgress?: OnProgress,
  ) => readonly OutFile[];
}

/** One export form, used by both the page and the command line. */
export interface ExportFormat {
  readonly id: string;
  /** Its name, and its purpose in one or two sentences. */
  readonly word: string;
  readonly hint: string;
  readonly uses: readonly Ingredient[];
  /** Its names on the command line; none for a form that only a screen can make. */
  readonly commands: readonly FormCommand[];
  /** Its files in the pack of everything; `none` for a form whose files are there in another folder. */
  readonly packed: PackedForm | "none";
  /**
   * Returns the files it makes, in display order. `onProgress` receives the takes run, or the numbers
   * searched.
   */
  readonly files: (handover: Handover, parts: HandoverParts, onProgress?: OnProgress) => readonly OutFile[];
}
