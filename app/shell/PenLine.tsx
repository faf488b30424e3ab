import { useDocument, useWorkbench } from "../document/workbenchContext";
import { Button } from "../ui/Button";

/**
 * The line below the header while another tab writes this kit, or it was removed from the shelf: the
 * consequence, and the way out.
 */
export function PenLine() {
  const workbench = useWorkbench();
  const holder = useDocument(state => (state.kit ? state.holder : "ours"));
  if (holder === "ours") return null;
  return (
    <p
      role="status"
      className="flex shrink-0 items-center gap-3 border-b border-line bg-sand px-5 py-1 text-sm"
      data-testid="pen"
    >
      {holder === "theirs" ? (
        <>
          <span>
            Another tab works on this kit. This one shows what happens there, and plays; nothing is changed
            from here.
          </span>
          <Button onClick={workbench.takePen}>Work on it here</Button>
        </>
      ) : (
        <>
          <span>
            This kit was deleted in another tab. It is still shown here as it was; nothing changed now is
            kept.
          </span>
          <Button onClick={workbench.putKitBack}>Put it back</Button>
        </>
      )}
    </p>
  );
}
