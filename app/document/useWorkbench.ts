import { useStore } from "zustand";
import type { Kit } from "#core";
import { judged, judgeTake } from "../judging/judged";
import { kitOfProgram } from "../judging/staged";
import { compileOnce, workbench, type Compiled, type Evaluated, type Workbench } from "./workbench";

/** A part of the open document; the component hears of it only when that part changes. */
export function useWorkbench<T>(select: (state: Workbench) => T): T {
  return useStore(workbench, select);
}

/** The open kit as compiled. */
export function useCompiled(): Compiled {
  return useWorkbench(state => compileOnce(state.kit));
}

/** The open take as the present kit understands it, or undefined when there is none, or while a long one is first judged. */
export function useEvaluated(): Evaluated | undefined {
  useStore(judged);
  return useWorkbench(state => {
    const { program } = compileOnce(state.kit);
    const take = state.takes.find(item => item.id === state.openTakeId);
    return program && take ? judgeTake(program, take) : undefined;
  });
}

/** The open kit, if its program is its own; undefined while it has faults and the last good program stands in. */
export function useSoundKit(): Kit | undefined {
  return useWorkbench(({ kit }) => {
    const { program } = compileOnce(kit);
    return program && kitOfProgram(program) === kit ? kit : undefined;
  });
}

/** Is there anything to undo, and to redo? */
export function useHistory(): { canUndo: boolean; canRedo: boolean } {
  const canUndo = useStore(workbench.temporal, state => state.pastStates.length > 0);
  const canRedo = useStore(workbench.temporal, state => state.futureStates.length > 0);
  return { canUndo, canRedo };
}

/** Can the open kit be played: does it compile? */
export function useIsPlayable(): boolean {
  return useWorkbench(state => compileOnce(state.kit).program !== undefined);
}
