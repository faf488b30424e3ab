import type { StoreApi } from "zustand/vanilla";
import {
  formatEvent,
  listStory,
  mustAnswer,
  mustHappen,
  mustNever,
  mustStay,
  type Check,
  type CheckBeginning,
  type Kit,
  type TraceEvent,
} from "#core";
import type { Evaluated } from "../judging/judge";
import { freshId } from "../edits/freshId";
import type { Notify } from "../ui/notices";
import type { Evaluation } from "./evaluation";
import type { Workbench } from "./workbench";

/**
 * Creates checks from what is seen in the open take. Each is one step of undo, with a notice that offers to
 * undo it.
 */
export interface Checking {
  /**
   * Creates a check "must happen here", or "must never happen", for the event of a note of `of` (default the
   * open take); notifies if the note is undefined.
   */
  readonly mustHappen: (note: number | undefined, of?: Evaluated) => void;
  readonly mustNever: (note: number | undefined, of?: Evaluated) => void;
  /** Creates a check "every press of this control is answered". */
  readonly mustAnswer: (controlId: string) => void;
  /** Creates a check "this take stays as it is". */
  readonly mustStay: () => void;
}

interface CheckingWorld {
  readonly workbench: Pick<Workbench, "getState" | "editChecks" | "putBack">;
  readonly evaluation: Pick<StoreApi<Evaluation>, "getState">;
  readonly notify: Notify;
}

/** Creates the factory of checks of one page. */
export function createChecking({ workbench, evaluation, notify }: CheckingWorld): Checking {
  function add(
    make: (now: Evaluated, kit: Kit, beginning: CheckBeginning) => Check | undefined,
    evaluated = evaluation.getState().evaluated,
  ): void {
    const { kit, checks } = workbench.getState();
    if (!kit) return;
    if (!evaluated)
      return notify({
        tone: "trouble",
        title: "No check was made: no take is open.",
        details: ["Record a take, or open one: a check is made of what happens in it."],
      });
    const taken = new Set(checks.map(check => check.id));
    const id = freshId("check", taken);
    const check = make(evaluated, kit, { id, takeId: evaluated.take.id });
    const edit = check && workbench.editChecks(`check: ${check.name}`, now => [...now, check]);
    if (!edit) return;
    notify({
      tone: "plain",
      title: "A check was made; Prove holds it against every edit from now on.",
      details: [check.name],
      action: { label: "Take it back", run: () => workbench.putBack("took a check back", edit) },
    });
  }
  const ofEvent =
    (make: (kit: Kit, event: TraceEvent, beginning: CheckBeginning) => Check) =>
    (note: number | undefined, of?: Evaluated) => {
      if (note === undefined && evaluation.getState().evaluated)
        return notify({
          tone: "trouble",
          title: "No check was made: nothing happens on this frame.",
          details: ["The keys [ and ] lead to the frames on which something does."],
        });
      return add(({ program, trace }, kit, beginning) => {
        const event = note === undefined ? undefined : formatEvent(program, trace, note);
        return event && make(kit, event, beginning);
      }, of);
    };
  return {
    mustHappen: ofEvent(mustHappen),
    mustNever: ofEvent(mustNever),
    mustAnswer: controlId => add((_now, kit, beginning) => mustAnswer(kit, controlId, beginning)),
    mustStay: () =>
      add(({ program, trace, take }, _kit, beginning) =>
        mustStay(take.name || take.id, listStory(program, trace), beginning),
      ),
  };
}
