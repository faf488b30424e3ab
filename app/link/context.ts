import { useStore } from "zustand";
import { createOwnerContext } from "../ui/ownerContext";
import type { GameLink, GameLinkState } from "./gameLink";

/** The live link of the page. */
export const [GameLinkContext, useGameLink] = createOwnerContext<GameLink>("the live link");

/** Returns a part of the state of the live link. */
export function useGameLinkState<T>(select: (state: GameLinkState) => T): T {
  return useStore(useGameLink(), select);
}
