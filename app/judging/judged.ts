import { createStore } from "zustand/vanilla";
import type { Program, Take } from "#core";
import { askToJudge } from "./judgeClient";
import { evaluateOnce, type Evaluated } from "../document/workbench";

/** Takes longer than this are judged in a worker, so that the page never waits for them. Frames. */
export const LONG_TAKE_FRAMES = 20_000;

/** The last answer about a long take, and whether a newer one is on its way. */
export interface Judged {
  readonly evaluated: Evaluated | undefined;
  /** When the question still open was asked, ms; undefined when none is. */
  readonly askedAtMs: number | undefined;
  readonly trouble: string;
}

export const judged = createStore<Judged>(() => ({
  evaluated: undefined,
  askedAtMs: undefined,
  trouble: "",
}));

let asked: { program: Program; take: Take } | undefined;

/**
 * A take as a program understands it: at once for a short one. For a long one the last answer about the same take
 * stands until the worker has a newer; undefined until there is a first.
 */
export function judgeTake(program: Program, take: Take): Evaluated | undefined {
  if (take.frames <= LONG_TAKE_FRAMES) return evaluateOnce(program, take);
  const { evaluated } = judged.getState();
  if (evaluated?.program === program && evaluated.take === take) return evaluated;
  if (asked?.program !== program || asked.take !== take) {
    asked = { program, take };
    const question = asked;
    queueMicrotask(() => {
      judged.setState({ askedAtMs: performance.now(), trouble: "" });
      askToJudge(
        question,
        answer => judged.setState({ evaluated: answer, askedAtMs: undefined }),
        trouble => judged.setState({ askedAtMs: undefined, trouble }),
      );
    });
  }
  return evaluated?.take.id === take.id && evaluated.program.controls.length === program.controls.length
    ? evaluated
    : undefined;
}
