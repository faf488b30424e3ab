import type { Kit, Take } from "#core";
import { compileRules, leapAtEdges, playRoutine, stageOf, type Routine, type Rules } from "#stage";
import { cleanSheet, SHEET_SECONDS } from "../cleanSheet";
import { GOALS, type Goal, type HandPress } from "./goals";

const BARE = { format: "moss-tap/kit", version: 1, rate: 60, controls: [], patterns: [] } as const;

/** The distance of demonstrated goals, and the length of the leaps before them, in frames. */
const APART = 60;
const LEAPING = 360;
const BREATH = 20;

/**
 * Returns the routine of a scripted player that first leaps at edges if the stage has any, then makes these
 * presses.
 */
function routineOf({ kit }: Rules, presses: readonly HandPress[], isLeaping: boolean): Routine {
  const stage = stageOf(kit);
  const leap = kit.controls.find(control => control.name === "Leap");
  const leaping =
    isLeaping && stage?.kind === "runner" && leap ? leapAtEdges(stage.run.right, leap.id, 2, 16) : undefined;
  return (frame, see) => {
    const held = new Set(leaping && frame < LEAPING ? leaping(frame, see) : []);
    for (const [control, from, to] of presses) if (frame >= from && frame < to) held.add(control);
    return held;
  };
}

function nameOf(goals: readonly Goal[]): string {
  const words = goals.map(({ words: text }) => text.replace(/^An? /, "").toLowerCase());
  const name = words.length > 2 ? `${words.slice(0, 2).join(", ")} and more` : words.join(" and ");
  return name === "" ? "New kit" : `${name[0]!.toUpperCase()}${name.slice(1)}`;
}

/** A new kit with its takes. */
export interface BegunKit {
  readonly kit: Kit;
  readonly takes: readonly Take[];
}

/**
 * Creates a kit for goals: controls on keys and buttons of their own, working rules, the stage of the first
 * goal that has one, a take by a scripted player that shows each goal, and an empty take. Without goals the
 * kit has only the empty take. `nowMs` makes its id unique.
 */
export function beginKit(goalIds: readonly string[], nowMs: number): BegunKit {
  const goals = GOALS.filter(goal => goalIds.includes(goal.id));
  const id = `kit-${nowMs.toString(36)}`;
  let kit: Kit = { ...BARE, id, name: nameOf(goals) };
  if (goals[0]) kit = goals[0].stage(kit);
  const hasLeap = goals.some(goal => goal.id === "jump") && stageOf(kit)?.kind === "runner";
  const presses: HandPress[] = [];
  let at = hasLeap ? LEAPING + APART : APART;
  for (const goal of goals) {
    const grown = goal.grow(kit);
    kit = grown.kit;
    const from = grown.isByClock ? 0 : at;
    presses.push(...grown.presses.map(([control, down, up]): HandPress => [control, from + down, from + up]));
    const last = Math.max(0, ...grown.presses.map(([, , up]) => up));
    if (!grown.isByClock && grown.presses.length > 0) at += last + APART;
  }
  const sheet = cleanSheet(kit, SHEET_SECONDS, "clean-sheet");
  const compiled = compileRules(kit);
  if (goals.length === 0 || !compiled.ok) return { kit, takes: [sheet] };
  const frames = Math.max(hasLeap ? LEAPING : 0, ...presses.map(([, , up]) => up)) + APART + BREATH;
  const routine = routineOf(compiled.value, presses, hasLeap);
  const shown = playRoutine(compiled.value, routine, frames, "shown-once", "Played by a scripted hand");
  return { kit, takes: [shown, sheet] };
}
