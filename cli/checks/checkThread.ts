import { answerQuestions } from "../answerQuestions";
import { beginJudging } from "./judgeBatch";

answerQuestions(beginJudging);
