import type { ReactNode } from "react";
import type { Kit } from "#core";
import type { StageKindName } from "#stage";
import type { Helps } from "../../scene/scenery";
import { duelScreen } from "./duel/duelScreen";
import { ropesScreen } from "./ropes/ropesScreen";
import { runnerScreen } from "./runner/runnerScreen";

/** How a kind of stage stands on the screen. */
export interface StageScreen {
  /** What giving it to a kit is called, and the kit with it. */
  readonly words: string;
  readonly give: (kit: Kit) => Kit;
  /** The helps a player can have on it. */
  readonly helps: readonly (keyof Helps)[];
  /** Its numbers in sentences, over the takes and under them. */
  readonly Numbers: (props: { kit: Kit }) => ReactNode;
  readonly More?: (props: { kit: Kit }) => ReactNode;
}

/** One line a kind; one left out does not compile. */
export const STAGE_SCREENS: Readonly<Record<StageKindName, StageScreen>> = {
  runner: runnerScreen,
  duel: duelScreen,
  ropes: ropesScreen,
};
