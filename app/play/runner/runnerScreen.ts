import { giveRunner } from "../../edits/giveStage";
import type { StageScreen } from "../stageScreens";
import { RunnerNumbers } from "./RunnerNumbers";
import { RunnerGates } from "./RunnerGates";

/** The screen of a runner. */
export const runnerScreen: StageScreen = {
  words: "a runner on beams",
  give: giveRunner,
  helps: ["meters", "memory", "arcs"],
  Numbers: RunnerNumbers,
  More: RunnerGates,
};
