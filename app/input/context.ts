import { createContext, use } from "react";
import { useStore } from "zustand";
import type { Pad, PadState } from "./pad";

export const PadContext = createContext<Pad | undefined>(undefined);

/** The pad of this page. */
export function usePad(): Pad {
  const pad = use(PadContext);
  if (!pad) throw new Error("a component stands outside the page's pad");
  return pad;
}

/** A part of the pad's state; a component that reads only a number renders only when that number changes. */
export function usePadState<T>(select: (state: PadState) => T): T {
  return useStore(usePad(), select);
}
