import { createStore, type StoreApi } from "zustand/vanilla";

/**
 * The reasons for work not being stored: no room, no storage, none that responds yet, one that a newer version
 * has taken over, one that lacks a part, or a write that the browser has stopped.
 */
export type StorageTrouble = "full" | "none" | "slow" | "newer" | "damaged" | "stopped";

/** Whether the browser stores work, and why not. Screens show changes at once. */
export interface StorageStatus {
  readonly trouble: StorageTrouble | undefined;
}

/** Returns whether the storage could not be read, so that nothing is known about what it holds. */
export function isUnread({ trouble }: StorageStatus): boolean {
  return trouble !== undefined && trouble !== "full" && trouble !== "stopped";
}

const SENTENCES: Readonly<Record<StorageTrouble, string>> = {
  full: "The browser's storage is full. Work goes on in this tab and is kept as soon as there is room; hand it over as files to be safe.",
  none: "The browser keeps no storage here. Work goes on in this tab; hand it over as files to keep it.",
  slow: "The browser's storage does not answer yet. Work goes on in this tab and is kept as soon as it does.",
  newer:
    "A newer Moss Tap has taken over this browser's storage. Hand over what is open here as files, then load this page again.",
  damaged:
    "A part of this browser's storage is missing. Work goes on in this tab; hand it over as files, then delete this site's data in the browser and drop the files on the shelf.",
  stopped: "The browser stopped a write. Work goes on in this tab, and is written again every second.",
};

/** The names of errors of IndexedDB that have a cause of their own. */
const TROUBLES: ReadonlyMap<string, StorageTrouble> = new Map([
  ["QuotaExceededError", "full"],
  ["VersionError", "newer"],
  ["NotFoundError", "damaged"],
  ["AbortError", "stopped"],
]);

/** Formats the problem. */
export function formatTrouble(trouble: StorageTrouble): string {
  return SENTENCES[trouble];
}

/** Returns the kind of problem of a storage error. */
export function troubleOf(error: unknown): StorageTrouble {
  return (error instanceof DOMException && TROUBLES.get(error.name)) || "none";
}

/** Returns whether an error means that the browser has closed the database, so that it must be opened again. */
export function isClosed(error: unknown): boolean {
  return error instanceof DOMException && error.name === "InvalidStateError";
}

export function createStatus(): StoreApi<StorageStatus> {
  return createStore<StorageStatus>(() => ({ trouble: undefined }));
}
