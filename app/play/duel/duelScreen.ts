import { giveDuel } from "../../edits/giveStage";
import type { StageScreen } from "../stageScreens";
import { DuelScript } from "./DuelScript";

/** The screen of a duel. */
export const duelScreen: StageScreen = {
  words: "a duel with a clockwork",
  give: giveDuel,
  helps: ["meters"],
  Numbers: DuelScript,
};
