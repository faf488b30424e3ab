import { useNotices } from "../ui/noticesContext";
import { useWorkbench } from "./workbenchContext";
import type { Edit } from "./workbench";

/**
 * Notifies that something was removed, with an action that restores exactly it, whatever was edited since.
 */
export function useTakeAway(): (title: string, edit: Edit | undefined, details?: readonly string[]) => void {
  const workbench = useWorkbench();
  const { notify } = useNotices();
  return (title, edit, details = []) => {
    if (!edit) return;
    notify({
      tone: details.length > 0 ? "trouble" : "plain",
      title,
      details,
      action: { label: "Put it back", run: () => workbench.putBack("put something back", edit) },
    });
  };
}
