import type { StoreApi } from "zustand/vanilla";
import { applyAssist, findAssist, type Assist, type Kit } from "#core";
import type { Rules } from "#stage";
import type { Evaluation } from "../document/evaluation";
import type { Workbench } from "../document/workbench";
import { applyLayout } from "../edits/layoutEdits";
import type { Judge } from "../judging/judge";
import { withTrialSwitches } from "./trialModes";

/** The rules and bindings that the pad plays with. */
export interface PadRules {
  /** Returns the active assist, if the kit still has it. */
  readonly assistOf: (kit: Kit | undefined) => Assist | undefined;
  /** Returns the rules to play: with manual switches to every mode, unless recording. */
  readonly toPlay: (isRecording: boolean) => Rules | undefined;
  /** Returns the controls with their current keys, including the layout of the active assist. */
  readonly boundControls: () => Kit["controls"];
}

interface RulesWorld {
  readonly workbench: Pick<Workbench, "getState">;
  readonly evaluation: Pick<StoreApi<Evaluation>, "getState">;
  readonly judge: Pick<Judge, "rulesOf">;
  /** Returns the active assist, by id. */
  readonly assistId: () => string | undefined;
}

/** Creates the rules of a pad. The assisted rules are cached. */
export function createPadRules({ workbench, evaluation, judge, assistId }: RulesWorld): PadRules {
  let assisted: { readonly from: Rules; readonly assist: Assist; readonly made: Rules } | undefined;

  const assistOf = (kit: Kit | undefined) => kit && findAssist(kit, assistId());

  /** Returns the open rules with the active assist applied. */
  function assistedRules(): Rules | undefined {
    const { rules } = evaluation.getState();
    const assist = assistOf(rules?.kit);
    if (!rules || !assist) return rules;
    if (assisted?.from !== rules || assisted.assist !== assist)
      assisted = { from: rules, assist, made: judge.rulesOf(applyAssist(rules.kit, assist)) ?? rules };
    return assisted.made;
  }

  return {
    assistOf,
    toPlay(isRecording) {
      const rules = assistedRules();
      if (!rules || isRecording || !rules.kit.modes?.length) return rules;
      return judge.rulesOf(withTrialSwitches(rules.kit)) ?? rules;
    },
    boundControls() {
      const { kit, layouts } = workbench.getState();
      const layout = layouts.find(({ id }) => id === assistOf(kit)?.layout);
      if (!kit) return [];
      return layout ? applyLayout(kit, layout).controls : kit.controls;
    },
  };
}

/** Returns the part of a kit that affects play: everything except names, bindings and the like. */
function playedOf(kit: Kit): string {
  const { name, controls, ...rules } = kit;
  return JSON.stringify([
    rules,
    controls.map(({ id, pressAt, releaseAt, toggle }) => [id, pressAt, releaseAt, toggle]),
  ]);
}

/** Returns whether two versions of a kit play alike and differ only in names or bindings. */
export function playAlike(a: Kit, b: Kit): boolean {
  return a.id === b.id && playedOf(a) === playedOf(b);
}
