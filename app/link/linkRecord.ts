import * as v from "valibot";
import type { LocalStore } from "../storage/setAside";

const KEY = "moss-tap.link";

/** The link that this browser has open, for a page that is loaded again. */
const recordSchema = v.object({
  kitId: v.string(),
  code: v.string(),
  /** Distinguishes links with the same code: ids of takes are made of it. */
  key: v.string(),
  /** The recording that was in progress. */
  takeId: v.exactOptional(v.string()),
});

export type LinkRecord = v.InferOutput<typeof recordSchema>;

/** Returns the stored link; undefined if there is none, or the browser stores nothing. */
export function readLinkRecord(store: LocalStore | undefined): LinkRecord | undefined {
  try {
    const parsed = v.safeParse(recordSchema, JSON.parse(store?.getItem(KEY) ?? "null"));
    return parsed.success ? parsed.output : undefined;
  } catch (error) {
    console.info("The record of a live link could not be read.", error);
    return undefined;
  }
}

/** Stores the link, or removes it. A browser that stores nothing loses the link at a reload. */
export function writeLinkRecord(store: LocalStore | undefined, record: LinkRecord | undefined): void {
  try {
    if (record) store?.setItem(KEY, JSON.stringify(record));
    else store?.removeItem(KEY);
  } catch (error) {
    console.info("The record of a live link could not be stored.", error);
  }
}
