import { createStore, type StoreApi } from "zustand/vanilla";
import type { Fate, Trace } from "#core";
import type { Rules } from "#stage";
import type { Evaluation } from "../../document/evaluation";
import type { Workbench } from "../../document/workbench";
import type { TapeController } from "./tapeController";
import type { RulePlace } from "../../edits/ruleEdits";

/** The tape's selection and options, shared by its canvas, its dock and its cards. */
export interface TapeLook {
  /** The selected press, by control and frame. */
  readonly fate: Pick<Fate, "control" | "frame"> | undefined;
  /** The trace under the rules before the last pull, for marking changes until the next edit. */
  readonly before: { readonly trace: Trace; readonly rules: Rules } | undefined;
  /** The rule being shaped, if any. */
  readonly about: RulePlace | undefined;
  readonly tool: "look" | "paint";
  /** The speed in percent that painting on the speed lane sets. */
  readonly brushPercent: number;
  /** The variant whose trace is shown for comparison. */
  readonly laidOver: string | undefined;
  /** The visible tape, for pictures of it; undefined if there is none. */
  readonly drawn: Pick<TapeController, "view" | "paintOn"> | undefined;
  /** Whether the other takes are shown as strips. */
  readonly showsStrips: boolean;
}

/** Creates the look; opening another take or kit resets the selection. */
export function createTapeLook(
  workbench: Pick<Workbench, "subscribe">,
  evaluation: Pick<StoreApi<Evaluation>, "subscribe">,
): StoreApi<TapeLook> {
  const store = createStore<TapeLook>(() => ({
    fate: undefined,
    before: undefined,
    about: undefined,
    tool: "look",
    brushPercent: 50,
    laidOver: undefined,
    drawn: undefined,
    showsStrips: false,
  }));
  evaluation.subscribe(({ evaluated }, before) => {
    if (evaluated?.take.id === before.evaluated?.take.id) return;
    store.setState({ fate: undefined, before: undefined });
  });
  workbench.subscribe((now, before) => {
    if (now.kit?.id !== before.kit?.id) store.setState({ laidOver: undefined, tool: "look" });
    else if (!now.variants.some(variant => variant.id === store.getState().laidOver))
      store.setState({ laidOver: undefined });
  });
  return store;
}
