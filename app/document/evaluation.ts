import { createStore, type StoreApi } from "zustand/vanilla";
import type { Issue, Take } from "#core";
import type { Rules } from "#stage";
import type { Evaluated, Judge } from "../judging/judge";
import { isLong, whyTooLong } from "../judging/longTake";
import type { JobHandle, Jobs } from "../judging/jobs/jobs";
import type { OpenDocument } from "./openDocument";
import type { Workbench } from "./workbench";

/** The evaluation of the open take under the current rules. */
export interface Evaluation {
  /**
   * The open kit's rules, or its last valid ones while it has faults. Indices in them refer to `rules.kit`.
   */
  readonly rules: Rules | undefined;
  /** Whether these are the rules of the current kit. */
  readonly isSound: boolean;
  readonly faults: readonly Issue[];
  readonly warnings: readonly Issue[];
  /** The evaluated open take; while a long one is being evaluated, the previous result for the same take. */
  readonly evaluated: Evaluated | undefined;
  /** The start time of the pending evaluation, in ms since page load; undefined if none is pending. */
  readonly askedAtMs: number | undefined;
  /** The reason why the open take could not be evaluated; empty if it could. */
  readonly trouble: string;
}

const NOTHING: Evaluation = {
  rules: undefined,
  isSound: false,
  faults: [],
  warnings: [],
  evaluated: undefined,
  askedAtMs: undefined,
  trouble: "",
};

const LANE = "open take";

interface EvaluationClocks {
  readonly nowMs: () => number;
  /** Yields so that the page can handle pending events. */
  readonly yieldToUi: () => Promise<void>;
}

/**
 * Creates the evaluation, which follows the workbench: compiles the kit at every change and evaluates the
 * open take, a long one in a worker.
 */
export function createEvaluation(
  workbench: Pick<Workbench, "getState" | "subscribe">,
  judge: Judge,
  jobs: Pick<Jobs, "ask">,
  { nowMs, yieldToUi }: EvaluationClocks,
): StoreApi<Evaluation> {
  const store = createStore<Evaluation>(() => NOTHING);
  let asking:
    | { readonly rules: Rules; readonly take: Take; readonly asked: JobHandle<"evaluate"> }
    | undefined;

  function compile({ kit }: OpenDocument): Pick<Evaluation, "rules" | "isSound" | "faults" | "warnings"> {
    if (!kit) return NOTHING;
    const compiled = judge.compile(kit);
    if (compiled.ok) return { rules: compiled.value, isSound: true, faults: [], warnings: compiled.warnings };
    const last = store.getState().rules;
    return {
      rules: last?.kit.id === kit.id ? last : undefined,
      isSound: false,
      faults: compiled.issues,
      warnings: [],
    };
  }

  function askFor(rules: Rules, take: Take): void {
    const asked = jobs.ask({ job: "evaluate", question: { rules }, takes: [take], lane: LANE });
    const own = (asking = { rules, take, asked });
    store.setState({ askedAtMs: nowMs(), trouble: "" });
    void asked.outcome.then(async outcome => {
      if (outcome.state === "done") {
        const learnt = judge.learn(rules, take, outcome.value);
        // Read in slices, so that the page stays responsive.
        await judge.readOutcomes(learnt, yieldToUi);
      }
      if (asking !== own) return;
      asking = undefined;
      if (outcome.state === "done")
        store.setState({ evaluated: judge.known(rules, take), askedAtMs: undefined, trouble: "" });
      else
        store.setState({ askedAtMs: undefined, trouble: outcome.state === "failed" ? outcome.reason : "" });
    });
  }

  function stopAsking(): void {
    asking?.asked.stop();
    asking = undefined;
  }

  function evaluate(rules: Rules | undefined, take: Take | undefined): Partial<Evaluation> {
    if (!rules || !take) {
      stopAsking();
      return { evaluated: undefined, askedAtMs: undefined, trouble: "" };
    }
    const trouble = whyTooLong(take, rules.program.rateHz);
    if (trouble) {
      stopAsking();
      return { evaluated: undefined, askedAtMs: undefined, trouble };
    }
    const known = isLong(take, rules.program.rateHz) ? judge.known(rules, take) : judge.evaluate(rules, take);
    if (known) {
      stopAsking();
      return { evaluated: known, askedAtMs: undefined, trouble: "" };
    }
    if (asking?.rules !== rules || asking.take !== take) queueMicrotask(() => askAgain());
    const { evaluated } = store.getState();
    const isSameTake = evaluated?.take.id === take.id && evaluated.rules.kit.id === rules.kit.id;
    return isSameTake ? {} : { evaluated: undefined, trouble: "" };
  }

  /** Starts the evaluation of what is now open, unless it is already running. */
  function askAgain(): void {
    const { rules } = store.getState();
    const take = openTakeOf(workbench.getState());
    if (!rules || !take || judge.known(rules, take) || whyTooLong(take, rules.program.rateHz)) return;
    if (asking?.rules !== rules || asking.take !== take) askFor(rules, take);
  }

  function follow(now: OpenDocument, before?: OpenDocument): void {
    const take = openTakeOf(now);
    const isKitSame = before !== undefined && now.kit === before.kit;
    if (isKitSame && take === openTakeOf(before)) return;
    const compiled = isKitSame ? {} : compile(now);
    const { rules } = { ...store.getState(), ...compiled };
    store.setState({ ...compiled, ...evaluate(rules, take) });
  }

  follow(workbench.getState());
  workbench.subscribe(follow);
  return store;
}

/** Returns the open take, or undefined. */
export function openTakeOf({
  takes,
  openTakeId,
}: Pick<OpenDocument, "takes" | "openTakeId">): Take | undefined {
  return takes.find(take => take.id === openTakeId);
}
