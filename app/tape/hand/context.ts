import { createContext, use } from "react";
import { useStore, type StoreApi } from "zustand";
import type { TapeActions } from "./tapeActions";
import type { TapeLook } from "./tapeLook";

/** The tape of one page: how it is looked at, and what hands do on it. */
export interface PageTape {
  readonly look: StoreApi<TapeLook>;
  readonly actions: TapeActions;
}

export const TapeContext = createContext<PageTape | undefined>(undefined);

/** The tape of this page. */
export function useTape(): PageTape {
  const tape = use(TapeContext);
  if (!tape) throw new Error("a component stands outside the page's tape");
  return tape;
}

/** A part of how the tape is looked at. */
export function useTapeLook<T>(select: (look: TapeLook) => T): T {
  return useStore(useTape().look, select);
}
