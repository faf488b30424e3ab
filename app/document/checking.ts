import type { StoreApi } from "zustand/vanilla";
import {
  formatPhasedEvent,
  listStory,
  mustAnswer,
  mustHappen,
  mustNever,
  mustStay,
  nameOf,
  type Check,
  type CheckBeginning,
  type Kit,
  type PhasedTraceEvent,
} from "#core";
import type { PairedAct } from "#link";
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
  /** Creates a check that the rules do as a running game did, in which it differed from them. */
  readonly asTheGame: (pair: PairedAct) => void;
}

interface CheckingWorld {
  readonly workbench: Pick<Workbench, "getState" | "editChecks" | "putBack">;
  readonly evaluation: Pick<StoreApi<Evaluation>, "getState">;
  readonly notify: Notify;
}

/** Returns the check that a move is performed on the frame of the game; or not there, if the rules alone did. */
function checkOfGame(kit: Kit, { id: move, game, rules }: PairedAct, { id, takeId }: CheckBeginning): Check {
  const name = nameOf(kit, "moves", move);
  const performed = { kind: "performed", id: move } as const;
  if (game === undefined)
    return {
      id,
      name: `${name} not at ${rules}f, as in the game`,
      on: [takeId],
      never: performed,
      from: `${rules}f`,
      to: `${rules}f`,
    };
  return {
    id,
    name: `${name} at ${game}f, as in the game`,
    on: [takeId],
    happens: performed,
    at: `${game}f`,
    within: "0f",
  };
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
      action: { label: "Remove it", run: () => workbench.putBack("took a check back", edit) },
    });
  }
  const ofEvent =
    (make: (kit: Kit, event: PhasedTraceEvent, beginning: CheckBeginning) => Check) =>
    (note: number | undefined, of?: Evaluated) => {
      if (note === undefined && evaluation.getState().evaluated)
        return notify({
          tone: "trouble",
          title: "No check was made: the rules do nothing on this frame.",
          details: [
            "Of presses and releases alone only A makes one, in the row of a control: every press of it is answered.",
          ],
        });
      return add(({ program, trace }, kit, beginning) => {
        const event = note === undefined ? undefined : formatPhasedEvent(program, trace, note);
        return event && make(kit, event, beginning);
      }, of);
    };
  return {
    mustHappen: ofEvent(mustHappen),
    mustNever: ofEvent(mustNever),
    mustAnswer: controlId => add((_now, kit, beginning) => mustAnswer(kit, controlId, beginning)),
    asTheGame: pair => add((_now, kit, beginning) => checkOfGame(kit, pair, beginning)),
    mustStay: () =>
      add(({ program, trace, take }, _kit, beginning) =>
        mustStay(take.name || take.id, listStory(program, trace), beginning),
      ),
  };
}
