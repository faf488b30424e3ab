import { useMemo } from "react";
import { useEvaluationStore, usePlaybackControl } from "../document/evaluationContext";
import { useWorkbench } from "../document/workbenchContext";
import { usePad } from "../input/context";
import { useJudging } from "../judging/context";
import { useTape } from "../tape/hand/context";
import type { SceneSources } from "./model/readScene";

/** Returns the sources of the page's scene; the same object at every render. */
export function useSceneSources(): SceneSources {
  const workbench = useWorkbench();
  const evaluation = useEvaluationStore();
  const playback = usePlaybackControl();
  const { judge } = useJudging();
  const pad = usePad();
  const tape = useTape();
  return useMemo(
    () => ({ workbench, evaluation, playback, judge, pad, tape }),
    [workbench, evaluation, playback, judge, pad, tape],
  );
}
