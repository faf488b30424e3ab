import type { Take } from "#core";
import { NO_ARCS, onStage, shownAtRest, shownOfSession, type Scene } from "../../scene/scene";
import type { StoreApi } from "zustand/vanilla";
import type { Evaluation } from "../../document/evaluation";
import type { Playback } from "../../document/playback";
import type { Workbench } from "../../document/workbench";
import type { Evaluated, Judge } from "../../judging/judge";
import type { Pad } from "../../input/pad";
import type { PageTape } from "../../tape/hand/context";

/** The sources of a scene. */
export interface SceneSources {
  readonly workbench: Workbench;
  readonly evaluation: StoreApi<Evaluation>;
  readonly playback: Playback;
  readonly judge: Judge;
  readonly pad: Pad;
  readonly tape: PageTape;
}

/** The maximum number of frames stepped per picture, to keep it smooth. */
const MAX_FRAMES_STEPPED = 4000;

/** Returns the open take under the variant shown for comparison, and the variant's name. */
export function readOther(
  { workbench, judge, tape }: SceneSources,
  take: Take,
): { readonly name: string; readonly evaluated: Evaluated } | undefined {
  const { laidOver } = tape.look.getState();
  const variant = workbench.getState().variants.find(item => item.id === laidOver);
  const rules = variant && judge.rulesOf(variant.kit);
  return variant && rules ? { name: variant.name, evaluated: judge.evaluate(rules, take) } : undefined;
}

function sceneOf(sources: SceneSources, now: Evaluated): Scene | undefined {
  const { rules, program, columns, trace, track, take } = now;
  if (!rules.stage || columns.frames === 0) return undefined;
  const { judge, playback } = sources;
  const frame = Math.min(playback.getState().frame, columns.frames - 1);
  const state = judge.seekerOf(now).stateAt(frame, MAX_FRAMES_STEPPED);
  const { inHand } = sources.pad.getState();
  const laidOver = readOther(sources, take);
  const other = laidOver && { name: laidOver.name, track: laidOver.evaluated.track };
  const keptArcs = sources.workbench.getState().settings.arcs ?? NO_ARCS;
  return { kit: rules.kit, program, stage: rules.stage, frame, trace, track, state, other, keptArcs, inHand };
}

/**
 * Returns the current scene, live, replayed, or at rest without a take; undefined in a kit without a stage.
 */
export function readScene(sources: SceneSources): Scene | undefined {
  const { session, inHand } = sources.pad.getState();
  const { evaluated, rules: open } = sources.evaluation.getState();
  if (!session) {
    const replayed = evaluated && sceneOf(sources, evaluated);
    return replayed ?? (open && onStage(open, shownAtRest(open, inHand)));
  }
  const { arcs } = sources.workbench.getState().settings;
  return onStage(session.rules, shownOfSession(session, inHand, arcs));
}
