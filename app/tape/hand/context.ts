import { createContext, use } from "react";
import { useStore, type StoreApi } from "zustand";
import type { TapeActions } from "./tapeActions";
import type { TapeLook } from "./tapeLook";

/** The tape of one page: its look and its actions. */
export interface PageTape {
  readonly look: StoreApi<TapeLook>;
  readonly actions: TapeActions;
}

export const TapeContext = createContext<PageTape | undefined>(undefined);

/** Returns the tape of this page. */
export function useTape(): PageTape {
  const tape = use(TapeContext);
  if (!tape) throw new Error("a component is outside the page's tape");
  return tape;
}

/** Returns a part of the tape's look. */
export function useTapeLook<T>(select: (look: TapeLook) => T): T {
  return useStore(useTape().look, select);
}
