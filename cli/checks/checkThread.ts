import { answerIn } from "../answerIn";
import { beginJudging } from "./judgeBatch";

export default answerIn(beginJudging);
