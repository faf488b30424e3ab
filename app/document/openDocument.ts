import type { Kit, Take } from "#core";
import {
  NO_PARTS,
  DEFAULT_SETTINGS,
  type CheckTally,
  type KitDocument,
  type KitSettings,
} from "../storage/records";
import type { PenHolder } from "../storage/tabs";

/** The open document: a kit with everything stored beside it. Undo and redo cover all of it together. */
export interface OpenDocument extends Omit<KitDocument, "kit"> {
  readonly kit: Kit | undefined;
  /** The settings stored beside the kit, such as the layout of the tape's rows; not undone. */
  readonly settings: KitSettings;
  readonly openTakeId: string | undefined;
  /** The last change, for the shelf. */
  readonly change: string;
  /** The result of its checks, for the shelf; undefined from a change until they are judged again. */
  readonly checkTally: CheckTally | undefined;
  /**
   * Who may write: this tab, another tab that has the kit open, or nobody because it was removed from the
   * shelf.
   */
  readonly holder: PenHolder | "gone";
}

/** The state of a workbench without a document. */
export const NOTHING: Omit<OpenDocument, "holder"> = {
  ...NO_PARTS,
  kit: undefined,
  settings: DEFAULT_SETTINGS,
  openTakeId: undefined,
  change: "",
  checkTally: undefined,
};

/** Returns the part of the state that undo covers, or undefined if nothing is open. */
export function documentOf({ kit, takes, variants, layouts, checks }: OpenDocument): KitDocument | undefined {
  return kit && { kit, takes, variants, layouts, checks };
}

/** Returns the take to keep open: the same one, the one now at its index, or the last. */
export function stillOpen(
  takes: readonly Take[],
  openTakeId: string | undefined,
  place: number,
): string | undefined {
  if (takes.some(take => take.id === openTakeId)) return openTakeId;
  return (takes[Math.max(0, place)] ?? takes.at(-1))?.id;
}
