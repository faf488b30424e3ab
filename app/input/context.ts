import { createContext, use } from "react";
import { useStore } from "zustand";
import type { Pad } from "./pad";
import type { PadState } from "./padState";

export const PadContext = createContext<Pad | undefined>(undefined);

/** Returns the pad of this page. */
export function usePad(): Pad {
  const pad = use(PadContext);
  if (!pad) throw new Error("a component is outside the page's pad");
  return pad;
}

/** Returns a part of the pad's state; the component re-renders only when that part changes. */
export function usePadState<T>(select: (state: PadState) => T): T {
  return useStore(usePad(), select);
}
