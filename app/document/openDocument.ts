import type { Kit, Take } from "#core";
import { NO_PARTS, PLAIN_ROWS, type KitDocument, type RowOrder } from "../storage/records";
import type { PenHolder } from "../storage/tabs";

/** The document under work: a kit with all that is kept beside it. Undo and redo go over all of it together. */
export interface OpenDocument extends Omit<KitDocument, "kit"> {
  readonly kit: Kit | undefined;
  /** How the tape's rows are laid out: kept with the kit, not undone. */
  readonly rows: RowOrder;
  readonly openTakeId: string | undefined;
  /** What was changed last, for the shelf. */
  readonly change: string;
  /** Who may write: this tab, another that has the kit open too, or nobody, since it has left the shelf. */
  readonly holder: PenHolder | "gone";
}

/** A bench with nothing on it. */
export const NOTHING: Omit<OpenDocument, "holder"> = {
  ...NO_PARTS,
  kit: undefined,
  rows: PLAIN_ROWS,
  openTakeId: undefined,
  change: "",
};

/** The part of the state that is undone, or undefined while nothing is open. */
export function documentOf({ kit, takes, variants, layouts, checks }: OpenDocument): KitDocument | undefined {
  return kit && { kit, takes, variants, layouts, checks };
}

/** The take to look at: the one that was open, the one in its place, or the last. */
export function stillOpen(
  takes: readonly Take[],
  openTakeId: string | undefined,
  place: number,
): string | undefined {
  if (takes.some(take => take.id === openTakeId)) return openTakeId;
  return (takes[Math.max(0, place)] ?? takes.at(-1))?.id;
}
