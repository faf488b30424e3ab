import { useWorkbench } from "../document/workbenchContext";
import { packFiles } from "#handover";
import { download } from "../storage/files";
import { Button } from "../ui/Button";

/** Saves the open kit with its takes and layouts as one file, whatever else has failed. */
export function SaveKitButton() {
  const workbench = useWorkbench();
  const save = () => {
    const { kit, takes, layouts } = workbench.getState();
    if (kit) download(packFiles([kit, ...takes, ...layouts]));
  };
  return <Button onClick={save}>Save the kit as a file</Button>;
}
