import { giveRopes } from "../../edits/giveStage";
import type { StageScreen } from "../stageScreens";
import { RopesEase } from "./RopesEase";

/** The screen of ropes. */
export const ropesScreen: StageScreen = {
  words: "ropes for its prompts",
  give: giveRopes,
  helps: ["meters"],
  Numbers: RopesEase,
};
