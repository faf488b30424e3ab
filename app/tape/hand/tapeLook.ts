import { createStore, type StoreApi } from "zustand/vanilla";
import type { Fate, Trace } from "#core";
import type { Rules } from "#stage";
import type { Evaluation } from "../../document/evaluation";
import type { Workbench } from "../../document/workbench";
import type { TapeController } from "./tapeController";
import type { RulePlace } from "../../edits/ruleEdits";

/** What is being looked at on the tape, shared by its canvas, its dock and its cards. */
export interface TapeLook {
  /** The press whose fate is told, by control and frame. */
  readonly fate: Pick<Fate, "control" | "frame"> | undefined;
  /** What the rules before the last pull made of the take, that changes are marked against until the next edit. */
  readonly before: { readonly trace: Trace; readonly rules: Rules } | undefined;
  /** The rule that is being shaped, if one is. */
  readonly about: RulePlace | undefined;
  readonly tool: "look" | "paint";
  /** The percent of full speed that painting on the speed lane gives. */
  readonly brushPercent: number;
  /** The variant whose trace lies over that of the present rules. */
  readonly laidOver: string | undefined;
  /** The tape that is on the screen, for pictures of it; undefined where none is. */
  readonly drawn: Pick<TapeController, "view" | "paintOn"> | undefined;
  /** Are the other takes shown as strips? */
  readonly showsStrips: boolean;
}

/** Makes the look; another take, or another kit, takes away what was said of the last one. */
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
