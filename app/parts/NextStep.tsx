import { useEffect, useState, type ReactNode } from "react";
import { useDocument, useWorkbench } from "../document/workbenchContext";

/**
 * A hint on the next step of a view, shown until the view is left after the step was completed once in this kit;
 * `isDone`: it is being completed now. It keeps its place meanwhile, as what moved up would move under a drag; `isBrief`: it
 * does not, where nothing that is at work lies below it.
 */
export function NextStep({
  view,
  isDone,
  isBrief = false,
  children,
}: {
  view: string;
  isDone: boolean;
  isBrief?: boolean;
  children: ReactNode;
}) {
  const workbench = useWorkbench();
  const wasDone = useDocument(state => state.settings.done?.includes(view) ?? false);
  const [isNeeded] = useState(!wasDone && !isDone);
  useEffect(() => {
    if (!isDone || wasDone) return;
    workbench.updateKitSettings(settings => ({ ...settings, done: [...(settings.done ?? []), view] }));
  }, [workbench, isDone, wasDone, view]);
  if (!isNeeded || (isBrief && (isDone || wasDone))) return null;
  return (
    <p className="text-sm text-soft" data-testid="next-step">
      {children}
    </p>
  );
}
