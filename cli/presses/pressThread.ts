import { answerIn } from "../answerIn";
import { beginReading } from "./readPresses";

export default answerIn(beginReading);
