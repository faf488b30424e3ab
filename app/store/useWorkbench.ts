import { useStore } from "zustand";
import { judged, judgeTake } from "./judged";
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

/** How many steps can be undone and redone. */
export function useHistory(): { past: number; future: number } {
  const past = useStore(workbench.temporal, state => state.pastStates.length);
  const future = useStore(workbench.temporal, state => state.futureStates.length);
  return { past, future };
}
