import { useStore, type StoreApi } from "zustand";
import { createOwnerContext } from "../ui/ownerContext";
import type { Checking } from "./checking";
import type { Proof } from "./proving";

/** The results of the open kit's checks. */
export const [ProofContext, useProofStore] = createOwnerContext<StoreApi<Proof>>("the proof");

/** The edits of checks. */
export const [CheckingContext, useChecking] = createOwnerContext<Checking>("checking");

/** Returns a part of the results of the open kit's checks. */
export function useProof<T>(select: (state: Proof) => T): T {
  return useStore(useProofStore(), select);
}
