import { createStore, type StoreApi } from "zustand/vanilla";

/** The reasons for work not being stored: no room, no storage, or none that responds yet. */
export type StorageTrouble = "full" | "none" | "slow";

/** Whether the browser stores work, and why not. Screens show changes at once. */
export interface StorageStatus {
  readonly trouble: StorageTrouble | undefined;
}

/** Returns whether the storage could not be read, so that nothing is known about what it holds. */
export function isUnread({ trouble }: StorageStatus): boolean {
  return trouble === "slow" || trouble === "none";
}

const SENTENCES: Readonly<Record<StorageTrouble, string>> = {
  full: "The browser's storage is full. Work goes on in this tab and is kept as soon as there is room; hand it over as files to be safe.",
  none: "The browser keeps no storage here. Work goes on in this tab; hand it over as files to keep it.",
  slow: "The browser's storage does not answer yet. Work goes on in this tab and is kept as soon as it does.",
};

/** Formats the problem. */
export function formatTrouble(trouble: StorageTrouble): string {
  return SENTENCES[trouble];
}

/** Returns the kind of problem of a storage error. */
export function troubleOf(error: unknown): StorageTrouble {
  return error instanceof DOMException && error.name === "QuotaExceededError" ? "full" : "none";
}

export function createStatus(): StoreApi<StorageStatus> {
  return createStore<StorageStatus>(() => ({ trouble: undefined }));
}
