import { useStore } from "zustand";
import { createOwnerContext } from "../ui/ownerContext";
import type { OpenDocument } from "./openDocument";
import type { Workbench } from "./workbench";

/** The workbench of a page, which owns the open document. */
export const [WorkbenchContext, useWorkbench] = createOwnerContext<Workbench>("the workbench");

/** Returns a part of the open document; re-renders only when that part changes. */
export function useDocument<T>(select: (state: OpenDocument) => T): T {
  return useStore(useWorkbench(), select);
}

/** Returns whether there is anything to undo and to redo. */
export function useHistory(): { canUndo: boolean; canRedo: boolean } {
  const { history } = useWorkbench();
  const canUndo = useStore(history, state => state.pastStates.length > 0);
  const canRedo = useStore(history, state => state.futureStates.length > 0);
  return { canUndo, canRedo };
}
