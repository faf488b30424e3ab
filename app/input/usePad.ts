import { useStore } from "zustand";
import { pad, type Pad } from "./pad";

/** A part of the pad's state; a component that reads only a number renders only when that number changes. */
export function usePad<T>(select: (state: Pad) => T): T {
  return useStore(pad, select);
}
