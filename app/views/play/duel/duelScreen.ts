import { giveDuel } from "../../../edits/giveStage";
import type { StageScreen } from "../stageScreens";
import { DuelScript } from "./DuelScript";

/** A fighter and a clockwork. */
export const duelScreen: StageScreen = {
  words: "a duel with a clockwork",
  give: giveDuel,
  helps: ["meters"],
  Numbers: DuelScript,
};
