import type { ReactNode } from "react";
import type { Kit } from "#core";
import type { StageKindName } from "#stage";
import type { Help } from "../scene/scenery";
import { duelScreen } from "./duel/duelScreen";
import { ropesScreen } from "./ropes/ropesScreen";
import { runnerScreen } from "./runner/runnerScreen";

/** The user interface of a kind of stage. */
export interface StageScreen {
  /** The label for adding it to a kit, and the resulting kit. */
  readonly words: string;
  readonly give: (kit: Kit) => Kit;
  /** The player's aids it supports. */
  readonly helps: readonly Help[];
  /** Its numbers as sentences, above and below the takes. */
  readonly Numbers: (props: { kit: Kit }) => ReactNode;
  readonly More?: (props: { kit: Kit }) => ReactNode;
}

/** One line per kind; a missing one does not compile. */
export const STAGE_SCREENS: Readonly<Record<StageKindName, StageScreen>> = {
  runner: runnerScreen,
  duel: duelScreen,
  ropes: ropesScreen,
};
