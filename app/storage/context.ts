import type { StoreApi } from "zustand";
import { createOwnerContext } from "../ui/ownerContext";
import type { Shelf } from "./shelf";
import type { StorageStatus } from "./status";

/** The kits in this browser, and the state of its storage. */
export interface Stored {
  readonly shelf: Shelf;
  readonly storage: StoreApi<StorageStatus>;
  /** Returns whether anything is held in memory because the browser could not store it. */
  readonly hasHeld: () => boolean;
}

export const [StoredContext, useStored] = createOwnerContext<Stored>("the shelf");
