import { createStore, type StoreApi } from "zustand/vanilla";

/** Why work is not kept: no room, no storage at all, or none that answers yet. */
export type StorageTrouble = "full" | "none" | "slow";

/** Is work being kept by the browser, and if not, why? Screens show this at once. */
export interface StorageStatus {
  readonly trouble: StorageTrouble | undefined;
}

const SENTENCES: Readonly<Record<StorageTrouble, string>> = {
  full: "The browser's storage is full. Work goes on in this tab and is kept as soon as there is room; hand it over as files to be safe.",
  none: "The browser keeps no storage here. Work goes on in this tab; hand it over as files to keep it.",
  slow: "The browser's storage does not answer yet. Work goes on in this tab and is kept as soon as it does.",
};

/** The trouble as it is told. */
export function formatTrouble(trouble: StorageTrouble): string {
  return SENTENCES[trouble];
}

/** What kind of trouble an error of the storage is. */
export function troubleOf(error: unknown): StorageTrouble {
  return error instanceof DOMException && error.name === "QuotaExceededError" ? "full" : "none";
}

export function createStatus(): StoreApi<StorageStatus> {
  return createStore<StorageStatus>(() => ({ trouble: undefined }));
}
