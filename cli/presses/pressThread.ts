import { answerQuestions } from "../answerQuestions";
import { beginReading } from "./readPresses";

answerQuestions(beginReading);
